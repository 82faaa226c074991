/** Boards the shop knows: the list, and documents once they are asked for. */
import type { BoardState, BoardSummary, ChangeBoard } from '@veglia/contract';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { api, NotReached, type Reply } from '../api.ts';

export const useBoards = defineStore('boards', () => {
  const list = shallowRef<readonly BoardSummary[]>();
  const byId = shallowRef<ReadonlyMap<string, BoardState>>(new Map());

  const keep = (state: BoardState): BoardState => {
    byId.value = new Map(byId.value).set(state.board.id, state);
    return state;
  };
  /** False where the server is away and nothing was kept. */
  async function load(): Promise<boolean> {
    try {
      const reply = await api.boards();
      if (reply.ok) list.value = reply.value;
      return reply.ok;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return false;
    }
  }
  /** Undefined where there is none of that id, or where the server is away and nothing was kept. */
  async function read(id: string): Promise<BoardState | undefined> {
    try {
      const reply = await api.board(id);
      return reply.ok ? keep(reply.value) : undefined;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return undefined;
    }
  }
  /** Throws NotReached. */
  async function save(change: ChangeBoard): Promise<Reply<BoardState>> {
    const reply = await api.changeBoard(change.board.id, change);
    if (reply.ok) {
      keep(reply.value);
      await load();
    }
    return reply;
  }
  return { list, byId, load, read, save };
});
