<script setup lang="ts">
/** The set as it stands, always in view: plug, rails, charge, strap, what is out, timers. Each can be changed here, in the safe order. */
import {
  chargePoints,
  objectionsTo,
  peakOfMains,
  poweredFactorVolts,
  standingAt,
  stillOut,
  type Body,
  type BodyOf,
  type CaseFold,
  type CompiledPack,
  type Objection,
  type Wait,
} from '@veglia/core';
import type { ShopSettings } from '@veglia/contract';
import { computed, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { useCoarseNow } from '../../stores/clock.ts';
import { useActWords } from './actWords.ts';
import ChargeFields from './ChargeFields.vue';
import WaitLine from './WaitLine.vue';
import { cap, type Pressed } from './keymap.ts';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; shop: ShopSettings; waits: readonly Wait[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const names = useNames(
  () => props.compiled,
  () => props.fold.set.layout,
);
const words = useActWords(names);
const now = useCoarseNow();
const standing = computed(() => standingAt(props.fold.set, now.value, props.shop.lapseMinutes));
const out = computed(() => stillOut(props.fold.set));
const open = computed(() => props.fold.set.stage > 0 || out.value.length > 0);

const rails = computed(() => {
  if (standing.value.plugged) return t('bench.state.live');
  if (standing.value.railsDown || standing.value.verified)
    return t('bench.state.down', { n: standing.value.downFor ?? standing.value.verifiedFor ?? 0 });
  return standing.value.lapsed ? t('bench.state.lapsed') : t('bench.state.unknown');
});
const charge = computed(() => {
  const { measured } = props.fold.set;
  if (standing.value.plugged) return t('bench.state.charged');
  if (!standing.value.verified || !measured) return t('bench.state.notRead');
  const volts = Object.values(measured.volts).map((value) => `${value} V`);
  return t('bench.state.read', { volts: volts.join(' / '), n: standing.value.verifiedFor ?? 0 });
});

/** A change that meets objections waits here: left, or recorded as overridden. */
const pending = ref<{ change: BodyOf<'set.changed'>; objections: Objection[] }>();
/** The plug is about to go in while something is out: the list is looked at first. */
const powering = ref(false);
const reading = ref(false);
/** Read with an instrument, by point. */
const readAlready = ref<Readonly<Record<string, number>>>({});
async function enterCharge(volts: Readonly<Record<string, number>>): Promise<void> {
  reading.value = false;
  await nextTick();
  readAlready.value = { ...readAlready.value, ...volts };
  reading.value = true;
}

function attempt(change: Partial<BodyOf<'set.changed'>>): void {
  const body: BodyOf<'set.changed'> = { kind: 'set.changed', v: 3, ...change };
  const objections = objectionsTo(body, standing.value, props.compiled, props.fold.set.layout);
  pending.value = undefined;
  powering.value = false;
  if (objections.length > 0) pending.value = { change: body, objections };
  else emit('write', [body]);
}
function anyway(): void {
  if (!pending.value) return;
  emit('write', [{ ...pending.value.change, anyway: true }]);
  pending.value = undefined;
}
function plug(): void {
  if (standing.value.plugged) attempt({ plugged: false });
  else if (!powering.value && (out.value.length > 0 || standing.value.strap)) powering.value = true;
  else
    attempt({ plugged: true, ...(standing.value.strap ? { strap: false } : {}), ...(out.value.length > 0 ? { stillOut: out.value } : {}) });
}
function charged(volts: Record<string, number>): void {
  reading.value = false;
  readAlready.value = {};
  attempt({ verified: true, volts });
}
/** Keys arrive from the screen; true where one was used. */
function press({ command }: Pressed): boolean {
  if (command === 'plug') plug();
  else if (command === 'rails') attempt({ railsDown: true });
  else if (command === 'charge') reading.value = !reading.value;
  else if (command === 'strap') attempt({ strap: !standing.value.strap });
  else if (command === 'waitSeen') {
    const over = props.waits.find(({ endsAt }) => endsAt <= Date.now());
    if (!over) return false;
    emit('write', [{ kind: 'wait.ended', v: 2, name: over.name, wait: over.id }]);
  } else if (command === 'back' && (pending.value ?? (powering.value || reading.value))) {
    pending.value = undefined;
    powering.value = false;
    reading.value = false;
  } else return false;
  return true;
}
defineExpose({ press, attempt, enterCharge });
</script>

<template>
  <section class="state" :aria-label="t('bench.state.title')" data-test="set-state">
    <div class="facts">
      <span class="fact">{{ names.stage(fold.set.stageId) }}</span>
      <button
        type="button"
        class="fact"
        :class="{ hot: standing.plugged && open }"
        :data-plugged="standing.plugged"
        data-test="plug"
        @click="plug"
      >
        <KeyCap :label="cap('plug')" />{{ standing.plugged ? t('bench.plugged') : t('bench.unplugged') }}
      </button>
      <template v-if="open">
        <button
          type="button"
          class="fact"
          :class="{ hot: !standing.railsDown && !standing.verified }"
          data-test="rails"
          :disabled="fold.closed"
          @click="attempt({ railsDown: true })"
        >
          <KeyCap :label="cap('rails')" />{{ rails }}
        </button>
        <button type="button" class="fact" :class="{ hot: !standing.verified }" data-test="verified" @click="reading = !reading">
          <KeyCap :label="cap('charge')" />{{ charge }}
        </button>
        <button type="button" class="fact" :class="{ on: standing.strap }" data-test="strap" @click="attempt({ strap: !standing.strap })">
          <KeyCap :label="cap('strap')" />{{ standing.strap ? t('bench.state.strapOn') : t('bench.state.strapOff') }}
        </button>
      </template>
      <span class="out" data-test="out" :class="{ some: out.length > 0 }">
        {{ out.length === 0 ? t('bench.state.allIn') : t('bench.state.out', { what: out.map(words.left).join(', ') }) }}
      </span>
    </div>
    <div v-if="powering" class="ask" role="alertdialog" :aria-label="t('bench.power.title')" data-test="power-list">
      <strong>{{ t('bench.power.title') }}</strong>
      <ul>
        <li v-for="id in out" :key="id">{{ words.left(id) }}</li>
        <li v-if="standing.strap">{{ t('bench.act.strap-off') }}</li>
      </ul>
      <button type="button" class="push full" @click="plug"><KeyCap :label="cap('plug')" />{{ t('bench.power.on') }}</button>
      <button type="button" class="push" @click="powering = false"><KeyCap :label="cap('back')" />{{ t('common.cancel') }}</button>
    </div>
    <div v-if="reading" class="ask">
      <ChargeFields
        :points="chargePoints(fold.set.layout, compiled).map((id) => ({ id, name: names.place(id) }))"
        :most="Math.max(peakOfMains(shop.mainsVolts), poweredFactorVolts)"
        :known="readAlready"
        @read="charged"
      />
    </div>
    <div v-if="pending" class="ask" role="alertdialog" :aria-label="t('bench.anyway.title')" data-test="objections">
      <strong>{{ t('bench.anyway.title') }}</strong>
      <p v-for="(one, index) in pending.objections" :key="index" class="alarm">
        {{
          t(`core.objection.${one.code}`, {
            id: one.id === undefined ? '' : one.id.split(', ').map(words.left).join(', '),
            value: one.value,
          })
        }}
      </p>
      <button type="button" class="push full" @click="pending = undefined">
        <KeyCap :label="cap('back')" />{{ t('bench.anyway.leave') }}
      </button>
      <button type="button" class="plain" data-test="done-anyway" @click="anyway">{{ t('bench.anyway.record') }}</button>
    </div>
    <div v-if="waits.length > 0" class="waits">
      <WaitLine v-for="wait in waits" :key="wait.id" :wait="wait" @write="(bodies) => $emit('write', bodies)" />
    </div>
  </section>
</template>

<style scoped>
.state {
  position: sticky;
  top: 0;
  z-index: 20;
  margin: 0 -20px 8px;
  padding: 4px 20px 6px;
  background: var(--ground);
  border-bottom: 1.5px solid var(--line);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}
.fact {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  padding: 2px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--surface);
  font-weight: 600;
}
button.fact {
  cursor: pointer;
}
.fact.hot {
  border-color: var(--alarm);
  border-left-width: 8px;
  color: var(--alarm);
}
.fact.on {
  border-left: 8px solid var(--accent);
}
.out {
  flex: 1;
  min-width: 160px;
  color: var(--ink-soft);
}
/* In a narrow window only what is out is worth a line. */
@media (max-width: 1199.98px) {
  .out:not(.some) {
    display: none;
  }
}
@media (max-width: 699.98px) {
  .fact :deep(.keycap) {
    display: none;
  }
  .fact {
    padding: 0 7px;
    font-size: 14px;
  }
}
.out.some {
  color: var(--alarm);
  font-weight: 700;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  margin-top: 8px;
  padding: 8px 12px;
  border: 2px solid var(--alarm);
  border-radius: var(--radius);
  background: var(--surface);
}
.ask ul {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-weight: 600;
}
.waits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 6px;
  margin-top: 6px;
}
@media (max-width: 600px) {
  .state {
    margin: 0 -10px 12px;
    padding: 6px 10px;
  }
  .waits {
    grid-template-columns: 1fr;
  }
}
</style>
