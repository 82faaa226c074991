/**
 * The stock. A count is the sum of the moves of an item and stands nowhere else; what jobs have set aside is read from their cards.
 */
import { mostStockListed, type ChangeStock, type ListStock, type MoveStock, type StockMoves, type StockState } from '@veglia/contract';
import { canonicalJson, InputRefused, numberKey, stockItemSchema, type Entry, type StockItem } from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import { againIfOvertaken, requireSame } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import type { Store } from '../store.ts';

interface Row {
  readonly version: number;
  readonly document: unknown;
  readonly count: number;
  readonly reserved: number;
  readonly by: string;
  readonly at: Date;
}

/** Counts by the index of each item’s moves; what is set aside from the few cards that want parts, read once for all items. */
const selected = `SELECT i.version, i.document, i.changed_by AS by, i.changed_at AS at, m.count, coalesce(r.n, 0) AS reserved
  FROM stock_items i
  CROSS JOIN LATERAL (SELECT coalesce(sum(change), 0)::int AS count FROM stock_moves WHERE item_id = i.id) m
  LEFT JOIN (SELECT p->>'item' AS item, count(*)::int AS n
               FROM job_cards c, jsonb_array_elements(c.card->'parts') p
              WHERE jsonb_array_length(c.card->'parts') > 0 AND p->>'item' IS NOT NULL GROUP BY 1) r ON r.item = i.id::text`;

const stateOf = ({ document, at, ...row }: Row): StockState => ({
  ...row,
  // What the document learned since it was stored has its default.
  item: stockItemSchema.parse(document),
  at: at.toISOString(),
});

const likePattern = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** Whatever somebody may look for it by; numbers also without what stands between their letters and digits. */
function searchOf(item: StockItem): string {
  const numbers = [
    item.number,
    ...item.fits.flatMap(({ number, model, panel }) => [number, model, panel]),
    ...(item.donor?.boards.map(({ number }) => number) ?? []),
    ...(item.donor?.chips.map(({ marking }) => marking) ?? []),
  ].filter((one) => one !== undefined);
  const words = [item.name, item.assembly, item.what, item.condition, item.place, item.supplier, item.panel, item.note];
  return [...numbers, ...numbers.map(numberKey), ...words]
    .filter((one) => one !== undefined && one !== '')
    .join(' ')
    .toLowerCase();
}

/** By number; every word has to be found in the item. */
export async function listStock(store: Store, { find, retired }: ListStock): Promise<{ items: StockState[]; more: boolean }> {
  const words = find.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  const bind: string[] = words.map(likePattern);
  const found = words.map((_, index) => `i.search LIKE $${index + 1}`);
  const shown = retired ? [] : [`coalesce((i.document->>'retired')::boolean, false) = false`];
  const rows = await store.sequelize.query<Row>(
    `${selected} WHERE ${[...found, ...shown, 'true'].join(' AND ')}
      ORDER BY lower(i.document->>'number') COLLATE veglia_natural, i.id LIMIT ${mostStockListed + 1}`,
    { bind, type: QueryTypes.SELECT },
  );
  return { items: rows.slice(0, mostStockListed).map(stateOf), more: rows.length > mostStockListed };
}

