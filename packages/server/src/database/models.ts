/** Sequelize models. Built for one connection, so that several databases can be open in one process. */
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

/** Someone who writes entries. */
export interface PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  id: string;
  name: string;
}
/** A customer; `name` and `contact` are null once erased. */
export interface CustomerRow extends Model<InferAttributes<CustomerRow>, InferCreationAttributes<CustomerRow>> {
  id: string;
  name: string | null;
  contact: string | null;
}
/** A set as its rating plate says. */
export interface SetRow extends Model<InferAttributes<SetRow>, InferCreationAttributes<SetRow>> {
  id: string;
  maker: string;
  model: string;
  serial: string;
}
/** A knowledge pack as imported, by the hash of its canonical JSON. */
export interface PackRow extends Model<InferAttributes<PackRow>, InferCreationAttributes<PackRow>> {
  hash: string;
  document: object;
}
/** A job: its customer, set, and the pack and statistics it was opened with. */
export interface JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  id: string;
  number: CreationOptional<number>;
  customerId: string | null;
  setId: string;
  packHash: string;
  /** Counts it was opened with; null is the pack alone. */
  snapshot: number | null;
  lastSeq: CreationOptional<number>;
  openedAt: Date;
}
/** An entry of a ledger; never changed. */
export interface EntryRow extends Model<InferAttributes<EntryRow>, InferCreationAttributes<EntryRow>> {
  jobId: string;
  seq: number;
  id: string;
  at: Date;
  recordedAt: Date;
  by: string;
  basedOn: number;
  kind: string;
  v: number;
  body: Record<string, unknown>;
}
/** A personal text of an entry; `content` is null once erased. */
export interface EntryTextRow extends Model<InferAttributes<EntryTextRow>, InferCreationAttributes<EntryTextRow>> {
  entryId: string;
  field: string;
  content: string | null;
}
/** A job's card: a cache of its ledger, made again by `npm run cards:rebuild`. */
export interface JobCardRow extends Model<InferAttributes<JobCardRow>, InferCreationAttributes<JobCardRow>> {
  jobId: string;
  state: string;
  card: object;
  /** What it adds to the shop's counts; null while it adds nothing. */
  counted: object | null;
  updatedAt: Date;
  // What the list is filtered, sorted and searched by, out of the card.
  number: number;
  openedAt: Date;
  shelf: string;
  family: string | null;
  layout: string | null;
  code: string | null;
  symptoms: string[];
  waiting: boolean;
  search: string;
}
/** Repair statistics by number; a number never changes its meaning. */
export interface SnapshotRow extends Model<InferAttributes<SnapshotRow>, InferCreationAttributes<SnapshotRow>> {
  number: CreationOptional<number>;
  counts: object;
  madeAt: Date;
}
/** Field experience someone entered. */
export interface ToldRow extends Model<InferAttributes<ToldRow>, InferCreationAttributes<ToldRow>> {
  id: string;
  by: string;
  layout: string;
  family: string | null;
  symptom: string | null;
  fault: string;
  n: number;
  at: Date;
  withdrawnAt: Date | null;
}
/** A version of a board's document; the highest one holds. */
export interface BoardVersionRow extends Model<InferAttributes<BoardVersionRow>, InferCreationAttributes<BoardVersionRow>> {
  boardId: string;
  version: number;
  document: object;
  reason: string;
  changedBy: string;
  changedAt: Date;
}
/** A version of the shop's settings; the highest one holds. */
export interface ShopRow extends Model<InferAttributes<ShopRow>, InferCreationAttributes<ShopRow>> {
  id: number;
  version: number;
  document: object;
  changedBy: string | null;
  changedAt: Date;
}
/** A change of a family's blink table: from one pack to the next. */
export interface BlinkTableRow extends Model<InferAttributes<BlinkTableRow>, InferCreationAttributes<BlinkTableRow>> {
  number: CreationOptional<number>;
  family: string;
  document: object;
  packFrom: string;
  packTo: string;
  changedBy: string;
  changedAt: Date;
}
/** A version of a family. */
export interface FamilyVersionRow extends Model<InferAttributes<FamilyVersionRow>, InferCreationAttributes<FamilyVersionRow>> {
  number: CreationOptional<number>;
  family: string;
  document: object;
  reason: string;
  packFrom: string;
  packTo: string;
  changedBy: string;
  changedAt: Date;
}
/** What is known once for the whole database. */
export interface MetaRow extends Model<InferAttributes<MetaRow>, InferCreationAttributes<MetaRow>> {
  key: string;
  value: string;
}

/** All tables. */
export interface Models {
  readonly people: ModelStatic<PersonRow>;
  readonly customers: ModelStatic<CustomerRow>;
  readonly sets: ModelStatic<SetRow>;
  readonly packs: ModelStatic<PackRow>;
  readonly jobs: ModelStatic<JobRow>;
  readonly entries: ModelStatic<EntryRow>;
  readonly texts: ModelStatic<EntryTextRow>;
  readonly cards: ModelStatic<JobCardRow>;
  readonly snapshots: ModelStatic<SnapshotRow>;
  readonly told: ModelStatic<ToldRow>;
  readonly shop: ModelStatic<ShopRow>;
  readonly blinkTables: ModelStatic<BlinkTableRow>;
  readonly familyVersions: ModelStatic<FamilyVersionRow>;
  readonly boardVersions: ModelStatic<BoardVersionRow>;
  readonly meta: ModelStatic<MetaRow>;
}

