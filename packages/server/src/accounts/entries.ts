/** Which entries a role may write: the contract’s table of kinds, and at the counter only checks that need no opened set. */
import { mayWrite, type EntryDraft, type Role } from '@veglia/contract';
import type { CompiledPack, EntryKind } from '@veglia/core';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';

/** Throws not-allowed, naming the first of them. */
export async function requireMayWrite(store: Store, role: Role, drafts: readonly EntryDraft[]): Promise<void> {
  if (role !== 'counter') return;
  const pack = await store.packs.compiled(await store.packs.currentHash());
  for (const [index, { body }] of drafts.entries()) {
    const kind = body.kind as EntryKind;
    const inside = kind === 'test.answered' && isInside(body.test, pack);
    if (!mayWrite(role, kind) || inside || (kind === 'entry.retracted' && !(await isOwnKind(store, role, body.entry))))
      throw new ApiError('not-allowed', [
        { code: 'schema', where: `entries.${index}.body.kind`, value: kind, expected: 'an entry of your role' },
      ]);
  }
}

/** Needs the cover off on some layout; one that the pack doesn’t know is taken for one. */
function isInside(test: unknown, pack: CompiledPack): boolean {
  const known = typeof test === 'string' ? pack.tests.get(pack.currentId(test)) : undefined;
  return !known || [...pack.layouts.keys()].some((layout) => pack.fits(known, layout) && pack.procedure(known, layout).stage > 0);
}

/** Undone is only what the role could have written. */
async function isOwnKind(store: Store, role: Role, id: unknown): Promise<boolean> {
  const row = typeof id === 'string' ? await store.models.entries.findOne({ where: { id } }) : null;
  return row === null || mayWrite(role, row.kind as EntryKind);
}
