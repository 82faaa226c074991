<script setup lang="ts">
/** What was read, how sure, what else it may be, and what the family's table makes of it. */
import { codeInWords, words } from '@veglia/contract';
import { codesElsewhere, codesMeant, parseSeen, sureCycles, sureProbability, type BlinkResult, type CompiledPack } from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { textOf } from '../../stores/packs.ts';
import { correctedTo, type Taken } from './reading.ts';

const props = defineProps<{
  taken: Taken | undefined;
  result?: BlinkResult | undefined;
  compiled: CompiledPack;
  family?: string | undefined;
  layouts: readonly string[];
  /** What the button says; without it there is nothing to take the reading. */
  takeLabel?: string | undefined;
}>();
const emit = defineEmits<{ take: [taken: Taken]; correct: [taken: Taken] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const correcting = ref(false);
const typed = ref('');
const twice = ref(false);
watch(
  () => props.result,
  () => (correcting.value = false),
);

const sure = computed(() => {
  const now = props.taken;
  return (
    now !== undefined &&
    now.groups.length > 0 &&
    now.cycles >= sureCycles &&
    (now.probability ?? 1) >= sureProbability &&
    (props.result?.reading?.sure ?? true)
  );
});
const advice = computed(() => {
  if (props.taken?.corrected) return t('blink.corrected');
  if (props.result) return words.en.blinkAdvice[props.result.advice];
  return props.taken && props.taken.groups.length > 0 && props.taken.cycles < sureCycles ? words.en.blinkAdvice['one-more-cycle'] : '';
});
const code = computed(() => (props.taken ? codeInWords(props.taken, words.en) : ''));
/** Cycles that agree, the probabilities, and what else it may be. */
const details = computed(() => {
  const now = props.taken;
  if (!now) return '';
  const others = (now.alternatives ?? []).filter(({ probability }) => probability >= 0.01);
  return [
    t('blink.cycles', now.cycles),
    ...(now.probability === undefined ? [] : [t('blink.probability', { probability: percent(now.probability) })]),
    ...others.map(({ groups, probability }) => `${groups.join('-')} ${percent(probability)}`),
  ].join(' · ');
});
const family = computed(() => props.compiled.families.get(props.family ?? ''));
/** Rows less likely than this are no help to anybody. */
const leastProbability = 0.03;
const meant = computed(() => (props.taken && family.value ? codesMeant(family.value, props.taken, leastProbability) : []));
const known = computed(() => meant.value.some(({ distance }) => distance === 0));
const elsewhere = computed(() =>
  props.taken && props.taken.groups.length > 0 && !known.value
    ? codesElsewhere(props.compiled, props.taken, family.value?.layouts ?? props.layouts, props.family).slice(0, 4)
    : [],
);
const suspectName = (id: string): string => (props.compiled.faults.has(id) ? names.fault(id) : names.assembly(id));

const wrong = ref(false);
function correct(): void {
  const seen = parseSeen(typed.value);
  wrong.value = seen === undefined;
  if (!seen || !props.taken) return;
  correcting.value = false;
  emit('correct', correctedTo(props.taken, seen, twice.value));
}
</script>

<template>
  <section class="sheet verdict" data-test="reading" aria-live="polite">
    <p v-if="!taken" class="soft">{{ result ? words.en.blinkKind[result.kind] : t('blink.nothingYet') }}</p>
    <template v-else>
      <p class="code">
        <strong class="reading" data-test="code">{{ code }}</strong>
        <span class="badge" :class="{ sure }" data-test="sure">{{ sure ? t('blink.read') : t('blink.notSure') }}</span>
      </p>
      <p v-if="taken.groups.length > 0" class="soft">
        {{ details }}
      </p>
      <p v-if="taken.afterClick">{{ t(`blink.afterClick.${taken.afterClick}`) }}</p>
    </template>
    <p v-if="advice" :class="{ alarm: !sure && !taken?.corrected }" data-test="advice">{{ advice }}</p>
    <template v-if="taken && taken.groups.length + (taken.light === 'no-light' ? 1 : 0) > 0">
      <template v-if="meant.length > 0">
        <h2>{{ known ? t('blink.meansIn', { family: textOf(family!.name) }) : t('blink.notUsedIn', { family: textOf(family!.name) }) }}</h2>
        <ul data-test="meant">
          <li v-for="one in meant" :key="one.code.id">
            <strong class="reading">{{ codeInWords(one.code, words.en) }}</strong> {{ textOf(one.code.meaning) }}
            <span class="figure">{{ percent(one.probability) }}</span>
            <span class="soft small"
              >{{
                Object.entries(one.code.suspects)
                  .map(([id, word]) => `${suspectName(id)} (${word})`)
                  .join(', ')
              }}{{ one.code.firstCheck ? `. ${t('blink.firstCheck')}: ${names.test(one.code.firstCheck)}` : '' }}</span
            >
          </li>
        </ul>
      </template>
      <p v-else-if="family" class="soft">{{ t('blink.noneNear', { family: textOf(family.name) }) }}</p>
      <p v-else class="soft">{{ t('blink.noFamily') }}</p>
      <template v-if="elsewhere.length > 0">
        <h2>{{ t('blink.elsewhere') }}</h2>
        <ul>
          <li v-for="one in elsewhere" :key="one.family.id + one.code.id" class="soft">
            {{ textOf(one.family.name) }}: {{ textOf(one.code.meaning) }}
          </li>
        </ul>
      </template>
    </template>
    <p v-if="taken" class="inline">
      <button v-if="takeLabel" type="button" class="push full" data-test="take" @click="emit('take', taken)">
        <KeyCap label="↵" />{{ takeLabel }}
      </button>
      <button v-if="result && !correcting" type="button" class="plain" data-test="correct" @click="correcting = true">
        {{ t('blink.correct') }}
      </button>
    </p>
    <!-- No form: the counter has one around it. -->
    <div v-if="correcting" class="inline correcting" @keydown.enter.prevent.stop="correct">
      <label for="correct-to">{{ t('blink.correctTo') }}</label>
      <el-input id="correct-to" v-model="typed" class="narrow" :aria-invalid="wrong" />
      <el-checkbox v-model="twice">{{ t('counter.blinkTwice') }}</el-checkbox>
      <button type="button" class="push" @click="correct">{{ t('blink.correct') }}</button>
      <p v-if="wrong" class="alarm" role="alert">{{ t('blink.notUnderstood', { typed }) }}</p>
    </div>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 6px;
}
.code {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
.code strong {
  font-size: 28px;
  line-height: 1.1;
}
.badge {
  padding: 2px 10px;
  border: 1.5px dashed var(--alarm);
  border-radius: var(--radius);
  color: var(--alarm);
  font-weight: 600;
}
.badge.sure {
  border: 1.5px solid var(--accent);
  color: var(--accent);
}
li {
  padding: 3px 0;
}
.figure {
  white-space: nowrap;
}
.small {
  display: block;
  font-size: 14px;
}
.narrow {
  width: 180px;
}
</style>
