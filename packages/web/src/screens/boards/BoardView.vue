<script setup lang="ts">
/** One board: its pictures with marks, what belongs there, known faults. What is changed is kept here until it is saved as another version. */
import type { BoardState } from '@veglia/contract';
import { boardSchema, markKinds, type Board, type BoardSpot, type FaultCard, type Mark } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import PhotoButton from '../../parts/PhotoButton.vue';
import TextField from '../../parts/TextField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { useBoards } from '../../stores/boards.ts';
import { draftsOf, dropDraft, keepDraft } from '../../stores/drafts.ts';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import BoardPicture from './BoardPicture.vue';
import { writeBoardFile } from './boardFile.ts';
import FaultCards from './FaultCards.vue';
import JobPhotos from './JobPhotos.vue';
import MarkSheet from './MarkSheet.vue';

const props = defineProps<{ id: string }>();
const { t, d } = useI18n();
const packs = usePacks();
const session = useSession();
const store = useBoards();
const names = useNames(
  () => packs.current,
  () => board.value?.layout,
);
const base = shallowRef<BoardState>();
const board = shallowRef<Board>();
const reached = ref(true);
const restored = ref('');
const refusal = ref('');
const conflict = ref(false);
const saved = ref(0);
const reason = ref('');
/** What was changed since it was saved, in words: the reason unless somebody types another. */
const done = ref<string[]>([]);
const currency = ref('EUR');
const changes = shallowRef<readonly BoardState[]>();
const shownPicture = ref('');
const chosen = ref('');
const fresh = ref(false);

/** Of this board, as the pack names them. */
const faults = computed(() =>
  (packs.current?.faultsOf.get(board.value?.layout ?? '') ?? [])
    .filter(({ assembly }) => assembly === board.value?.assembly)
    .map(({ id }) => ({ value: id, label: names.fault(id) })),
);
const draftName = (): string => `board-${props.id}`;
const dirty = computed(() => board.value !== undefined && JSON.stringify(board.value) !== JSON.stringify(base.value?.board));
const picture = computed(() => board.value?.pictures.find(({ id }) => id === shownPicture.value) ?? board.value?.pictures[0]);
const mark = computed(() => picture.value?.marks.find(({ id }) => id === chosen.value));
const usual = computed(() => [...new Set(done.value)].join('; ').slice(0, 400));

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const shop = await api.shop();
    if (shop.ok) currency.value = shop.value.settings.currency;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
  const state = await store.read(props.id);
  reached.value = state !== undefined && packs.current !== undefined;
  if (!state) return;
  base.value = state;
  board.value = state.board;
  const draft = (await draftsOf(draftName())).find(({ name }) => name === draftName());
  const kept = boardSchema.safeParse((draft?.content as { board?: unknown } | undefined)?.board);
  if (draft && kept.success && JSON.stringify(kept.data) !== JSON.stringify(state.board)) {
    board.value = kept.data;
    done.value = [t('boards.changed.board')];
    restored.value = t('boards.restored', { when: d(new Date(draft.at), 'time') });
  }
}
onMounted(load);
watch(() => props.id, load);

function change(next: Board, what: string): void {
  board.value = next;
  saved.value = 0;
  done.value = [...done.value, what];
  void keepDraft(draftName(), { board: next });
}
function changeMarks(marks: (before: readonly Mark[]) => Mark[], what: string): void {
  const at = picture.value;
  if (!board.value || !at) return;
  change(
    { ...board.value, pictures: board.value.pictures.map((one) => (one.id === at.id ? { ...one, marks: marks(one.marks) } : one)) },
    what,
  );
}
function addPicture(photo: string): void {
  if (!board.value) return;
  const id = uuidv7();
  change({ ...board.value, pictures: [...board.value.pictures, { id, photo, name: '', marks: [] }] }, t('boards.changed.picture'));
  shownPicture.value = id;
}
function removePicture(): void {
  const at = picture.value;
  if (!board.value || !at) return;
  change({ ...board.value, pictures: board.value.pictures.filter(({ id }) => id !== at.id) }, t('boards.changed.board'));
}
const changeCards = (cards: FaultCard[], sign: string): void => {
  if (board.value) change({ ...board.value, cards }, t('boards.changed.card', { sign }));
};

