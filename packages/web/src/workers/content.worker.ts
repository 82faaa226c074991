/** Looks through a stored image for what it holds, a piece in memory at a time. */
import { ContentReader, type Content } from '@veglia/core';
import { expose, type ProxyMarked } from 'comlink';
import { rangeOf } from './rangeOf.ts';

const pieceBytes = 4 * 2 ** 20;
/** As much is looked through: a minute's work; what follows is left. */
export const mostLooked = 2 ** 30;

const looker = {
  /** `told`: bytes looked through so far. Throws what fetch throws, and Error where the server refuses. */
  async look(address: string, size: number, told: ((done: number) => void) & ProxyMarked): Promise<Content> {
    const end = Math.min(size, mostLooked);
    const reader = new ContentReader(end);
    for (let at = 0; at < end; at += pieceBytes) {
      reader.add(await rangeOf(address, size, at, Math.min(at + pieceBytes, end)));
      told(Math.min(at + pieceBytes, end));
    }
    return reader.end();
  },
};
export type ContentLooker = typeof looker;

expose(looker);
