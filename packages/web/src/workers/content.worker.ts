/** Looks through a stored image for what it holds, a piece in memory at a time. */
import { ContentReader, OwnFinder, type Content, type OwnPlace } from '@veglia/core';
import { expose, type ProxyMarked } from 'comlink';
import { rangeOf } from './rangeOf.ts';

const pieceBytes = 4 * 2 ** 20;
/** As much is looked through: a minute's work; what follows is left. */
export const mostLooked = 2 ** 30;

/** What it holds, and what of it belongs to one set. */
export interface Looked {
  readonly content: Content;
  readonly own: readonly OwnPlace[];
}

const looker = {
  /** `told`: bytes looked through so far. Throws what fetch throws, and Error where the server refuses. */
  async look(address: string, size: number, told: ((done: number) => void) & ProxyMarked): Promise<Looked> {
    const end = Math.min(size, mostLooked);
    const reader = new ContentReader(end);
    const finder = new OwnFinder();
    for (let at = 0; at < end; at += pieceBytes) {
      const piece = await rangeOf(address, size, at, Math.min(at + pieceBytes, end));
      reader.add(piece);
      finder.add(piece);
      told(Math.min(at + pieceBytes, end));
    }
    return { content: reader.end(), own: finder.end() };
  },
};
export type ContentLooker = typeof looker;

expose(looker);
