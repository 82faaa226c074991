<script setup lang="ts">
/** Boards the shop knows, found by number; new ones begin with the number printed on them. */
import { InputRefused, type Board } from '@veglia/core';
import { problemSentence, words } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import { useBoards } from '../../stores/boards.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import { readBoardFile } from './boardFile.ts';

const { t } = useI18n();
const packs = usePacks();
const session = useSession();
const store = useBoards();
const router = useRouter();
const route = useRoute();
const names = useNames(() => packs.current);
const reached = ref(true);
const find = ref('');
const refusal = ref('');
const imported = ref('');
const errors = reactive<Record<string, string>>({});
const asked = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '');
const form = reactive({ number: asked('number'), assembly: asked('assembly'), layout: asked('layout'), family: asked('family') });

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
  reached.value = (await store.load()) && packs.current !== undefined;
  form.layout ||= packs.current?.pack.layouts[0]?.id ?? '';
}
onMounted(load);

const familyName = (id: string): string => textOf(packs.current?.families.get(id)?.name) || id;
const shown = computed(() => {
  const wanted = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (store.list ?? []).filter((one) => {
    const text = [one.number, names.assembly(one.assembly), ...one.families.map(familyName)].join(' ').toLowerCase();
    return wanted.every((word) => text.includes(word));
  });
});
const layouts = computed(() => (packs.current?.pack.layouts ?? []).map(({ id, name }) => ({ value: id, label: textOf(name) })));
/** What carries a printed number: boards, and neither harnesses nor what is outside. */
const assemblies = computed(() =>
  (packs.current?.layouts.get(form.layout)?.assemblies ?? [])
    .filter((id) => !id.startsWith('harness.') && id !== 'outside')
    .map((value) => ({ value, label: names.assembly(value) })),
);
const families = computed(() =>
  (packs.current?.pack.families ?? [])
    .filter((one) => one.layouts.includes(form.layout))
    .map(({ id, name }) => ({ value: id, label: textOf(name) })),
);

async function keep(board: Board, version: number, reason: string): Promise<boolean> {
  const by = session.person?.id;
  if (by === undefined) return false;
  try {
    const reply = await store.save({ by, version, reason, board });
    if (!reply.ok) refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
    return reply.ok;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
    return false;
  }
}
async function add(): Promise<void> {
  for (const key of Object.keys(errors)) delete errors[key];
  refusal.value = '';
  const number = form.number.trim();
  if (number === '') errors.number = t('boards.errors.number');
  if (!assemblies.value.some(({ value }) => value === form.assembly)) errors.assembly = t('boards.errors.assembly');
  if (store.list?.some((one) => one.number.toLowerCase() === number.toLowerCase() && one.assembly === form.assembly))
    errors.number = t('boards.errors.same', { number });
  if (Object.keys(errors).length > 0) return;
  const board: Board = {
    format: 'veglia-board',
    version: 1,
    id: uuidv7(),
    number,
    assembly: form.assembly,
    layout: form.layout,
    families: form.family === '' ? [] : [form.family],
    notes: '',
    retired: false,
    pictures: [],
    cards: [],
  };
  if (await keep(board, 0, t('boards.add'))) await router.push(`/boards/${board.id}`);
}
async function importFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const [file] = field.files ?? [];
  if (!file) return;
  refusal.value = '';
  imported.value = '';
  try {
    const read = await readBoardFile(await file.text());
    if ('refused' in read) {
      refusal.value = read.refused;
      return;
    }
    for (const board of read.boards) {
      const known = store.list?.find(({ id }) => id === board.id);
      if (!(await keep(board, known?.version ?? 0, file.name))) return;
    }
    imported.value = t('boards.imported', { number: read.boards.map(({ number }) => number).join(', ') });
  } catch (error) {
    if (error instanceof InputRefused) refusal.value = error.problems.map((one) => problemSentence(one, words.en)).join(' ');
    else if (error instanceof SyntaxError) refusal.value = error.message;
    else if (error instanceof NotReached) refusal.value = t('common.notReached');
    else throw error;
  } finally {
    field.value = '';
  }
}
</script>

<template>
  <h1>{{ t('boards.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current && store.list" class="pair">
    <section class="sheet" data-test="boards">
      <TextField id="board-find" v-model="find" :label="t('boards.find')" />
      <p v-if="store.list.length === 0" class="soft">{{ t('boards.none') }}</p>
      <p v-else-if="shown.length === 0" class="soft">{{ t('boards.noMatch') }}</p>
      <ul>
        <li v-for="one in shown" :key="one.id" :class="{ soft: one.retired }">
          <RouterLink :to="`/boards/${one.id}`">
            <strong>{{ one.number }}</strong>
          </RouterLink>
          <span>{{ names.assembly(one.assembly) }}</span>
          <span v-for="family in one.families" :key="family" class="soft">{{ familyName(family) }}</span>
          <span class="soft counts">{{ t('boards.counts', one) }}</span>
        </li>
      </ul>
    </section>
    <form class="sheet stack" novalidate @submit.prevent="add">
      <h2>{{ t('boards.add') }}</h2>
      <p class="soft">{{ t('boards.help') }}</p>
      <TextField id="board-number" v-model="form.number" :label="t('boards.number')" :error="errors.number" :bounds="{ longest: 80 }" />
      <ChoiceField id="board-layout" v-model="form.layout" :label="t('boards.layout')" :options="layouts" />
      <ChoiceField
        id="board-assembly"
        v-model="form.assembly"
        :label="t('boards.assembly')"
        :options="assemblies"
        :error="errors.assembly"
        none=""
      />
      <ChoiceField
        id="board-family"
        v-model="form.family"
        :label="t('boards.families')"
        :options="families"
        :none="t('boards.anyFamily')"
        searched
      />
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <p v-if="imported" role="status">{{ imported }}</p>
      <p class="row">
        <button type="submit" class="push full" data-test="add-board">{{ t('boards.add') }}</button>
        <label class="push">
          {{ t('boards.importFile') }}
          <input type="file" accept="application/json,.json" class="visually-hidden" data-test="import-board" @change="importFile" />
        </label>
      </p>
    </form>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 16px;
  margin-top: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  min-height: 44px;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.counts {
  margin-left: auto;
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
