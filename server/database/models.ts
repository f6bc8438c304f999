import { DataTypes, type Model, type ModelStatic, type Sequelize } from "sequelize";
import type { Instant, LocalDate } from "../../core/dates/index.ts";

export interface UserRow {
  id: string;
  login: string;
  name: string;
  role: string;
  salt: string;
  hash: string;
  /** What scrypt was told for this hash, as JSON. */
  cost: string;
  isOff: number;
  second: string | null;
  secondStep: number;
  recovery: string;
  needsSecond: number;
  language: string;
}
export interface SessionRow {
  tokenHash: string;
  id: string;
  userId: string;
  device: string;
  deviceId: string | null;
  pinKey: string | null;
  beganAtMs: number;
  seenAtMs: number;
  idleMs: number;
  endsAtMs: number;
}
export interface InviteRow {
  codeHash: string;
  id: string;
  userId: string | null;
  name: string;
  role: string;
  by: string;
  at: Instant;
  endsAtMs: number;
  usedAt: Instant | null;
}
export interface DeviceRow {
  tokenHash: string;
  id: string;
  name: string;
  by: string;
  at: Instant;
  endedAt: Instant | null;
}
export interface AuditRow {
  number?: number;
  at: Instant;
  by: string;
  name: string;
  kind: string;
  what: string;
  about: string;
}
export interface BoatRow {
  id: string;
  name: string;
  hull: string;
  rig: string;
  inService: LocalDate | null;
  template: string | null;
  version: number;
  contact: string;
  /** What the yard calls it; empty where it has no number. */
  stock: string;
  color: string;
  /** `{on, note, by}` as JSON: when its people asked to be called back; empty where they did not. */
  callBack: string;
  /** Until when gear and registration are good, by gear, as JSON: what the owner entered. */
  gearDates: string;
}
export interface TemplateRow {
  id: string;
  name: string;
  rig: string;
  at: Instant;
}
export interface TopicEditRow {
  id: string;
  body: string;
  basis: string | null;
  by: string;
  at: Instant;
}
export interface PhotoRow {
  id: string;
  at: Instant;
  by: string;
  width: number;
  height: number;
  sha256: string;
  /** SHA-256 of the bytes the device sent; null of photos kept before that was noted. */
  sent: string | null;
  large: Buffer;
  small: Buffer;
  /** Of a photo that came sealed: its bytes as they came, of which `sha256` is. Screens are given `large`. */
  original: Buffer | null;
}
export interface DeliveryRow {
  id: string;
  boatId: string;
  date: LocalDate;
  time: string;
  note: string;
  buyers: string;
  style: string;
  wishes: string;
  summary: string;
  owed: number;
  /** What the walk goes by; null before it begins. */
  snapshot: string | null;
}
export interface EntryRow {
  id: string;
  deliveryId: string;
  body: string;
  /** Null of entries stored before it was noted. */
  receivedAt: Instant | null;
  /** In the order in which they were received. */
  number: number;
  via: "staff" | "owner" | "remote" | "import";
  /** By how much its device's clock was behind the server's when it was sent; null where it did not say. */
  offsetMs: number | null;
}
/** What a walk goes by, packed. */
export interface SnapshotRow {
  sha256: string;
  deliveryId: string;
  body: Buffer;
  at: Instant;
  isUsed: number;
}
/** A snapshot that was handed out to a handover; without one (''), to any of its hull, before this was noted. */
export interface HandoutRow {
  deliveryId: string;
  sha256: string;
  at: Instant;
}
/** What the salted hashes of a link are of. */
export interface ContentRow {
  number: number;
  deliveryId: string;
  body: string;
}
/** A handover that another store sealed: `number` is its link in this store's chain. */
export interface ImportRow {
  number: number;
  deliveryId: string;
  by: string;
  at: Instant;
  verdict: string;
  /** Whose signature it bore; null where it bore none. */
  key: string | null;
  proof: string;
}
export interface StrikeRow {
  part: string;
  id: string;
  deliveryId: string;
  at: Instant;
}
/** What a boat is towed with, and its launches, as JSON. */
export interface TowingRow {
  boatId: string;
  vehicle: string | null;
  launches: string;
}

