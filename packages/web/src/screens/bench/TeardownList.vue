<script setup lang="ts">
/** Taking apart, with what was counted; closing is the same list backwards, with what is missing. */
import { boundsOf } from '@veglia/contract';
import { bodySchemas, liveEntries, type Body, type CaseFold, type CompiledPack, type Entry } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { parseBetween } from '../../numbers.ts';
import PhotoButton from '../../parts/PhotoButton.vue';
import PhotoThumb from '../../parts/PhotoThumb.vue';
import { textOf } from '../../stores/packs.ts';
import { teardownState } from './teardown.ts';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; entries: readonly Entry[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
/** Parts of the stages up to the one that is open, and of the next: it may be about to be opened. */
const parts = computed(() =>
  props.compiled.pack.stages
    .slice(0, Math.min(props.fold.set.stage + 2, props.compiled.pack.stages.length))
    .flatMap((stage) => stage.teardown ?? []),
);
const state = computed(() => teardownState(parts.value, liveEntries(props.entries)));
const screws = boundsOf(bodySchemas['teardown.taken'].shape.screws);
const closing = ref(false);
const shown = computed(() => (closing.value ? [...state.value].reverse().filter((part) => part.taken) : state.value));
const off = computed(() => state.value.filter((part) => part.off));
const typed = reactive<Record<string, string>>({});
/** Photos of parts that are about to come off. */
const pictures = reactive<Record<string, string>>({});
const wrong = ref('');

function write(kind: 'teardown.taken' | 'teardown.refitted', part: string): void {
  const text = (typed[part] ?? '').trim();
  wrong.value = '';
  const counts = parseBetween(text, screws, true);
  if (text !== '' && counts === undefined) {
    wrong.value = t('teardown.wrong', { value: text, ...screws });
    return;
  }
  const counted = counts === undefined ? {} : { screws: counts };
  const photo = pictures[part];
  if (kind === 'teardown.refitted') emit('write', [{ kind, v: 1, part, ...counted }]);
  else emit('write', [{ kind, v: 1, part, ...counted, ...(photo === undefined ? {} : { photo }) }]);
  typed[part] = '';
  delete pictures[part];
}
</script>

<template>
  <section class="sheet" data-test="teardown">
    <div class="line">
      <h2>{{ t('teardown.title') }}</h2>
      <button type="button" class="push" :aria-pressed="closing" data-test="closing" @click="closing = !closing">
        {{ t('teardown.closing') }}
      </button>
    </div>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
    <ol>
      <li v-for="part in shown" :key="part.id" :class="{ off: part.off }" :data-part="part.id" :data-off="part.off">
        <div>
          <strong>{{ textOf(part.name) }}</strong>
          <span v-if="part.taken?.screws !== undefined" class="figure">
            {{ part.taken.screws }} {{ part.counted ? t(`teardown.count.${part.counted}`) : '' }}</span
          >
          <span v-if="part.missing > 0" class="alarm"> {{ t('teardown.missing', { n: part.missing }) }}</span>
          <span v-else-if="part.missing < 0" class="alarm"> {{ t('teardown.extra', { n: -part.missing }) }}</span>
          <p v-if="!closing" class="soft">{{ textOf(part.how) }}</p>
          <PhotoThumb
            v-if="pictures[part.id] ?? part.taken?.photo"
            :photo="pictures[part.id] ?? part.taken?.photo ?? ''"
            :alt="textOf(part.name)"
          />
        </div>
        <PhotoButton v-if="!part.off && !closing" :label="t('teardown.photo')" @added="(photo) => (pictures[part.id] = photo)" />
        <label v-if="part.counted" class="count">
          <span class="visually-hidden">{{ textOf(part.name) }}, {{ t(`teardown.count.${part.counted}`) }}</span>
          <input v-model="typed[part.id]" inputmode="numeric" :placeholder="t(`teardown.count.${part.counted}`)" />
        </label>
        <button v-if="part.off" type="button" class="push" data-test="on" @click="write('teardown.refitted', part.id)">
          {{ t('teardown.on') }}
        </button>
        <button v-else-if="!closing" type="button" class="push" data-test="off" @click="write('teardown.taken', part.id)">
          {{ t('teardown.off') }}
        </button>
      </li>
    </ol>
    <p v-if="off.length > 0" class="alarm" data-test="still-off">
      {{ t('teardown.stillOff', { what: off.map((part) => textOf(part.name)).join(', ') }) }}
    </p>
    <p v-else-if="closing">{{ t('teardown.allBack') }}</p>
  </section>
</template>

<style scoped>
.line,
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.line {
  justify-content: space-between;
}
li {
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
li > div {
  flex: 1 0 100%;
}
li.off {
  border-left: 6px double var(--alarm);
  padding-left: 8px;
}
input {
  width: 90px;
  min-height: 42px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
</style>
