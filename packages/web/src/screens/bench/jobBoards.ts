/** The boards of a set that the shop has documents of, with every pin and mark on them. */
import type { BoardState } from '@veglia/contract';
import { boardsFound, placesOf, type BodyOf, type CompiledPack, type Entry, type PlaceOnBoard } from '@veglia/core';
import { computed, watch, type ComputedRef } from 'vue';
import { useBoards } from '../../stores/boards.ts';

export interface JobBoards {
  /** As the ledger names them, with the document where there is one. */
  readonly found: ComputedRef<{ readonly entry: BodyOf<'board.found'>; readonly state: BoardState | undefined }[]>;
  readonly places: ComputedRef<PlaceOnBoard[]>;
}

export function useJobBoards(entries: () => readonly Entry[], compiled: () => CompiledPack): JobBoards {
  const store = useBoards();
  const named = computed(() => boardsFound(entries()));
  watch(
    () => named.value.flatMap(({ board }) => board ?? []).join(' '),
    (ids) => {
      for (const id of ids.split(' ')) if (id !== '' && !store.byId.has(id)) void store.read(id);
    },
    { immediate: true },
  );
  const found = computed(() => named.value.map((entry) => ({ entry, state: store.byId.get(entry.board ?? '') })));
  const places = computed(() => found.value.flatMap(({ state }) => (state ? placesOf(state.board, compiled()) : [])));
  return { found, places };
}
