<script setup lang="ts">
/** What is said of an image, changed; and what was said before. */
import { imageFactsSchema, type Image, type ImageFacts, type ImageFactsBefore } from '@veglia/contract';
import { computed, reactive, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import TextField from '../../parts/TextField.vue';

const props = defineProps<{ image: Image; personOf: (id: string) => string; wrong?: string | undefined }>();
const emit = defineEmits<{ change: [facts: ImageFacts] }>();
const { t, d } = useI18n();
const texts = ['name', 'board', 'revision', 'panel', 'chip', 'region', 'companion'] as const;
const form = reactive<Record<(typeof texts)[number], string> & { userData: boolean }>({
  name: '',
  board: '',
  revision: '',
  panel: '',
  chip: '',
  region: '',
  companion: '',
  userData: false,
});
const noName = ref('');
const before = shallowRef<ImageFactsBefore['before']>([]);
watch(
  () => props.image.facts,
  (facts) => {
    for (const one of texts) form[one] = facts[one] ?? '';
    form.userData = facts.userData === true;
  },
  { immediate: true },
);
watch(
  () => [props.image.id, props.image.facts],
  async () => {
    try {
      const reply = await api.imageFactsBefore(props.image.id);
      if (reply.ok) before.value = reply.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  },
  { immediate: true },
);
/** "Panel: VL43-A1 → VL43-A2", of each change that was made. */
const changes = computed(() =>
  before.value.map(({ facts, by, at }, index) => {
    const after = before.value[index - 1]?.facts ?? props.image.facts;
    const changed = texts
      .filter((one) => facts[one] !== after[one])
      .map((one) => `${label(one)}: ${facts[one] ?? '–'} → ${after[one] ?? '–'}`);
    if ((facts.userData ?? false) !== (after.userData ?? false))
      changed.push(t(after.userData === true ? 'stock.change.marked' : 'stock.change.unmarked'));
    if (JSON.stringify(facts.own ?? []) !== JSON.stringify(after.own ?? []))
      changed.push(t('stock.change.own', { before: facts.own?.length ?? 0, after: after.own?.length ?? 0 }));
    return { at, by, what: changed.join('; ') || t('stock.change.other') };
  }),
);
const label = (one: (typeof texts)[number]): string =>
  one === 'name' || one === 'revision' ? t(`stock.change.${one}`) : t(`stock.fact.${one}`);
function record(): void {
  noName.value = form.name.trim() === '' ? t('stock.change.noName') : '';
  if (noName.value !== '') return;
  const texted = Object.fromEntries(texts.map((one) => [one, form[one].trim() === '' ? undefined : form[one].trim()]));
  const facts = { ...props.image.facts, ...texted, userData: form.userData ? true : undefined };
  // What is empty is left out.
  emit('change', imageFactsSchema.parse(JSON.parse(JSON.stringify(facts))));
}
</script>

<template>
  <details class="facts" data-test="facts">
    <summary>{{ t('stock.change.open') }}</summary>
    <form class="fields" @submit.prevent="record">
      <TextField
        v-for="one in texts"
        :id="`fact-${one}`"
        :key="one"
        v-model="form[one]"
        :label="label(one)"
        :bounds="{ longest: 120 }"
        :error="one === 'name' ? noName || undefined : undefined"
      />
      <el-checkbox v-model="form.userData" class="wide" data-test="fact-user-data">{{ t('stock.change.userData') }}</el-checkbox>
      <button type="submit" class="push full" data-test="change-facts">{{ t('stock.change.record') }}</button>
    </form>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
    <ul v-if="changes.length > 0" data-test="facts-before">
      <li v-for="one in changes" :key="one.at">{{ d(one.at, 'minute') }}, {{ personOf(one.by) }}: {{ one.what }}</li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
  overflow-wrap: anywhere;
}
</style>
