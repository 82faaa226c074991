/** What a shop would say of its own images, written before the counting: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import type { FlashDid } from '../ledger/index.ts';
import { hitsAndMisses, trialsOf, wonSettings } from './history.ts';
import { foldFlash, type FlashSession } from './session.ts';

const [x, y] = ['a'.repeat(64), 'b'.repeat(64)];
const target = (more: Partial<Extract<FlashDid, { step: 'target' }>> = {}): FlashDid => ({
  step: 'target',
  board: 'QKM-2250',
  panel: 'VL43-A2',
  ...more,
});
const written = (sha256: string): FlashDid[] => [
  { step: 'chosen', area: 'whole', sha256, bytes: 9, image: '0192f000-0000-7000-8000-00000000f1a5', source: 'dealer', fit: 'unsure' },
  { step: 'programmed', area: 'whole', sha256 },
];
const ended = (result: 'starts' | 'no-change' | 'failed'): FlashDid => ({ step: 'started', result });
const set = (name: string, to: string): FlashDid => ({ step: 'setting', name, to });
function session(...did: FlashDid[]): FlashSession {
  const found = foldFlash('one', [
    { step: 'opened', memory: 'spi-nor', name: 'U1', areas: ['whole'], why: 'other', plan: 'rewrite' },
    ...did,
  ]);
  if (!found) throw new Error('never opened');
  return found;
}
const here = { board: 'qkm 2250', panel: 'VL43 A2' };
const count = (sha256: string, ...all: FlashSession[]) => hitsAndMisses(sha256, here, all.flatMap(trialsOf));

describe('hits and misses', () => {
  test.each<readonly [string, FlashSession, { hits: number; misses: number }]>([
    ['a set that started is a hit', session(target(), ...written(x), ended('starts')), { hits: 1, misses: 0 }],
    ['one that was worse after it is a miss', session(target(), ...written(x), ended('failed')), { hits: 0, misses: 1 }],
    ['one that went on as before had another fault: neither', session(target(), ...written(x), ended('no-change')), { hits: 0, misses: 0 }],
    ['not started yet: neither', session(target(), ...written(x)), { hits: 0, misses: 0 }],
    ['chosen and never written: neither', session(target(), ...written(x).slice(0, 1), ended('starts')), { hits: 0, misses: 0 }],
    ['another image', session(target(), ...written(y), ended('starts')), { hits: 0, misses: 0 }],
    ['another panel', session(target({ panel: 'VL50-A2' }), ...written(x), ended('starts')), { hits: 0, misses: 0 }],
    ['a panel nobody read', session({ step: 'target', board: 'QKM-2250' }, ...written(x), ended('starts')), { hits: 0, misses: 0 }],
    ['another board', session(target({ board: 'QKM-2190' }), ...written(x), ended('starts')), { hits: 0, misses: 0 }],
    ['the set was never written down', session(...written(x), ended('starts')), { hits: 0, misses: 0 }],
  ])('%s', (_, one, wanted) => {
    expect(count(x, one)).toEqual(wanted);
  });
  test('over several sets they add up', () => {
    const hit = session(target(), ...written(x), ended('starts'));
    expect(count(x, hit, hit, session(target(), ...written(x), ended('failed')))).toEqual({ hits: 2, misses: 1 });
  });
});

describe('settings that won', () => {
  test('of each set what it was left with; the commonest first; nothing of sets that did not start, or of others', () => {
    const tried = session(target(), set('Panel id', '3'), ended('starts'), set('panel id', '7'), set('Mirror', 'on'));
    const other = session(target({ panel: 'VL50-A2' }), ended('starts'), set('Panel id', '9'));
    const failed = session(target(), set('Panel id', '1'), ended('failed'));
    const again = session(target(), ended('starts'), set('Panel ID', '7'));
    expect(wonSettings([tried, other, failed, again], here)).toEqual([
      { name: 'panel id', to: '7', sets: 2 },
      { name: 'mirror', to: 'on', sets: 1 },
    ]);
  });
});