// A mark is made by pointing: one place, or the ends of a row of pins.
const kinds = ['connector', ...markKinds] as const;
const making = ref<(typeof kinds)[number]>();
const rows = ref<1 | 2>(1);
const placed = ref<BoardSpot[]>([]);
const again = ref('');
const wanted = computed(() =>
  making.value === 'connector'
    ? rows.value === 1
      ? (['first', 'last'] as const)
      : (['first', 'last', 'across'] as const)
    : (['spot'] as const),
);
const asks = computed(() => wanted.value[placed.value.length]);
function begin(kind: (typeof kinds)[number]): void {
  making.value = kind;
  placed.value = [];
  again.value = '';
  chosen.value = '';
}
function stop(): void {
  making.value = undefined;
  placed.value = [];
}
function point(at: BoardSpot): void {
  placed.value = [...placed.value, at];
  if (placed.value.length < wanted.value.length || !making.value) return;
  const [first, last = first, across] = placed.value;
  if (!first || !last) return;
  const id = uuidv7();
  const kind = making.value;
  // The name is typed next; until then it stands for itself.
  const made: Mark =
    kind === 'connector'
      ? { kind, id, name: '?', first, last, ...(across ? { across } : {}), pins: [{ label: '', expects: [] }] }
      : { kind, id, name: '?', at: first, expects: [] };
  stop();
  fresh.value = true;
  changeMarks((before) => [...before, made], t('boards.changed.mark', { name: t(`boards.kind.${kind}`) }));
  chosen.value = id;
}
function changeMark(next: Mark): void {
  changeMarks((before) => before.map((one) => (one.id === next.id ? next : one)), t('boards.changed.mark', { name: next.name }));
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape' && making.value) stop();
}
onMounted(() => window.addEventListener('keydown', onKey));
onUnmounted(() => window.removeEventListener('keydown', onKey));

async function save(): Promise<void> {
  const by = session.person?.id;
  const why = reason.value.trim() || usual.value || t('boards.changed.board');
  if (!board.value || !base.value || by === undefined) return;
  refusal.value = '';
  conflict.value = false;
  try {
    const reply = await store.save({ by, version: base.value.version, reason: why, board: board.value });
    if (!reply.ok) {
      refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
      conflict.value = reply.problem.code === 'board-version-conflict';
      return;
    }
    base.value = reply.value;
    board.value = reply.value.board;
    saved.value = reply.value.version;
    reason.value = '';
    done.value = [];
    restored.value = '';
    changes.value = undefined;
    await dropDraft(draftName());
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = `${t('common.notReached')}. ${t('boards.unsaved')}`;
  }
}
async function discard(): Promise<void> {
  await dropDraft(draftName());
  done.value = [];
  restored.value = '';
  refusal.value = '';
  conflict.value = false;
  chosen.value = '';
  await load();
}
async function history(): Promise<void> {
  if (changes.value) {
    changes.value = undefined;
    return;
  }
  try {
    const reply = await api.boardChanges(props.id);
    if (reply.ok) changes.value = reply.value;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
  }
}
async function exportFile(): Promise<void> {
  if (!board.value) return;
  refusal.value = '';
  let file;
  try {
    file = await writeBoardFile([board.value]);
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('boards.notExported');
    return;
  }
  saveBlob(new Blob([JSON.stringify(file)], { type: 'application/json' }), `board-${board.value.number.replace(/[^\w.-]+/g, '-')}.json`);
}
</script>

