/** A part before the board that carries it: written from the trade (common practice, no source). */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, type Told } from '../../testing/shipped.ts';
import { foldCase } from '../index.ts';

const qk3 = { family: 'quorvane.qk3' };
const firstOf = (symptom: string, told: Told[]): string | undefined => foldCase(caseOf([symptom], told, qk3), shipped()).next[0]?.id;
const openFuse: Told[] = ['menu=no-menu', 'squeeze=nothing', 'tcon.input=one-side', 'bias.ohms=no-short'];

describe('a cheap part of a proven board is tried before the board', () => {
  test('the T-con’s fuse is open and nothing behind it is shorted: a fuse, not a board', () => {
    expect(firstOf('lit-blank', openFuse)).toBe('tcon.fuse');
  });
  test('the new fuse didn’t help: a look at the T-con, and no other board', () => {
    const { next } = foldCase(
      caseOf(['lit-blank'], [...openFuse, { kind: 'repair.done', v: 2, repair: 'tcon.fuse', result: 'unchanged' }], qk3),
      shipped(),
    );
    expect(next[0]?.kind).toBe('test');
    expect(next.slice(0, 3).map(({ id }) => id)).toContain('tcon.input');
    expect(next.filter(({ kind }) => kind === 'repair').map(({ of }) => of)).not.toContain('main');
  });
  test('capacitors that read high: those of the rail, not the board', () => {
    expect(firstOf('slow-start', ['clicks=clicks', 'signs-of-life=silent', 'caps.esr=high'])).toBe('recap.power');
  });
});
