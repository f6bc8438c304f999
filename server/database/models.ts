import { DataTypes, type Model, type ModelStatic, type Sequelize } from "sequelize";

export interface UserRow {
  id: string;
  login: string;
  name: string;
  role: string;
  salt: string;
  hash: string;
}
export interface SessionRow {
  tokenHash: string;
  userId: string;
  expiresAt: number;
}
export interface BoatRow {
  id: string;
  name: string;
  hull: string;
  rig: string;
  inService: string | null;
  dueDate: string | null;
  template: string | null;
  version: number;
}
export interface TemplateRow {
  id: string;
  name: string;
  rig: string;
  at: string;
}
export interface TopicEditRow {
  id: string;
  body: string;
  basis: string | null;
  by: string;
  at: string;
}
export interface PhotoRow {
  id: string;
  at: string;
  by: string;
  width: number;
  height: number;
  large: Buffer;
  small: Buffer;
}
export interface DeliveryRow {
  id: string;
  boatId: string;
  date: string;
  time: string;
  note: string;
  buyers: string;
  style: string;
  wishes: string;
  summary: string;
  owed: number;
}
export interface EntryRow {
  id: string;
  deliveryId: string;
  body: string;
}
export interface SealRow {
  deliveryId: string;
  sha256: string;
  sealedAt: string;
  canonical: string;
}
export interface ReadingRow {
  id: string;
  boatId: string;
  engine: string;
  date: string;
  hours: number;
  reason: string | null;
  by: string;
}
export interface ServiceRow {
  id: string;
  boatId: string;
  engine: string;
  item: string;
  date: string;
  hours: number;
  by: string;
}
export interface SettingRow {
  key: string;
  value: string;
}

type Table<R extends object> = ModelStatic<Model<R, R>>;

export interface Models {
  readonly users: Table<UserRow>;
  readonly sessions: Table<SessionRow>;
  readonly boats: Table<BoatRow>;
  readonly templates: Table<TemplateRow>;
  readonly topicEdits: Table<TopicEditRow>;
  readonly photos: Table<PhotoRow>;
  readonly deliveries: Table<DeliveryRow>;
  readonly entries: Table<EntryRow>;
  readonly seals: Table<SealRow>;
  readonly readings: Table<ReadingRow>;
  readonly services: Table<ServiceRow>;
  readonly settings: Table<SettingRow>;
}

/** Tables as Sequelize sees them. JSON stands in text columns and is parsed where it leaves a repository. */
export function defineModels(sequelize: Sequelize): Models {
  // Sequelize writes into the objects it is given, so each column gets its own.
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const maybeText = () => ({ type: DataTypes.TEXT, allowNull: true });
  const key = () => ({ type: DataTypes.TEXT, allowNull: false, primaryKey: true });
  const real = () => ({ type: DataTypes.DOUBLE, allowNull: false });
  const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const table = <R extends object>(name: string, columns: Record<keyof R, object>) =>
    sequelize.define(name, columns as never, { tableName: name, timestamps: false }) as unknown as Table<R>;
  return {
    users: table<UserRow>("users", {
      id: key(),
      login: text(),
      name: text(),
      role: text(),
      salt: text(),
      hash: text(),
    }),
    sessions: table<SessionRow>("sessions", { tokenHash: key(), userId: text(), expiresAt: whole() }),
    boats: table<BoatRow>("boats", {
      id: key(),
      name: text(),
      hull: text(),
      rig: text(),
      inService: maybeText(),
      dueDate: maybeText(),
      template: maybeText(),
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
    }),
    templates: table<TemplateRow>("templates", { id: key(), name: text(), rig: text(), at: text() }),
    topicEdits: table<TopicEditRow>("topicEdits", {
      id: key(),
      body: text(),
      basis: maybeText(),
      by: text(),
      at: text(),
    }),
    photos: table<PhotoRow>("photos", {
      id: key(),
      at: text(),
      by: text(),
      width: { type: DataTypes.INTEGER, allowNull: false },
      height: { type: DataTypes.INTEGER, allowNull: false },
      large: { type: DataTypes.BLOB, allowNull: false },
      small: { type: DataTypes.BLOB, allowNull: false },
    }),
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
    }),
    entries: table<EntryRow>("entries", { id: key(), deliveryId: text(), body: text() }),
    seals: table<SealRow>("seals", { deliveryId: key(), sha256: text(), sealedAt: text(), canonical: text() }),
    readings: table<ReadingRow>("readings", {
      id: key(),
      boatId: text(),
      engine: text(),
      date: text(),
      hours: real(),
      reason: maybeText(),
      by: text(),
    }),
    services: table<ServiceRow>("services", {
      id: key(),
      boatId: text(),
      engine: text(),
      item: text(),
      date: text(),
      hours: real(),
      by: text(),
    }),
    settings: table<SettingRow>("settings", { key: key(), value: text() }),
  };
}
