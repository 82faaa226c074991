<script setup lang="ts">
/** Families the shop’s jobs are held against: found by name or model; a new one begins empty, like another, or from a file. */
import { familyFileSchema, likeFamily } from '@veglia/core';
import { computed, onMounted, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRouter } from 'vue-router';
import { NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import { keepDraft } from '../../stores/drafts.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { readBoardFile } from '../boards/boardFile.ts';
import { useBoards } from '../../stores/boards.ts';
import { useSession } from '../../stores/session.ts';
import { blankFamily, draftName, familyIdOf, typedFamily, type TypedFamily } from './typedFamily.ts';

const { t } = useI18n();
const packs = usePacks();
const boards = useBoards();
const session = useSession();
const router = useRouter();
const reached = ref(true);
const find = ref('');
const refusal = ref('');
const form = reactive({ name: '', maker: '', like: '' });
const errors = reactive<Record<string, string>>({});

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
  reached.value = packs.current !== undefined;
}
onMounted(load);
const families = computed(() => packs.current?.pack.families ?? []);
const shown = computed(() => {
  const wanted = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  return families.value.filter(({ name, maker, models }) => {
    const text = [textOf(name), maker, ...models].join(' ').toLowerCase();
    return wanted.every((word) => text.includes(word));
  });
});
const others = computed(() => families.value.map(({ id, name }) => ({ value: id, label: textOf(name) })));
const makers = computed(() => [...new Set(families.value.map(({ maker }) => maker))].sort());

/** Unsaved until somebody has looked at it: a draft of this browser, open in its form. */
async function begin(typed: TypedFamily, said = ''): Promise<void> {
  await keepDraft(draftName(typed.id), { typed });
  await router.push({ path: `/families/${typed.id}`, ...(said === '' ? {} : { query: { said } }) });
}
async function add(): Promise<void> {
  for (const key of Object.keys(errors)) delete errors[key];
  const [name, maker] = [form.name.trim(), form.maker.trim()];
  if (name === '') errors.name = t('families.errors.name');
  if (maker === '') errors.maker = t('families.errors.maker');
  const id = familyIdOf(maker, name);
  if (families.value.some((one) => one.id === id)) errors.name = t('families.errors.same', { id });
  if (Object.keys(errors).length > 0 || id === '') return;
  const other = families.value.find((one) => one.id === form.like);
  await begin(other ? typedFamily(likeFamily(other, { id, name, maker })) : blankFamily(id, name, maker));
}
async function importFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const [file] = field.files ?? [];
  if (!file) return;
  refusal.value = '';
  try {
    const read = familyFileSchema.safeParse(JSON.parse(await file.text()));
    const family = read.success ? read.data.family : undefined;
    const typed = family === undefined ? undefined : typedFromFile(family);
    if (!read.success || !typed) {
      refusal.value = t('families.notAFile', { name: file.name });
      return;
    }
    const stored = read.data.boards === undefined ? 0 : await storeBoards(read.data.boards);
    const said = [t('families.imported', { name: file.name }), stored > 0 ? t('families.boardsImported', { n: stored }) : ''];
    await begin(typed, said.filter(Boolean).join(' '));
  } catch (error) {
    if (error instanceof SyntaxError) refusal.value = t('families.notAFile', { name: file.name });
    else if (error instanceof NotReached) refusal.value = t('common.notReached');
    else throw error;
  } finally {
    field.value = '';
  }
}
/** Undefined for what can’t stand in the form; what is wrong inside it is told when it is saved. */
function typedFromFile(family: unknown): TypedFamily | undefined {
  try {
    const typed = typedFamily(family as Parameters<typeof typedFamily>[0]);
    return typeof typed.id === 'string' && typed.id !== '' ? typed : undefined;
  } catch (error) {
    if (error instanceof TypeError) return undefined;
    throw error;
  }
}
/** Boards of the file that aren’t here yet; one that is stays as the shop has it. */
async function storeBoards(file: unknown): Promise<number> {
  const read = await readBoardFile(JSON.stringify(file));
  const by = session.person?.id;
  if ('refused' in read || by === undefined) return 0;
  await boards.load();
  let stored = 0;
  for (const board of read.boards.filter(({ id }) => !boards.list?.some((one) => one.id === id))) {
    const reply = await boards.save({ by, version: 0, reason: t('families.import'), board });
    if (reply.ok) stored += 1;
  }
  return stored;
}
</script>

<template>
  <h1>{{ t('families.title') }}</h1>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current" class="pair">
    <section class="sheet" data-test="families">
      <TextField id="family-find" v-model="find" :label="t('families.find')" />
      <p v-if="shown.length === 0" class="soft">{{ t('families.noMatch') }}</p>
      <ul>
        <li v-for="one in shown" :key="one.id" :class="{ soft: one.retired }">
          <RouterLink :to="`/families/${one.id}`">
            <strong>{{ textOf(one.name) }}</strong>
          </RouterLink>
          <span v-if="one.retired">{{ t('families.retiredMark') }}</span>
          <span class="soft">{{ one.layouts.map((id) => textOf(packs.current?.layouts.get(id)?.name)).join(', ') }}</span>
          <span class="soft counts">{{
            t('families.counts', { models: one.models.length, rails: one.rails.length, codes: one.blink.length })
          }}</span>
        </li>
      </ul>
    </section>
    <form class="sheet stack" novalidate @submit.prevent="add">
      <h2>{{ t('families.add') }}</h2>
      <p class="soft">{{ t('families.help') }}</p>
      <TextField id="family-maker" v-model="form.maker" :label="t('families.maker')" :error="errors.maker" :proposals="makers" />
      <TextField id="family-name" v-model="form.name" :label="t('families.name')" :error="errors.name" />
      <ChoiceField
        id="family-like"
        v-model="form.like"
        :label="t('families.like')"
        :options="others"
        :none="t('families.blank')"
        searched
      />
      <p class="soft">{{ t('families.likeHelp') }}</p>
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <p class="row">
        <button type="submit" class="push full" data-test="add-family">{{ t('families.add') }}</button>
        <label class="push">
          {{ t('families.import') }}
          <input type="file" accept="application/json,.json" class="visually-hidden" data-test="import-family" @change="importFile" />
        </label>
      </p>
    </form>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
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
