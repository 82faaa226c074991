<script setup lang="ts">
/** Entries of this job that the server refused. */
import { readBody, type CompiledPack } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import NeedsYou, { type Refused } from '../../parts/NeedsYou.vue';
import { useJob } from '../../stores/job.ts';
import type { Waiting } from '../../stores/outbox.ts';
import { useEntryWords } from './entryWords.ts';

const props = defineProps<{ compiled: CompiledPack | undefined }>();
/** Of a note: its text, to be typed anew from. */
const emit = defineEmits<{ edit: [text: string] }>();
const store = useJob();
const { t } = useI18n();
/** Letters of a note that tell which it is. */
const mostShown = 60;
const words = useEntryWords(() => props.compiled);

const noteOf = ({ draft }: Waiting): string | undefined => {
  const { kind, text } = draft.body as { kind: string; text?: unknown };
  return kind === 'note.added' && typeof text === 'string' ? text : undefined;
};
const items = computed((): Refused[] =>
  store.refused.map((one) => {
    const { draft, by, refused = '' } = one;
    const note = noteOf(one);
    const read = readBody(draft.body, 'refused');
    const line = 'body' in read ? words({ ...draft, seq: 0, by, body: read.body }, store.entries) : undefined;
    const what =
      note === undefined
        ? draft.body.kind.replaceAll(/[.-]/g, ' ')
        : `${t('bench.note')}: ${note.slice(0, mostShown)}${note.length > mostShown ? ' …' : ''}`;
    const title =
      line && note === undefined ? [line.title, line.detail].filter((part) => part !== undefined && part !== '').join(', ') : what;
    return { key: draft.id, title, why: refused, content: draft, editable: note !== undefined };
  }),
);
const those = (key: string): Waiting[] => store.refused.filter(({ draft }) => draft.id === key);

async function edit(key: string): Promise<void> {
  const [one] = those(key);
  const text = one && noteOf(one);
  if (text === undefined) return;
  emit('edit', text);
  await store.dropRefused(those(key));
}
</script>

<template>
  <NeedsYou :items="items" @again="store.sendRefusedAgain(those($event))" @edit="edit" @discard="store.dropRefused(those($event))" />
</template>
