<script setup lang="ts">
/** A label, its field, and what is wrong with it. */
defineProps<{ id: string; label: string; error?: string }>();
</script>

<template>
  <div class="field" :class="{ wrong: error }">
    <label :for="id">{{ label }}</label>
    <slot />
    <p v-if="error" class="alarm">{{ error }}</p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
.field :deep(.el-date-editor) {
  --el-date-editor-width: 100%;
  width: 100%;
}
label {
  display: block;
  font-size: 15px;
  color: var(--ink-soft);
}
.wrong :deep(.el-input__wrapper),
.wrong :deep(.el-select__wrapper) {
  box-shadow: 0 0 0 2px var(--alarm) inset;
}
</style>
