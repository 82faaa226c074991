<script setup lang="ts">
/** Digits for a hand in a glove; a keyboard does as well. */
import { onMounted, onUnmounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ label: string; error?: string | undefined }>();
const emit = defineEmits<{ pin: [pin: string] }>();
const { t } = useI18n();
const typed = ref('');
const most = 8;
const add = (digit: string): void => {
  if (typed.value.length < most) typed.value += digit;
};
function send(): void {
  if (typed.value === '') return;
  emit('pin', typed.value);
  typed.value = '';
}
function press(event: KeyboardEvent): void {
  if (/^\d$/.test(event.key)) add(event.key);
  else if (event.key === 'Backspace') typed.value = typed.value.slice(0, -1);
  else if (event.key === 'Enter') send();
  else return;
  event.preventDefault();
}
onMounted(() => addEventListener('keydown', press));
onUnmounted(() => removeEventListener('keydown', press));
</script>

<template>
  <div class="pad" role="group" :aria-label="props.label" data-test="pin-pad">
    <p class="label">{{ props.label }}</p>
    <p class="typed reading" aria-live="polite">{{ '●'.repeat(typed.length) || '–' }}</p>
    <p v-if="error" class="alarm" role="alert">{{ error }}</p>
    <div class="keys">
      <button v-for="digit in '123456789'" :key="digit" type="button" class="push" @click="add(digit)">{{ digit }}</button>
      <button type="button" class="push" :aria-label="t('door.pinBack')" @click="typed = typed.slice(0, -1)">←</button>
      <button type="button" class="push" @click="add('0')">0</button>
      <button type="button" class="push full" data-test="pin-ok" @click="send">{{ t('door.pinOk') }}</button>
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  gap: 8px;
}
.label,
.typed {
  margin: 0;
}
.typed {
  font-size: 28px;
  letter-spacing: 6px;
  min-height: 40px;
  text-align: center;
}
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
/* In the middle of a large key. */
.keys .push {
  justify-content: center;
  text-align: center;
  min-height: 64px;
  font-size: 24px;
}
</style>
