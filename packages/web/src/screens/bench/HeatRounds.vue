<script setup lang="ts">
/** Heat as a lever: all treated but one place, round by round. Each round answers the test of that name. */
import { boundsOf } from '@veglia/contract';
import { bodySchemas, liveEntries, type Body, type CaseFold, type CompiledPack, type Entry } from '@veglia/core';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { parseBetween } from '../../numbers.ts';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; entries: readonly Entry[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const form = reactive<{ left: string; way: 'warm' | 'chill'; to: string; room: string }>({ left: '', way: 'warm', to: '40', room: '22' });
/** The test whose `do` treats the whole set so and leaves its object at room temperature. */
const test = computed(() =>
  (props.compiled.testsOf.get(props.fold.set.layout ?? '') ?? []).find(
    (one) =>
      one.of &&
      one.do.some((step) => (form.way === 'warm' ? 'warm' in step && step.warm === 'set' : 'chill' in step && step.chill === 'set')) &&
      one.do.some((step) => 'warm' in step && step.warm === '$of'),
  ),
);
const rounds = computed(() => liveEntries(props.entries).flatMap(({ body }) => (body.kind === 'heat.round' ? [body] : [])));
/** Likeliest first: leaving a likely place alone tells most. Cables count as places. */
const places = computed(() => {
  const done = new Set(rounds.value.filter(({ result, way }) => result !== 'cant-tell' && way === form.way).map(({ left }) => left));
  const probabilities = new Map(props.fold.assemblies.map((one) => [one.id, one.probability]));
  return (test.value ? props.compiled.objectsOf(test.value, props.fold.set.layout ?? '') : [])
    .filter((id) => !done.has(id) && (probabilities.get(id) ?? 0) > 0)
    .sort((a, b) => (probabilities.get(b) ?? 0) - (probabilities.get(a) ?? 0));
});
/** Cool, warm, refit: common practice, no source. */
const roundMinutes = 120;
/** Where each way goes to; common practice, no source. */
const usual = { warm: '40', chill: '4' };
watch(
  () => form.way,
  (way) => {
    form.to = usual[way];
    form.left = '';
  },
);
const { toCelsius: treatedSchema, roomCelsius: roomSchema } = bodySchemas['heat.round'].shape;
const treated = boundsOf(treatedSchema);
const room = boundsOf(roomSchema);
const wrong = ref('');
const left = computed(() => form.left || places.value[0] || '');

function record(result: 'heals' | 'stays' | 'cant-tell'): void {
  const toCelsius = parseBetween(form.to, treated);
  const roomCelsius = parseBetween(form.room, room);
  wrong.value = '';
  if (toCelsius === undefined) wrong.value = t('heat.wrong', { value: form.to, ...treated });
  else if (roomCelsius === undefined) wrong.value = t('heat.wrong', { value: form.room, ...room });
  else if (form.way === 'warm' ? toCelsius <= roomCelsius : toCelsius >= roomCelsius) wrong.value = t(`heat.wrongWay.${form.way}`);
  else if (left.value !== '' && test.value) {
    const bodies: Body[] = [{ kind: 'heat.round', v: 1, left: left.value, way: form.way, toCelsius, roomCelsius, result }];
    bodies.push({
      kind: 'test.answered',
      v: 2,
      test: test.value.id,
      of: left.value,
      outcome: result,
      sure: 'sure',
      raw: `${toCelsius} °C, room ${roomCelsius} °C`,
      words: { test: names.test(test.value.id, left.value), outcome: names.outcome(test.value.id, result) },
    });
    emit('write', bodies);
    form.left = '';
  }
}
function start(): void {
  if (left.value !== '' && test.value)
    emit('write', [
      {
        kind: 'wait.started',
        v: 2,
        name: names.test(test.value.id, left.value),
        minutes: roundMinutes,
        toward: { kind: 'test', id: test.value.id, of: left.value },
      },
    ]);
}
</script>

<template>
  <section class="sheet fields" data-test="heat">
    <h2>{{ t('heat.title') }}</h2>
    <p class="soft">{{ t('heat.help') }}</p>
    <p v-if="!test" class="soft">{{ t('bench.node.none') }}</p>
    <template v-else>
      <ol v-if="rounds.length > 0">
        <li v-for="(round, index) in rounds" :key="index">
          {{ names.place(round.left) }}: <strong>{{ t(`heat.result.${round.result}`) }}</strong>
          <span class="soft"> {{ round.toCelsius }} °C / {{ round.roomCelsius }} °C</span>
        </li>
      </ol>
      <ChoiceField
        id="heat-left"
        v-model="form.left"
        :label="t('heat.left')"
        :options="places.map((id) => ({ value: id, label: names.place(id) }))"
        :none="names.place(left)"
      />
      <ChoiceField
        id="heat-way"
        v-model="form.way"
        class="short"
        :label="t('heat.way')"
        :options="(['warm', 'chill'] as const).map((value) => ({ value, label: t(`heat.ways.${value}`) }))"
      />
      <TextField id="heat-to" v-model="form.to" class="short" :label="t('heat.to')" inputmode="decimal" />
      <TextField id="heat-room" v-model="form.room" class="short" :label="t('heat.room')" inputmode="decimal" />
      <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
      <p class="inline">
        <button type="button" class="push" data-test="heat-start" @click="start">{{ t('heat.start') }}</button>
        <button
          v-for="result in ['heals', 'stays', 'cant-tell'] as const"
          :key="result"
          type="button"
          class="push"
          :data-result="result"
          @click="record(result)"
        >
          {{ t(`heat.result.${result}`) }}
        </button>
      </p>
      <p class="soft">{{ t('heat.ahead', { n: places.length, hours: places.length * (roundMinutes / 60) }) }}</p>
    </template>
  </section>
</template>
