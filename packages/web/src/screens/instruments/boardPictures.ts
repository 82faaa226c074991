/** Pictures of the boards a shop knows, to work on: those of a job, or all. */
import type { Board, Mark } from '@veglia/core';
import { computed, onMounted, ref, watch, type ComputedRef, type Ref } from 'vue';
import { useBoards } from '../../stores/boards.ts';

type OnBoard = Board['pictures'][number];
export interface BoardPictures {
  readonly offered: ComputedRef<readonly { readonly id: string; readonly number: string }[]>;
  /** Id of the one that is picked; empty: the first that is offered. */
  readonly picked: Ref<string>;
  readonly board: ComputedRef<string>;
  /** Its pictures that fit, with the marks that do; undefined until it is read. */
  readonly pictures: ComputedRef<readonly OnBoard[] | undefined>;
  readonly pictureAt: Ref<number>;
  readonly picture: ComputedRef<OnBoard | undefined>;
}

/** `boards`: those of a job; undefined: all that are not retired. Pictures with fewer than `least` marks that `fits` are left out. */
export function useBoardPictures(boards: () => readonly string[] | undefined, fits: (mark: Mark) => boolean, least: number): BoardPictures {
  const store = useBoards();
  onMounted(() => {
    if (!store.list) void store.load();
  });
  const offered = computed(() => (store.list ?? []).filter(({ id, retired }) => boards()?.includes(id) ?? !retired));
  const picked = ref('');
  const board = computed(() => picked.value || offered.value[0]?.id || '');
  watch(
    board,
    (id) => {
      if (id !== '' && !store.byId.has(id)) void store.read(id);
    },
    { immediate: true },
  );
  const pictures = computed(() =>
    store.byId
      .get(board.value)
      ?.board.pictures.map((one) => ({ ...one, marks: one.marks.filter(fits) }))
      .filter(({ marks }) => marks.length >= least),
  );
  const pictureAt = ref(0);
  const picture = computed(() => pictures.value?.[pictureAt.value] ?? pictures.value?.[0]);
  return { offered, picked, board, pictures, pictureAt, picture };
}
