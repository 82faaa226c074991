<script setup lang="ts">
import { useI18n } from 'vue-i18n';
const { t } = useI18n();
</script>

<template>
  <section class="sheet">
    <h1>{{ t('app.nowhere') }}</h1>
    <p>
      <RouterLink to="/">{{ t('app.back') }}</RouterLink>
    </p>
  </section>
</template>
