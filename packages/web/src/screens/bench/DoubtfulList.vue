<script setup lang="ts">
/** Which answers fit worst with all the others: on request, and open by itself once a repair didn't help. */
import { doubtfulAnswers, type CaseInput, type CompiledPack } from '@veglia/core';
import { computed } from 'vue';
import KeyCap from '../../parts/KeyCap.vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import { cap } from './keymap.ts';

const props = defineProps<{ input: CaseInput; compiled: CompiledPack; open: boolean }>();
defineEmits<{ toggle: [] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
/** Enough to look at again. */
const shown = 3;
/** Under this an answer is as likely true as not: not worth a line. */
const leastScore = 0.5;
const doubtful = computed(() =>
  props.open ? doubtfulAnswers(props.input, props.compiled).filter(({ score }) => score >= leastScore) : [],
);
</script>

<template>
  <section class="sheet" data-test="doubtful">
    <button type="button" class="plain" :aria-expanded="open" @click="$emit('toggle')">
      <KeyCap :label="cap('doubtful')" />{{ t('bench.doubtful.ask') }}
    </button>
    <div v-if="open">
      <p v-if="doubtful.length === 0" class="soft">{{ t('bench.doubtful.none') }}</p>
      <ol v-else>
        <li v-for="one in doubtful.slice(0, shown)" :key="one.entry.id">
          {{ names.test(one.test, one.of) }}: {{ names.outcome(one.test, one.outcome) }}
          <span class="soft">{{ t('bench.doubtful.chance', { chance: percent(one.chance) }) }}</span>
        </li>
      </ol>
      <p v-if="doubtful.length > 0" class="soft">{{ t('bench.doubtful.how') }}</p>
    </div>
  </section>
</template>
