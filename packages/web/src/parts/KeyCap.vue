<script setup lang="ts">
defineProps<{ label: string }>();
</script>

<template>
  <kbd class="keycap" aria-hidden="true">{{ label }}</kbd>
</template>

<style scoped>
.keycap {
  font-family: 'Atkinson Hyperlegible Mono', monospace;
  font-weight: 500;
  font-size: 15px;
  min-width: 26px;
  padding: 1px 6px;
  text-align: center;
  border: 1.5px solid currentColor;
  border-bottom-width: 3px;
  border-radius: 5px;
}
</style>
