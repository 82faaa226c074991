<script setup lang="ts">
import { useI18n } from 'vue-i18n';
const { t } = useI18n();
defineEmits<{ again: [] }>();
</script>

<template>
  <section class="sheet" role="alert">
    <p class="alarm">{{ t('common.notReached') }}</p>
    <button type="button" class="push" @click="$emit('again')">{{ t('common.again') }}</button>
  </section>
</template>
