<script setup lang="ts">
/** Left out, with a reason that is picked. A safety check is left out by the local rule alone. */
import { skipReasons, type Body, type ProofItem } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';

const props = defineProps<{ items: readonly ProofItem[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const safety = computed(() => props.items.some(({ rule }) => rule.safety !== undefined));
const reasons = computed(() => skipReasons.filter((one) => (one === 'local-rule') === safety.value));
const open = ref(false);
const reason = ref<(typeof skipReasons)[number] | ''>('');
function leave(): void {
  const picked = reason.value === '' ? reasons.value[0] : reason.value;
  if (picked === undefined) return;
  emit(
    'write',
    props.items.map(({ id }): Body => ({ kind: 'proof.skipped', v: 1, item: id, reason: picked })),
  );
  open.value = false;
}
</script>

<template>
  <div class="leave">
    <button
      type="button"
      class="plain"
      :aria-expanded="open"
      :data-test="items.length > 1 ? 'leave-rest' : 'leave-out'"
      @click="open = !open"
    >
      {{ t(items.length > 1 ? 'proof.leaveRest' : 'proof.leaveOut') }}
    </button>
    <form v-if="open" class="inline" @submit.prevent="leave">
      <ChoiceField
        :id="`proof-reason-${items.length}`"
        :model-value="reason === '' ? (reasons[0] ?? '') : reason"
        :label="t('proof.reason')"
        :options="reasons.map((value) => ({ value, label: t(`proof.skip.${value}`) }))"
        @update:model-value="(value) => (reason = value as typeof reason)"
      />
      <button type="submit" class="push" data-test="leave-it">{{ t('proof.leave') }}</button>
      <span v-if="items.length > 1" class="soft">{{ t('proof.restHelp') }}</span>
    </form>
  </div>
</template>

<style scoped>
.inline {
  flex-wrap: wrap;
  align-items: end;
}
</style>
