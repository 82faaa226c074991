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
import type { AuditKind, Role } from '@veglia/contract';

/** Someone who writes entries. */
export interface PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  id: string;
  name: string;
  role: CreationOptional<Role>;
  /** Works here no longer: named in entries, and no way in. */
  leftAt: CreationOptional<Date | null>;
}
/** How somebody shows who they are. */
export interface AccountRow extends Model<InferAttributes<AccountRow>, InferCreationAttributes<AccountRow>> {
  personId: string;
  passwordHash: string;
  pinHash: CreationOptional<string | null>;
  /** Base32. */
  factorSecret: CreationOptional<string | null>;
  factorPending: CreationOptional<string | null>;
  /** Last step of 30 s whose code was taken. */
  factorStep: CreationOptional<number>;
  recoveryHashes: CreationOptional<string[]>;
  /** Sessions begun earlier are over. */
  sessionsFrom: Date;
  lastSignIn: CreationOptional<Date | null>;
}
/** A passkey: the public half, and where it was made for. */
export interface PasskeyRow extends Model<InferAttributes<PasskeyRow>, InferCreationAttributes<PasskeyRow>> {
  id: string;
  personId: string;
  /** Name of the server. */
  rp: string;
  name: string;
  publicKey: Buffer;
  counter: number;
  transports: string[];
  addedAt: Date;
  usedAt: CreationOptional<Date | null>;
}
/** A code that lets somebody choose a password; without a person it makes the first owner. */
export interface InvitationRow extends Model<InferAttributes<InvitationRow>, InferCreationAttributes<InvitationRow>> {
  codeHash: string;
  personId: string | null;
  until: Date;
  usedAt: CreationOptional<Date | null>;
}
/** A browser where a PIN is enough. */
export interface BenchRow extends Model<InferAttributes<BenchRow>, InferCreationAttributes<BenchRow>> {
  id: string;
  name: string;
  tokenHash: string;
  trustedBy: string;
  trustedAt: Date;
  lastUsed: CreationOptional<Date | null>;
  endedAt: CreationOptional<Date | null>;
}
/** Who signed in with a password on a bench, and how many wrong PINs since. */
export interface BenchPersonRow extends Model<InferAttributes<BenchPersonRow>, InferCreationAttributes<BenchPersonRow>> {
  benchId: string;
  personId: string;
  passwordAt: Date;
  wrongPins: CreationOptional<number>;
}
/** A line of the audit; never changed. */
export interface AuditRow extends Model<InferAttributes<AuditRow>, InferCreationAttributes<AuditRow>> {
  id: CreationOptional<number>;
  at: Date;
  what: AuditKind;
  personId: string | null;
  about: string | null;
  fromAddress: string | null;
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
  readonly accounts: ModelStatic<AccountRow>;
  readonly passkeys: ModelStatic<PasskeyRow>;
  readonly invitations: ModelStatic<InvitationRow>;
  readonly benches: ModelStatic<BenchRow>;
  readonly benchPeople: ModelStatic<BenchPersonRow>;
  readonly audit: ModelStatic<AuditRow>;
}

// Sequelize writes into the attribute objects it is given: each column gets one of its own.
const key = () => ({ type: DataTypes.UUID, primaryKey: true });
const textKey = () => ({ type: DataTypes.TEXT, primaryKey: true });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const textOrNull = () => ({ type: DataTypes.TEXT, allowNull: true });
const integer = () => ({ type: DataTypes.INTEGER, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });
const dateOrNull = () => ({ type: DataTypes.DATE, allowNull: true });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });

/** The tables as Sequelize models; the tables themselves are made by migrations. */
export function defineModels(sequelize: Sequelize): Models {
  const options = (tableName: string) => ({ tableName, timestamps: false, underscored: true });
  return {
    people: sequelize.define<PersonRow>(
      'person',
      { id: key(), name: text(), role: { type: DataTypes.TEXT, allowNull: false, defaultValue: 'technician' }, leftAt: dateOrNull() },
      options('people'),
    ),
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
    accounts: sequelize.define<AccountRow>(
      'account',
      {
        personId: key(),
        passwordHash: text(),
        pinHash: textOrNull(),
        factorSecret: textOrNull(),
        factorPending: textOrNull(),
        factorStep: { type: DataTypes.BIGINT, allowNull: false, defaultValue: 0 },
        recoveryHashes: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false, defaultValue: [] },
        sessionsFrom: date(),
        lastSignIn: dateOrNull(),
      },
      options('accounts'),
    ),
    passkeys: sequelize.define<PasskeyRow>(
      'passkey',
      {
        id: textKey(),
        personId: uuid(),
        rp: text(),
        name: text(),
        publicKey: { type: DataTypes.BLOB, allowNull: false },
        counter: { type: DataTypes.BIGINT, allowNull: false },
        transports: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false },
        addedAt: date(),
        usedAt: dateOrNull(),
      },
      options('passkeys'),
    ),
    invitations: sequelize.define<InvitationRow>(
      'invitation',
      { codeHash: textKey(), personId: { type: DataTypes.UUID, allowNull: true }, until: date(), usedAt: dateOrNull() },
      options('invitations'),
    ),
    benches: sequelize.define<BenchRow>(
      'bench',
      {
        id: key(),
        name: text(),
        tokenHash: text(),
        trustedBy: uuid(),
        trustedAt: date(),
        lastUsed: dateOrNull(),
        endedAt: dateOrNull(),
      },
      options('benches'),
    ),
    benchPeople: sequelize.define<BenchPersonRow>(
      'benchPerson',
      { benchId: key(), personId: key(), passwordAt: date(), wrongPins: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 } },
      options('bench_people'),
    ),
    audit: sequelize.define<AuditRow>(
      'auditLine',
      {
        id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
        at: date(),
        what: text(),
        personId: { type: DataTypes.UUID, allowNull: true },
        about: textOrNull(),
        fromAddress: textOrNull(),
      },
      options('audit'),
    ),
  };
}
