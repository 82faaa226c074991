import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { BoardInput } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { ask, openTestApp, type TestApp } from './support/testApp.ts';

let app: TestApp;
beforeAll(async () => {
  app = await openTestApp();
});
afterAll(() => app.close());

const board = (change: Partial<BoardInput> = {}): BoardInput => ({
  format: 'veglia-board',
  version: 1,
  id: uuidv7(),
  number: 'PW-7710',
  assembly: 'power',
  layout: 'led-tcon',
  pictures: [
    {
      id: uuidv7(),
      photo: uuidv7(),
      marks: [{ kind: 'connector', id: uuidv7(), name: 'CN201', first: [0.1, 0.2], last: [0.4, 0.2], pins: [{ label: '5VSB' }] }],
    },
  ],
  ...change,
});
const put = (one: BoardInput, version: number, reason = 'first look', by = app.person) =>
  ask(app.app).put(`/api/boards/${one.id}`).send({ by, version, reason, board: one });
const code = (reply: { readonly body: unknown }): string => (reply.body as { code: string }).code;

describe('a board', () => {
  test('added, read, listed with what it holds', async () => {
    const one = board();
    const made = await put(one, 0);
    expect([made.status, made.body]).toEqual([200, expect.objectContaining({ version: 1, reason: 'first look', by: app.person })]);
    const read = await ask(app.app).get(`/api/boards/${one.id}`);
    expect(read.body).toEqual(made.body);
    const listed = await ask(app.app).get('/api/boards');
    expect((listed.body as { boards: { id: string }[] }).boards.find(({ id }) => id === one.id)).toEqual(
      expect.objectContaining({ number: 'PW-7710', version: 1, pictures: 1, marks: 1, cards: 0, retired: false, families: [] }),
    );
  });

  test('changed: another version with its reason, the old one whole', async () => {
    const one = board();
    await put(one, 0);
    await put({ ...one, notes: 'fuse is under the label' }, 1, 'fuse found');
    const listed = await ask(app.app).get(`/api/boards/${one.id}/changes`);
    expect((listed.body as { changes: { version: number; reason: string; board: { notes: string } }[] }).changes).toEqual([
      expect.objectContaining({ version: 2, reason: 'fuse found', board: expect.objectContaining({ notes: 'fuse is under the label' }) }),
      expect.objectContaining({ version: 1, reason: 'first look', board: expect.objectContaining({ notes: '' }) }),
    ]);
  });

  test('looked at before somebody else’s change: said, and nothing stored', async () => {
    const one = board();
    await put(one, 0);
    await put({ ...one, notes: 'mine' }, 1);
    const late = await put({ ...one, notes: 'theirs' }, 1);
    expect([late.status, code(late)]).toEqual([409, 'board-version-conflict']);
    const read = await ask(app.app).get(`/api/boards/${one.id}`);
    expect((read.body as { board: { notes: string } }).board.notes).toBe('mine');
  });

  test('two at once: one is stored', async () => {
    const one = board();
    const replies = await Promise.all(['a', 'b'].map((notes) => put({ ...one, notes }, 0)));
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  test('sent again after a lost reply: the same version', async () => {
    const one = board();
    const [first, again] = [await put(one, 0), await put(one, 0)];
    expect(again.body).toEqual(first.body);
  });

  test.each([
    ['no number', (one: BoardInput) => put({ ...one, number: ' ' }, 0), 400, 'bad-request'],
    [
      'under another address',
      (one: BoardInput) => ask(app.app).put(`/api/boards/${uuidv7()}`).send({ by: app.person, version: 0, reason: 'x', board: one }),
      400,
      'bad-request',
    ],
    ['by nobody', (one: BoardInput) => put(one, 0, 'x', uuidv7()), 403, 'not-yours'],
    ['without a reason', (one: BoardInput) => put(one, 0, ' '), 400, 'bad-request'],
  ])('%s is refused', async (_, send, status, expected) => {
    const reply = await send(board());
    expect([reply.status, code(reply)]).toEqual([status, expected]);
  });

  test('that nobody entered is not found', async () => {
    expect((await ask(app.app).get(`/api/boards/${uuidv7()}`)).status).toBe(404);
    expect((await ask(app.app).get(`/api/boards/${uuidv7()}/changes`)).status).toBe(404);
  });
});