// Sequelize writes into the attribute objects it is given: each column gets one of its own.
const key = () => ({ type: DataTypes.UUID, primaryKey: true });
const textKey = () => ({ type: DataTypes.TEXT, primaryKey: true });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const textOrNull = () => ({ type: DataTypes.TEXT, allowNull: true });
const integer = () => ({ type: DataTypes.INTEGER, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });

/** The tables as Sequelize models; the tables themselves are made by migrations. */
export function defineModels(sequelize: Sequelize): Models {
  const options = (tableName: string) => ({ tableName, timestamps: false, underscored: true });
  return {
    people: sequelize.define<PersonRow>('person', { id: key(), name: text() }, options('people')),
    customers: sequelize.define<CustomerRow>('customer', { id: key(), name: textOrNull(), contact: textOrNull() }, options('customers')),
    sets: sequelize.define<SetRow>('set', { id: key(), maker: text(), model: text(), serial: text() }, options('sets')),
    packs: sequelize.define<PackRow>('pack', { hash: textKey(), document: json() }, options('packs')),
    jobs: sequelize.define<JobRow>(
      'job',
      {
        id: key(),
        number: { type: DataTypes.INTEGER, autoIncrement: true },
        customerId: { type: DataTypes.UUID, allowNull: true },
        setId: uuid(),
        packHash: text(),
        snapshot: { type: DataTypes.INTEGER, allowNull: true },
        lastSeq: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
        openedAt: date(),
      },
      options('jobs'),
    ),
    entries: sequelize.define<EntryRow>(
      'entry',
      {
        jobId: key(),
        seq: { type: DataTypes.INTEGER, primaryKey: true },
        id: uuid(),
        at: date(),
        recordedAt: date(),
        by: uuid(),
        basedOn: integer(),
        kind: text(),
        v: integer(),
        body: json(),
      },
      options('ledger_entries'),
    ),
    texts: sequelize.define<EntryTextRow>('entryText', { entryId: key(), field: textKey(), content: textOrNull() }, options('entry_texts')),
    cards: sequelize.define<JobCardRow>(
      'jobCard',
      {
        jobId: key(),
        state: text(),
        card: json(),
        counted: { type: DataTypes.JSONB, allowNull: true },
        updatedAt: date(),
        number: integer(),
        openedAt: date(),
        shelf: text(),
        family: textOrNull(),
        layout: textOrNull(),
        code: textOrNull(),
        symptoms: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false },
        waiting: { type: DataTypes.BOOLEAN, allowNull: false },
        search: text(),
      },
      options('job_cards'),
    ),
    snapshots: sequelize.define<SnapshotRow>(
      'snapshot',
      { number: { type: DataTypes.INTEGER, autoIncrement: true, primaryKey: true }, counts: json(), madeAt: date() },
      options('counts_snapshots'),
    ),
    told: sequelize.define<ToldRow>(
      'told',
      {
        id: key(),
        by: uuid(),
        layout: text(),
        family: textOrNull(),
        symptom: textOrNull(),
        fault: text(),
        n: integer(),
        at: date(),
        withdrawnAt: { type: DataTypes.DATE, allowNull: true },
      },
      options('told_experience'),
    ),
    shop: sequelize.define<ShopRow>(
      'shop',
      {
        id: { type: DataTypes.INTEGER, primaryKey: true },
        version: integer(),
        document: json(),
        changedBy: { type: DataTypes.UUID, allowNull: true },
        changedAt: date(),
      },
      options('shop_settings'),
    ),
    blinkTables: sequelize.define<BlinkTableRow>(
      'blinkTable',
      {
        number: { type: DataTypes.INTEGER, autoIncrement: true, primaryKey: true },
        family: text(),
        document: json(),
        packFrom: text(),
        packTo: text(),
        changedBy: uuid(),
        changedAt: date(),
      },
      options('blink_tables'),
    ),
    familyVersions: sequelize.define<FamilyVersionRow>(
      'familyVersion',
      {
        number: { type: DataTypes.INTEGER, autoIncrement: true, primaryKey: true },
        family: text(),
        document: json(),
        reason: text(),
        packFrom: text(),
        packTo: text(),
        changedBy: uuid(),
        changedAt: date(),
      },
      options('family_versions'),
    ),
    boardVersions: sequelize.define<BoardVersionRow>(
      'boardVersion',
      {
        boardId: { type: DataTypes.UUID, primaryKey: true },
        version: { type: DataTypes.INTEGER, primaryKey: true },
        document: json(),
        reason: text(),
        changedBy: uuid(),
        changedAt: date(),
      },
      options('board_versions'),
    ),
    meta: sequelize.define<MetaRow>('meta', { key: textKey(), value: text() }, options('meta')),
  };
}
