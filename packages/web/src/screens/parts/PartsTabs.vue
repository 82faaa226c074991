<script setup lang="ts">
/** The two lists of parts: what jobs need, and what lies in the shop. */
import { useI18n } from 'vue-i18n';
const { t } = useI18n();
</script>

<template>
  <header class="head">
    <h1>{{ t('orders.title') }}</h1>
    <nav class="inline" :aria-label="t('orders.title')">
      <RouterLink to="/parts" class="push" exact-active-class="full">{{ t('orders.tabs.orders') }}</RouterLink>
      <RouterLink to="/parts/stock" class="push" exact-active-class="full" data-test="to-stock">{{ t('orders.tabs.stock') }}</RouterLink>
    </nav>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 24px;
  margin-bottom: 10px;
}
</style>