/** Throws not-found. */
export async function readStock(store: Store, id: string, transaction?: Transaction): Promise<StockState> {
  const [row] = await store.sequelize.query<Row>(`${selected} WHERE i.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
    ...(transaction ? { transaction } : {}),
  });
  if (!row) throw new ApiError('not-found');
  return stateOf(row);
}

/** Throws stock-version-conflict where another change came first; the same once more is the retry it is. */
export async function changeStock(store: Store, id: string, { by, version, item }: ChangeStock): Promise<StockState> {
  if (item.id !== id) throw new InputRefused([{ code: 'schema', where: 'item.id', value: item.id, expected: id }]);
  const { sequelize } = store;
  return againIfOvertaken(() =>
    sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      const [there] = await sequelize.query<{ version: number; document: object; changed_by: string }>(
        'SELECT version, document, changed_by FROM stock_items WHERE id = $1 FOR UPDATE',
        { bind: [id], type: QueryTypes.SELECT, transaction },
      );
      if (there?.version === version + 1 && there.changed_by === by && canonicalJson(there.document) === canonicalJson(item))
        return readStock(store, id, transaction);
      if ((there?.version ?? 0) !== version) throw new ApiError('stock-version-conflict');
      if (there) await writeVersion(store, item, version, by, transaction);
      else
        await sequelize.query(
          'INSERT INTO stock_items (id, version, document, search, changed_by, changed_at) VALUES ($1, 1, $2, $3, $4, $5)',
          { bind: [id, JSON.stringify(item), searchOf(item), by, store.now()], transaction },
        );
      return readStock(store, id, transaction);
    }),
  );
}

/** Throws not-found; the same move once more is the retry it is, another one with its id is refused. */
export async function moveStock(store: Store, id: string, { id: move, by, change, reason }: MoveStock): Promise<StockState> {
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      await readStock(store, id, transaction);
      const [there] = await store.sequelize.query<{ item_id: string; change: number; reason: string }>(
        'SELECT item_id, change, reason FROM stock_moves WHERE id = $1',
        { bind: [move], type: QueryTypes.SELECT, transaction },
      );
      if (there) requireSame(move, there, { item_id: id, change, reason }, 'id');
      else await addMove(store, { id: move, item: id, change, reason, job: null, by }, transaction);
      return readStock(store, id, transaction);
    }),
  );
}

interface Move {
  readonly id: string;
  readonly item: string;
  readonly change: number;
  readonly reason: MoveStock['reason'];
  readonly job: string | null;
  readonly by: string;
}
async function addMove(store: Store, { id, item, change, reason, job, by }: Move, transaction: Transaction): Promise<void> {
  await store.sequelize.query(
    `INSERT INTO stock_moves (id, item_id, change, reason, job_id, moved_by, moved_at) VALUES ($1, $2, $3, $4, $5, $6, $7)
       ON CONFLICT (id) DO NOTHING`,
    { bind: [id, item, change, reason, job, by, store.now()], transaction },
  );
}

/** Newest first. Throws not-found. */
export async function stockMoves(store: Store, id: string): Promise<StockMoves['moves']> {
  await readStock(store, id);
  const rows = await store.sequelize.query<Omit<StockMoves['moves'][number], 'at'> & { at: Date }>(
    `SELECT m.change, m.reason, j.number AS job, m.moved_by AS by, m.moved_at AS at
       FROM stock_moves m LEFT JOIN jobs j ON j.id = m.job_id WHERE m.item_id = $1 ORDER BY m.moved_at DESC, m.id LIMIT 500`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/**
 * What a job’s new entries took from the stock or put back: a part that was fitted, and one whose fitting was undone. Of a donor only the board
 * goes: the set stays where it is.
 */
export async function moveByEntries(
  store: Store,
  job: string,
  ledger: readonly Entry[],
  added: readonly Entry[],
  transaction: Transaction,
): Promise<void> {
  for (const { id, by, body } of added) {
    if (body.kind === 'part.fitted' && body.item !== undefined) {
      if (await markDonor(store, body.item, body, 'taken', by, transaction)) continue;
      await addMove(store, { id, item: body.item, change: -1, reason: 'fitted', job, by }, transaction);
    }
    if (body.kind !== 'entry.retracted') continue;
    const target = [...ledger, ...added].find(({ id: one, seq }) => one === body.entry || seq === body.entry);
    if (target?.body.kind !== 'part.fitted' || target.body.item === undefined) continue;
    if (!(await markDonor(store, target.body.item, target.body, 'good', by, transaction)))
      await addMove(store, { id, item: target.body.item, change: 1, reason: 'put-back', job, by }, transaction);
  }
}

/** Whether the item is a donor; its board of this assembly and number is marked in its document. */
async function markDonor(
  store: Store,
  item: string,
  { assembly, number }: { readonly assembly: string; readonly number: string },
  state: 'taken' | 'good',
  by: string,
  transaction: Transaction,
): Promise<boolean> {
  const [row] = await store.sequelize.query<{ document: unknown; version: number }>(
    `SELECT document, version FROM stock_items WHERE id = $1 AND document->>'what' = 'donor' FOR UPDATE`,
    { bind: [item], type: QueryTypes.SELECT, transaction },
  );
  if (!row) return false;
  const before = stockItemSchema.parse(row.document);
  const boards = before.donor?.boards.map((board) =>
    board.assembly === assembly && numberKey(board.number) === numberKey(number) ? { ...board, state } : board,
  );
  await writeVersion(store, { ...before, donor: { chips: [], ...before.donor, boards: boards ?? [] } }, row.version, by, transaction);
  return true;
}

/** The document so far stays on record beside the new one. */
async function writeVersion(store: Store, item: StockItem, version: number, by: string, transaction: Transaction): Promise<void> {
  await store.sequelize.query(
    `INSERT INTO stock_items_before (item_id, version, document, changed_by, changed_at)
       SELECT id, version, document, changed_by, changed_at FROM stock_items WHERE id = $1`,
    { bind: [item.id], transaction },
  );
  await store.sequelize.query(
    'UPDATE stock_items SET version = $2, document = $3, search = $4, changed_by = $5, changed_at = $6 WHERE id = $1',
    { bind: [item.id, version + 1, JSON.stringify(item), searchOf(item), by, store.now()], transaction },
  );
}