<template>
  <NotReachedSheet v-if="!reached" @again="load" />
  <template v-else-if="board && base && packs.current">
    <div class="head">
      <h1>{{ board.number }}</h1>
      <p class="soft">
        {{ names.assembly(board.assembly) }} · {{ textOf(packs.current.layouts.get(board.layout)?.name) }}
        <template v-for="family in board.families" :key="family"> · {{ textOf(packs.current.families.get(family)?.name) }}</template>
      </p>
      <span class="spring" />
      <button type="button" class="plain" @click="exportFile">{{ t('boards.exportFile') }}</button>
      <button type="button" class="plain" :aria-expanded="changes !== undefined" data-test="history" @click="history">
        {{ t('boards.history') }}
      </button>
    </div>
    <section v-if="changes" class="sheet" data-test="changes">
      <p v-for="one in changes" :key="one.version">
        {{
          t('boards.version', {
            n: one.version,
            who: session.people.find(({ id: person }) => person === one.by)?.name ?? '?',
            when: d(new Date(one.at), 'time'),
            reason: one.reason,
          })
        }}
      </p>
    </section>
    <div class="pair" :class="{ wide: mark && !making }">
      <section class="sheet">
        <div v-if="board.pictures.length > 1" class="row" role="tablist">
          <button
            v-for="(one, index) in board.pictures"
            :key="one.id"
            type="button"
            role="tab"
            class="plain"
            :aria-selected="one.id === picture?.id"
            @click="shownPicture = one.id"
          >
            {{ one.name || t('boards.picture', { n: index + 1 }) }}
          </button>
        </div>
        <p v-if="!picture" class="soft">{{ t('boards.noPicture') }}</p>
        <BoardPicture
          v-else
          :photo="picture.photo"
          :alt="board.number"
          :marks="picture.marks"
          :chosen="chosen"
          :placed="placed"
          :placing="making !== undefined"
          @spot="point"
          @choose="
            (one) => {
              chosen = one;
              fresh = false;
            }
          "
        >
          <button type="button" class="plain" @click="removePicture">{{ t('boards.removePicture') }}</button>
        </BoardPicture>
        <div class="row">
          <PhotoButton :label="t('boards.addPicture')" @added="addPicture" />
          <JobPhotos @added="addPicture" />
        </div>
      </section>
      <div class="stack">
        <section v-if="picture" class="sheet">
          <template v-if="making">
            <p class="asks" role="status" data-test="mark-asks">{{ t(`boards.point.${asks ?? 'spot'}`) }}</p>
            <p v-if="making === 'connector' && placed.length === 0" class="row" role="group" :aria-label="t('boards.rows')">
              <button type="button" class="plain" :aria-pressed="rows === 1" @click="rows = 1">{{ t('boards.oneRow') }}</button>
              <button type="button" class="plain" :aria-pressed="rows === 2" data-test="two-rows" @click="rows = 2">
                {{ t('boards.twoRows') }}
              </button>
            </p>
            <button type="button" class="plain" @click="stop">{{ t('boards.cancel') }}</button>
          </template>
          <template v-else>
            <h2>{{ t('boards.mark') }}</h2>
            <p class="row" role="group" :aria-label="t('boards.mark')">
              <button v-for="kind in kinds" :key="kind" type="button" class="push" :data-test="`mark-${kind}`" @click="begin(kind)">
                {{ t(`boards.kind.${kind}`) }}
              </button>
            </p>
          </template>
        </section>
        <section v-if="mark && !making" class="sheet">
          <MarkSheet
            :key="mark.id"
            :mark="mark.name === '?' ? { ...mark, name: '' } : mark"
            :assembly="board.assembly"
            :layout="board.layout"
            :compiled="packs.current"
            :fresh="fresh"
            @change="changeMark"
            @done="
              () => {
                fresh = false;
                chosen = '';
              }
            "
            @remove="
              () => {
                const gone = mark?.id;
                chosen = '';
                changeMarks((before) => before.filter((one) => one.id !== gone), t('boards.changed.board'));
              }
            "
          />
        </section>
        <FaultCards :cards="board.cards" :currency="currency" :faults="faults" @change="changeCards" />
        <section class="sheet stack">
          <TextField
            id="board-notes"
            :model-value="board.notes"
            :label="t('boards.notes')"
            :rows="2"
            :bounds="{ longest: 4000 }"
            @update:model-value="(notes: string) => board && change({ ...board, notes }, t('boards.changed.board'))"
          />
          <el-checkbox
            :model-value="board.retired"
            :label="t('boards.retired')"
            @change="(retired: unknown) => board && change({ ...board, retired: retired === true }, t('boards.changed.board'))"
          />
        </section>
      </div>
    </div>
    <div v-if="dirty || saved > 0 || refusal" class="sheet savebar" data-test="save-bar">
      <p v-if="restored" role="status">{{ restored }}</p>
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <p v-if="saved > 0 && !dirty" role="status">{{ t('boards.saved', { n: saved }) }}</p>
      <form v-if="dirty" class="saveline" @submit.prevent="save">
        <TextField id="board-reason" v-model="reason" :label="t('boards.reason')" :placeholder="usual" :bounds="{ longest: 400 }" />
        <button type="submit" class="push full" data-test="save-board">{{ t('boards.save') }}</button>
        <button type="button" class="plain" data-test="discard" @click="discard">
          {{ conflict ? t('boards.conflict') : t('boards.discard') }}
        </button>
      </form>
    </div>
  </template>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  margin-bottom: 8px;
}
.spring {
  flex: 1;
}
/* Over the lower edge: nothing moves under a hand that is about to point. */
.savebar {
  position: sticky;
  bottom: 8px;
  z-index: 5;
  margin-top: 12px;
  border: 2px solid var(--accent);
  box-shadow: 0 -4px 18px rgb(0 0 0 / 20%);
}
.saveline {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 6px 12px;
}
.saveline > :first-child {
  flex: 1 1 260px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.pair.wide {
  grid-template-columns: minmax(0, 0.72fr) minmax(0, 1fr);
}
.stack {
  display: grid;
  gap: 12px;
  min-width: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.row .push {
  min-height: 40px;
  padding: 2px 10px;
}
[aria-selected='true'],
[aria-pressed='true'] {
  border-bottom: 3px solid var(--accent);
}
.asks {
  font-size: 18px;
  font-weight: 700;
}
@media (max-width: 900px) {
  .pair,
  .pair.wide {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