/** A link of the store's seal chain: a handover sealed here or taken in, or what was added to one. */
export interface ChainRow {
  number: number;
  deliveryId: string;
  /** `key`: the store signs with another key from here on. */
  kind: "handover" | "import" | "amendment" | "key";
  sha256: string;
  previous: string;
  link: string;
  canonical: string;
  at: Instant;
  /** The public key it is signed with, and the signature of its link; null of links made before the store had a key. */
  key: string | null;
  signature: string | null;
}
export interface OwnerLinkRow {
  tokenHash: string;
  deliveryId: string;
  madeAt: Instant;
  by: string;
  /** The walk itself is on the page: 1, else 0. */
  isRemote: number;
  endedAt: Instant | null;
  usedAt: Instant | null;
}
export interface MessageRow {
  id: string;
  deliveryId: string | null;
  recipient: string;
  text: string;
  at: Instant;
  state: string;
  boatId: string;
  kind: string;
  answer: string | null;
}
export interface ReadingRow {
  id: string;
  boatId: string;
  engine: string;
  date: LocalDate;
  hours: number;
  reason: string | null;
  by: string;
  source: string;
  answer: string | null;
  photo: string | null;
}
export interface ServiceRow {
  id: string;
  boatId: string;
  engine: string;
  item: string;
  date: LocalDate;
  hours: number;
  by: string;
  outcome: string;
  note: string;
  photo: string | null;
  /** A file that shows it, under the name it came with. */
  file: string | null;
  fileName: string | null;
  priceCents: number | null;
  /** What went in, in words; the hours of work; who did it, where that is not who wrote it down. */
  parts: string;
  labourH: number | null;
  mechanic: string;
}
export interface FillRow {
  id: string;
  boatId: string;
  date: LocalDate;
  litres: number;
  /** The tanks were full then: 1, else 0. */
  isFull: number;
  by: string;
  /** The amount as it was typed, as JSON; null where it was litres. */
  typed: string | null;
}
export type WithdrawnKind = "reading" | "run" | "fill" | "service";
export interface WithdrawalRow {
  kind: WithdrawnKind;
  id: string;
  boatId: string;
  reason: string;
  by: string;
  at: Instant;
  /** What counts in its place; null where nothing does. */
  instead: string | null;
}
export interface FileRow {
  id: string;
  type: "application/pdf" | "text/plain";
  sha256: string;
  bytes: Buffer;
  at: Instant;
  by: string;
}
export interface RunRow {
  id: string;
  boatId: string;
  engine: string;
  date: LocalDate;
  startMin: number;
  source: string;
  fileName: string;
  hoursBefore: number;
  verdict: string;
  trace: Buffer;
  by: string;
  at: Instant;
}
export interface PackRow {
  id: string;
  kind: string;
  body: string;
  version: number;
  by: string;
  at: Instant;
}
export interface BookingRow {
  id: string;
  boatId: string;
  date: LocalDate;
  startMin: number;
  labourH: number;
  items: string;
  note: string;
  state: string;
  by: string;
  at: Instant;
}
export interface JobRow {
  id: string;
  kind: string;
  boatId: string;
  dueAtMs: number;
  state: string;
  tries: number;
  note: string;
  doneAt: Instant | null;
}
export interface SettingRow {
  key: string;
  value: string;
}

type Table<R extends object> = ModelStatic<Model<R, R>>;
type Define = <R extends object>(name: string, columns: Record<keyof R, object>) => Table<R>;

export interface Models {
  readonly users: Table<UserRow>;
  readonly sessions: Table<SessionRow>;
  readonly invites: Table<InviteRow>;
  readonly devices: Table<DeviceRow>;
  readonly audit: Table<AuditRow>;
  readonly boats: Table<BoatRow>;
  readonly templates: Table<TemplateRow>;
  readonly topicEdits: Table<TopicEditRow>;
  readonly photos: Table<PhotoRow>;
  readonly files: Table<FileRow>;
  readonly deliveries: Table<DeliveryRow>;
  readonly entries: Table<EntryRow>;
  readonly chain: Table<ChainRow>;
  readonly ownerLinks: Table<OwnerLinkRow>;
  readonly messages: Table<MessageRow>;
  readonly towing: Table<TowingRow>;
  readonly snapshots: Table<SnapshotRow>;
  readonly handouts: Table<HandoutRow>;
  readonly contents: Table<ContentRow>;
  readonly imports: Table<ImportRow>;
  readonly strikes: Table<StrikeRow>;
  readonly readings: Table<ReadingRow>;
  readonly services: Table<ServiceRow>;
  readonly fills: Table<FillRow>;
  readonly withdrawals: Table<WithdrawalRow>;
  readonly runs: Table<RunRow>;
  readonly packs: Table<PackRow>;
  readonly bookings: Table<BookingRow>;
  readonly jobs: Table<JobRow>;
  readonly settings: Table<SettingRow>;
}

