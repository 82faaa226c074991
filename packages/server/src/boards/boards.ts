/** Boards a shop knows: one document each, kept in every version. */
import type { BoardState, BoardSummary } from '@veglia/contract';
import { canonicalJson, InputRefused, parseBoard, type Board, type CountedBoard } from '@veglia/core';
import { QueryTypes, type Transaction } from 'sequelize';
import type { BoardVersionRow } from '../database/models.ts';
import { againIfOvertaken } from '../http/again.ts';
import { ApiError } from '../http/apiError.ts';
import { requirePerson } from '../people.ts';
import type { Store } from '../store.ts';

const stateOf = ({ version, document, changedBy, changedAt, reason }: BoardVersionRow): BoardState => ({
  version,
  // What the document learned since it was stored has its default.
  board: parseBoard(document),
  by: changedBy,
  at: changedAt.toISOString(),
  reason,
});

/** The newest version of each, by number; counted in the database, so that no document is read for it. */
export async function listBoards({ sequelize }: Pick<Store, 'sequelize'>): Promise<BoardSummary[]> {
  return sequelize.query<BoardSummary>(
    `SELECT board_id AS id, version, document->>'number' AS number, document->>'assembly' AS assembly, document->>'layout' AS layout,
            document->'families' AS families, (document->>'retired')::boolean AS retired,
            jsonb_array_length(document->'pictures') AS pictures, jsonb_array_length(document->'cards') AS cards,
            (SELECT coalesce(sum(jsonb_array_length(picture->'marks')), 0)::int
               FROM jsonb_array_elements(document->'pictures') AS picture) AS marks
       FROM (SELECT DISTINCT ON (board_id) * FROM board_versions ORDER BY board_id, version DESC) AS newest
      ORDER BY lower(document->>'number'), board_id`,
    { type: QueryTypes.SELECT },
  );
}

/** What the newest version of every board with known faults counts, and who wrote it; no picture or mark is read for it. */
export async function countedBoards({ sequelize }: Pick<Store, 'sequelize'>, transaction: Transaction): Promise<CountedBoard[]> {
  const rows = await sequelize.query<CountedBoard['board'] & { by: string }>(
    `SELECT document->>'layout' AS layout, document->'families' AS families, (document->>'retired')::boolean AS retired,
            document->'cards' AS cards, changed_by AS by
       FROM (SELECT DISTINCT ON (board_id) * FROM board_versions ORDER BY board_id, version DESC) AS newest
      WHERE jsonb_array_length(document->'cards') > 0
      ORDER BY board_id`,
    { type: QueryTypes.SELECT, transaction },
  );
  return rows.map(({ by, ...board }) => ({ board, by }));
}

/** Throws not-found. */
export async function readBoard({ models }: Pick<Store, 'models'>, id: string): Promise<BoardState> {
  const row = await models.boardVersions.findOne({ where: { boardId: id }, order: [['version', 'DESC']] });
  if (!row) throw new ApiError('not-found');
  return stateOf(row);
}

/** Throws not-found. */
export async function boardChanges({ models }: Pick<Store, 'models'>, id: string): Promise<BoardState[]> {
  const rows = await models.boardVersions.findAll({ where: { boardId: id }, order: [['version', 'DESC']] });
  if (rows.length === 0) throw new ApiError('not-found');
  return rows.map(stateOf);
}

/** A board to be kept; `version` is the one the change was made on, 0 for a new board. */
interface Change {
  readonly by: string;
  readonly version: number;
  readonly reason: string;
  readonly board: Board;
}

/** Throws board-version-conflict where another change came first; the same once more is the retry it is. */
export async function changeBoard(store: Store, id: string, { by, version, reason, board }: Change): Promise<BoardState> {
  if (board.id !== id) throw new InputRefused([{ code: 'schema', where: 'board.id', value: board.id, expected: id }]);
  return againIfOvertaken(() =>
    store.sequelize.transaction(async (transaction) => {
      await requirePerson(store, by, transaction);
      const newest = await store.models.boardVersions.findOne({ where: { boardId: id }, order: [['version', 'DESC']], transaction });
      if (newest?.version === version + 1 && newest.changedBy === by && canonicalJson(newest.document) === canonicalJson(board))
        return stateOf(newest);
      if ((newest?.version ?? 0) !== version) throw new ApiError('board-version-conflict');
      // Two at once: the key lets one of them in, and the other looks again.
      const made = { boardId: id, version: version + 1, document: board, reason, changedBy: by, changedAt: store.now() };
      return stateOf(await store.models.boardVersions.create(made, { transaction }));
    }),
  );
}
