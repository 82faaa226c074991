<script setup lang="ts">
/** What in an image belongs to one set: named, and marked so that it can be put into an image that is not its own. */
import type { Image } from '@veglia/contract';
import { formatBytes, joinOwn, mostOwnPlaces, ownKinds, type OwnPlace } from '@veglia/core';
import { reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { offsetOf } from './offset.ts';

/** `proposed`: places found by looking inside or by comparing, beyond those that are marked. */
const props = defineProps<{ image: Image; proposed: readonly OwnPlace[] }>();
const emit = defineEmits<{ goTo: [offset: number]; mark: [places: readonly OwnPlace[]] }>();
const { t } = useI18n();
const hex = (at: number): string => `0x${at.toString(16)}`;
const form = reactive<{ from: string; to: string; kind: OwnPlace['kind'] }>({ from: '', to: '', kind: 'keys' });
const wrong = ref<{ from?: string; to?: string }>({});
const marked = (): readonly OwnPlace[] => props.image.facts.own ?? [];

function add(): void {
  const { size } = props.image;
  const [from, last] = [offsetOf(form.from, size), offsetOf(form.to, size)];
  wrong.value = {
    ...(from === undefined ? { from: t('stock.hex.wrong', { last: hex(size - 1) }) } : {}),
    ...(last === undefined || (from !== undefined && last < from) ? { to: t('stock.own.wrongLast', { last: hex(size - 1) }) } : {}),
  };
  if (from === undefined || last === undefined || last < from) return;
  emit('mark', joinOwn(marked(), [{ from, to: last + 1, kind: form.kind }]));
  Object.assign(form, { from: '', to: '' });
}
</script>

<template>
  <section class="own" data-test="own">
    <h3>{{ t('stock.own.title') }}</h3>
    <p v-if="marked().length === 0" class="soft">{{ t('stock.own.none') }}</p>
    <ul v-else data-test="own-places">
      <li v-for="one in marked()" :key="one.from" :data-kind="one.kind">
        <button type="button" class="plain reading" @click="emit('goTo', one.from)">{{ hex(one.from) }}</button>
        {{ t(`stock.own.kind.${one.kind}`) }}, {{ formatBytes(one.to - one.from) }}
        <button
          type="button"
          class="plain"
          :aria-label="t('stock.own.unmark', { at: hex(one.from) })"
          @click="
            emit(
              'mark',
              marked().filter((other) => other !== one),
            )
          "
        >
          {{ t('stock.own.remove') }}
        </button>
      </li>
    </ul>
    <p v-if="proposed.length > 0" class="inline" data-test="own-proposed">
      {{
        t(
          'stock.own.proposed',
          {
            where: proposed
              .slice(0, 4)
              .map(({ from }) => hex(from))
              .join(', '),
          },
          proposed.length,
        )
      }}
      <button type="button" class="push" data-test="mark-proposed" @click="emit('mark', joinOwn(marked(), proposed))">
        {{ t('stock.own.mark') }}
      </button>
    </p>
    <details v-if="marked().length < mostOwnPlaces">
      <summary>{{ t('stock.own.byHand') }}</summary>
      <form class="fields" @submit.prevent="add">
        <TextField id="own-from" v-model="form.from" :label="t('stock.own.first')" :error="wrong.from" placeholder="0xf0000" />
        <TextField id="own-to" v-model="form.to" :label="t('stock.own.last')" :error="wrong.to" placeholder="0xf0fff" />
        <ChoiceField
          id="own-kind"
          v-model="form.kind"
          :label="t('stock.own.what')"
          :options="ownKinds.map((value) => ({ value, label: t(`stock.own.kind.${value}`) }))"
        />
        <button type="submit" class="push bottom" data-test="own-add">{{ t('stock.own.mark') }}</button>
      </form>
    </details>
  </section>
</template>

<style scoped>
.own {
  display: grid;
  gap: 6px;
}
h3 {
  margin: 0;
  font-size: 16px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
