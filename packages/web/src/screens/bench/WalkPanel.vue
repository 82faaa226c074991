<script setup lang="ts">
/** The way to a step: what to change on the set, one confirmation after the other. */
import { peakOfMains, poweredFactorVolts, type BodyOf, type CompiledPack, type Progress } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { useActWords } from './actWords.ts';
import ChargeFields from './ChargeFields.vue';
import { cap } from './keymap.ts';

const props = defineProps<{
  progress: Progress;
  compiled: CompiledPack;
  layout: string | undefined;
  mainsVolts: number;
  /** A wait belonging to the move is running already. */
  waiting: boolean;
  locked: boolean;
  /** What comes after the last move: a repair is done between "down" and "plug in". */
  repair: boolean;
}>();
const emit = defineEmits<{ change: [change: BodyOf<'set.changed'>]; wait: [minutes: number] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.layout,
);
const words = useActWords(names);
const next = computed(() => props.progress.next);
const moves = computed(() => props.progress.walk.moves);
const verify = computed(() => next.value?.acts.find((act) => act.kind === 'verify'));

/** A move that has nothing to be typed; true where there was one. */
function confirm(): boolean {
  if (!next.value || props.locked) return false;
  if (!verify.value) emit('change', next.value.change);
  return true;
}
function charge(volts: Record<string, number>): void {
  if (next.value && !props.locked) emit('change', { ...next.value.change, volts });
}
defineExpose({ confirm });
</script>

<template>
  <section v-if="next" class="walk" data-test="walk" :data-move="next.kind">
    <h3>
      {{ t('bench.walk.title', { n: progress.done + 1, of: moves.length }) }}
      <span v-if="next.kind === 'verify'" class="soft">{{ t('bench.walk.heavy') }}</span>
    </h3>
    <ol>
      <li v-for="(move, index) in moves" :key="index" :class="{ done: index < progress.done, now: index === progress.done }">
        <p v-if="repair && move.kind === 'power'" class="work">{{ t('bench.walk.work') }}</p>
        <template v-if="index === progress.done">
          <p v-for="(act, place) in move.acts" :key="place">{{ words.act(act) }}</p>
          <div class="go">
            <button v-if="!verify" type="button" class="push full" :disabled="locked" data-test="move" @click="confirm">
              <KeyCap :label="cap('confirm')" />{{ t(`bench.walk.did.${move.kind}`) }}
            </button>
            <button
              v-if="move.waitMinutes > 0 && !waiting"
              type="button"
              class="push"
              data-test="start-wait"
              @click="$emit('wait', move.waitMinutes)"
            >
              <KeyCap :label="cap('wait')" />{{ t('bench.wait.start', { n: move.waitMinutes }) }}
            </button>
          </div>
          <ChargeFields
            v-if="verify && !locked"
            :points="verify.points.map((id) => ({ id, name: names.place(id) }))"
            :most="Math.max(peakOfMains(mainsVolts), poweredFactorVolts)"
            @read="charge"
          />
        </template>
        <p v-else class="brief" :title="move.acts.map((act) => words.act(act)).join(' ')">
          {{ move.acts.map((act) => words.act(act)).join(' ') }}
        </p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.walk {
  margin: 4px 0;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-left: 8px double var(--alarm);
  border-radius: var(--radius);
}
h3 {
  font-size: 15px;
}
h3 .soft {
  font-weight: 400;
}
/* What was done and what comes is one line each; whole under the pointer. */
.brief {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  font-size: 14px;
  line-height: 1.3;
}
li {
  padding: 1px 0 1px 26px;
  position: relative;
  color: var(--ink-soft);
}
li::before {
  content: '○';
  position: absolute;
  left: 4px;
}
li.done::before {
  content: '✓';
}
li.now {
  color: var(--ink);
  font-size: 17px;
  line-height: 1.25;
  font-weight: 600;
}
li.now::before {
  content: '▸';
}
.work {
  font-weight: 400;
}
.go .push {
  min-height: 40px;
  padding: 2px 12px;
}
.go {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 3px 0;
}
</style>
