/** What a reply says of what was sent, and how much goes into one request. */
import { describe, expect, test } from '@jest/globals';
import { errorCodes, errorStatus, type ErrorCode, type ProblemDocument } from '@veglia/contract';
import { fitTogether, mostBytes, mostEntries } from './batches.ts';
import { isNotNow, refusalOf, retryAfterMs } from './reply.ts';

const problem = (code: ErrorCode, problems: { where: string; sentence?: string }[] = []): ProblemDocument => ({
  type: 'x',
  title: 'No.',
  status: errorStatus[code],
  code,
  requestId: 'r',
  ...(problems.length > 0 ? { problems: problems.map(({ where, sentence = '' }) => ({ code: 'schema', where, sentence })) } : {}),
});

describe('a reply', () => {
  test.each([500, 502, 503, 504, 408, 425, 429])('%d says: not now', (status) => expect(isNotNow(status)).toBe(true));
  test.each([400, 404, 409, 413, 415, 422])('%d is about what was sent', (status) => expect(isNotNow(status)).toBe(false));

  test('is never a refusal where the trouble is the server’s, or where it isn’t ours to talk to', () => {
    const refusing = errorCodes.filter((code) => refusalOf(problem(code)).kind === 'refused');
    for (const code of ['internal', 'database-unavailable', 'cross-site', 'wrong-host', 'not-found', 'precondition-failed'] as const)
      expect(refusing).not.toContain(code);
    for (const code of ['bad-request', 'entry-conflict', 'version-conflict', 'not-put-back', 'too-large'] as const)
      expect(refusing).toContain(code);
  });

  test('names entries by their place or by their id', () => {
    const two = problem('bad-request', [
      { where: 'entries.3.body.text', sentence: 'entries.3.body.text: too long' },
      { where: 'entries.1.at', sentence: 'entries.1.at: no time' },
      { where: 'entries.3.by', sentence: 'entries.3.by: nobody' },
    ]);
    expect(refusalOf(two)).toMatchObject({
      named: [
        { place: 3, why: 'text: too long by: nobody' },
        { place: 1, why: 'at: no time' },
      ],
    });
    const conflict = problem('entry-conflict', [{ where: 'entries', sentence: 'entries: id-b is there twice' }]);
    expect(refusalOf(conflict, ['id-a', 'id-b'])).toMatchObject({ kind: 'refused', named: [{ place: 1, why: 'No.' }] });
    expect(refusalOf(problem('version-conflict'), ['id-a'])).toEqual({ kind: 'refused', why: 'No.' });
  });

  test.each([
    ['30', 30_000],
    ['Wed, 21 Oct 2026 07:28:05 GMT', 5000],
    ['Wed, 21 Oct 2020 07:28:00 GMT', 0],
    ['soon', undefined],
    [null, undefined],
  ])('Retry-After %p is %p ms (RFC 9110, 10.2.3)', (header, ms) => {
    expect(retryAfterMs(header, Date.parse('2026-10-21T07:28:00Z'))).toBe(ms);
  });
});

describe('one request', () => {
  const always = (): boolean => true;
  test('holds so many entries and no more', () => {
    expect(
      fitTogether(
        Array.from({ length: 201 }, () => 'x'),
        always,
      ),
    ).toBe(mostEntries);
    expect(mostEntries).toBeLessThanOrEqual(200);
  });
  test('holds so many bytes and no more; letters of several bytes count as such; one that is too large goes alone', () => {
    const note = 'ü'.repeat(20_000);
    const fit = fitTogether(
      Array.from({ length: 60 }, () => note),
      always,
    );
    expect(fit * 40_002).toBeLessThanOrEqual(mostBytes);
    expect((fit + 1) * 40_002).toBeGreaterThan(mostBytes);
    expect(mostBytes).toBeLessThan(1024 * 1024);
    expect(fitTogether(['x'.repeat(mostBytes * 2), 'y'], always)).toBe(1);
  });
  test('ends where another person or another job begins', () => {
    expect(fitTogether([1, 2, 3], (index) => index < 2)).toBe(2);
  });
});