// Sequelize writes into the objects it is given, so each column gets its own.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const textOr = (defaultValue: string) => ({ type: DataTypes.TEXT, allowNull: false, defaultValue });
const maybeText = () => ({ type: DataTypes.TEXT, allowNull: true });
const key = () => ({ type: DataTypes.TEXT, allowNull: false, primaryKey: true });
const real = () => ({ type: DataTypes.DOUBLE, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
const maybeWhole = () => ({ type: DataTypes.INTEGER, allowNull: true });
const blob = () => ({ type: DataTypes.BLOB, allowNull: false });

/** Tables as Sequelize sees them. JSON stands in text columns and is parsed where it leaves a repository. */
export function defineModels(sequelize: Sequelize): Models {
  const table: Define = <R extends object>(name: string, columns: Record<keyof R, object>) =>
    sequelize.define(name, columns as never, { tableName: name, timestamps: false }) as unknown as Table<R>;
  return { ...defineStore(table), ...defineHandovers(table), ...defineBoats(table), ...defineWork(table) };
}

/** What the store itself is: its people, its templates and words, its files. */
const defineStore = (table: Define) => ({
  users: table<UserRow>("users", {
    id: key(),
    login: text(),
    name: text(),
    role: text(),
    salt: text(),
    hash: text(),
    cost: text(),
    isOff: whole(),
    second: maybeText(),
    secondStep: whole(),
    recovery: text(),
    needsSecond: whole(),
    language: textOr("en"),
  }),
  sessions: table<SessionRow>("sessions", {
    tokenHash: key(),
    id: text(),
    userId: text(),
    device: text(),
    deviceId: maybeText(),
    pinKey: maybeText(),
    beganAtMs: whole(),
    seenAtMs: whole(),
    idleMs: whole(),
    endsAtMs: whole(),
  }),
  invites: table<InviteRow>("invites", {
    codeHash: key(),
    id: text(),
    userId: maybeText(),
    name: text(),
    role: text(),
    by: text(),
    at: text(),
    endsAtMs: whole(),
    usedAt: maybeText(),
  }),
  devices: table<DeviceRow>("devices", {
    tokenHash: key(),
    id: text(),
    name: text(),
    by: text(),
    at: text(),
    endedAt: maybeText(),
  }),
  audit: table<AuditRow>("audit", {
    number: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
    at: text(),
    by: text(),
    name: text(),
    kind: text(),
    what: text(),
    about: text(),
  }),
  settings: table<SettingRow>("settings", { key: key(), value: text() }),
  templates: table<TemplateRow>("templates", { id: key(), name: text(), rig: text(), at: text() }),
  topicEdits: table<TopicEditRow>("topicEdits", {
    id: key(),
    body: text(),
    basis: maybeText(),
    by: text(),
    at: text(),
  }),
  packs: table<PackRow>("packs", { id: key(), kind: text(), body: text(), version: whole(), by: text(), at: text() }),
  photos: table<PhotoRow>("photos", {
    id: key(),
    at: text(),
    by: text(),
    width: whole(),
    height: whole(),
    sha256: text(),
    sent: maybeText(),
    large: blob(),
    small: blob(),
    original: { type: DataTypes.BLOB, allowNull: true },
  }),
  files: table<FileRow>("files", {
    id: key(),
    type: text(),
    sha256: text(),
    bytes: blob(),
    at: text(),
    by: text(),
  }),
});

/** Handovers: what was entered, what was sealed of it, and whom it was given to. */
const defineHandovers = (table: Define) => ({
  deliveries: table<DeliveryRow>("deliveries", {
    id: key(),
    boatId: text(),
    date: text(),
    time: text(),
    note: text(),
    buyers: text(),
    style: text(),
    wishes: text(),
    summary: text(),
    owed: whole(),
    snapshot: maybeText(),
  }),
  entries: table<EntryRow>("entries", {
    id: key(),
    deliveryId: text(),
    body: text(),
    receivedAt: maybeText(),
    number: whole(),
    via: text(),
    offsetMs: maybeWhole(),
  }),
  snapshots: table<SnapshotRow>("snapshots", {
    sha256: key(),
    deliveryId: text(),
    body: blob(),
    at: text(),
    isUsed: whole(),
  }),
  handouts: table<HandoutRow>("handouts", { deliveryId: key(), sha256: key(), at: text() }),
  contents: table<ContentRow>("contents", {
    number: { type: DataTypes.INTEGER, primaryKey: true },
    deliveryId: text(),
    body: text(),
  }),
  imports: table<ImportRow>("imports", {
    number: { type: DataTypes.INTEGER, primaryKey: true },
    deliveryId: text(),
    by: text(),
    at: text(),
    verdict: text(),
    key: maybeText(),
    proof: text(),
  }),
  strikes: table<StrikeRow>("strikes", {
    part: key(),
    id: key(),
    deliveryId: key(),
    at: text(),
  }),
  chain: table<ChainRow>("chain", {
    number: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
    deliveryId: text(),
    kind: text(),
    sha256: text(),
    previous: text(),
    link: text(),
    canonical: text(),
    at: text(),
    key: maybeText(),
    signature: maybeText(),
  }),
  ownerLinks: table<OwnerLinkRow>("ownerLinks", {
    tokenHash: key(),
    deliveryId: text(),
    madeAt: text(),
    by: text(),
    isRemote: whole(),
    endedAt: maybeText(),
    usedAt: maybeText(),
  }),
});

/** Boats and what is entered of them. */
const defineBoats = (table: Define) => ({
  boats: table<BoatRow>("boats", {
    id: key(),
    name: text(),
    hull: text(),
    rig: text(),
    inService: maybeText(),
    template: maybeText(),
    version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
    contact: textOr("{}"),
    stock: textOr(""),
    color: textOr(""),
    callBack: textOr(""),
    gearDates: textOr("{}"),
  }),
  readings: table<ReadingRow>("readings", {
    id: key(),
    boatId: text(),
    engine: text(),
    date: text(),
    hours: real(),
    reason: maybeText(),
    by: text(),
    source: textOr("phone"),
    answer: maybeText(),
    photo: maybeText(),
  }),
  services: table<ServiceRow>("services", {
    id: key(),
    boatId: text(),
    engine: text(),
    item: text(),
    date: text(),
    hours: real(),
    by: text(),
    outcome: textOr("done"),
    note: textOr(""),
    photo: maybeText(),
    file: maybeText(),
    fileName: maybeText(),
    priceCents: { type: DataTypes.INTEGER, allowNull: true },
    parts: textOr(""),
    labourH: { type: DataTypes.REAL, allowNull: true },
    mechanic: textOr(""),
  }),
  fills: table<FillRow>("fills", {
    id: key(),
    boatId: text(),
    date: text(),
    litres: real(),
    isFull: whole(),
    by: text(),
    typed: maybeText(),
  }),
  runs: table<RunRow>("runs", {
    id: key(),
    boatId: text(),
    engine: text(),
    date: text(),
    startMin: whole(),
    source: text(),
    fileName: text(),
    hoursBefore: real(),
    verdict: text(),
    trace: blob(),
    by: text(),
    at: text(),
  }),
  withdrawals: table<WithdrawalRow>("withdrawals", {
    kind: key(),
    id: key(),
    boatId: text(),
    reason: text(),
    by: text(),
    at: text(),
    instead: maybeText(),
  }),
});

/** What the workshop does with boats, and what is written to their people. */
const defineWork = (table: Define) => ({
  towing: table<TowingRow>("towing", { boatId: key(), vehicle: maybeText(), launches: text() }),
  bookings: table<BookingRow>("bookings", {
    id: key(),
    boatId: text(),
    date: text(),
    startMin: whole(),
    labourH: real(),
    items: text(),
    note: text(),
    state: text(),
    by: text(),
    at: text(),
  }),
  messages: table<MessageRow>("outbox", {
    id: key(),
    deliveryId: maybeText(),
    recipient: text(),
    text: text(),
    at: text(),
    state: text(),
    boatId: text(),
    kind: text(),
    answer: maybeText(),
  }),
  jobs: table<JobRow>("jobs", {
    id: key(),
    kind: text(),
    boatId: text(),
    dueAtMs: whole(),
    state: text(),
    tries: whole(),
    note: text(),
    doneAt: maybeText(),
  }),
});
