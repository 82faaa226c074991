<script setup lang="ts" generic="T extends string">
/** Several of a few, ticked. */
defineProps<{ label: string; options: readonly { readonly value: T; readonly label: string }[] }>();
const ticked = defineModel<T[]>({ required: true });
</script>

<template>
  <div class="field wide" role="group" :aria-label="label">
    <span class="grouplabel">{{ label }}</span>
    <el-checkbox-group v-model="ticked">
      <el-checkbox v-for="one in options" :key="one.value" :value="one.value">{{ one.label }}</el-checkbox>
    </el-checkbox-group>
  </div>
</template>
