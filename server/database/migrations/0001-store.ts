import type { Query } from "../query.ts";

const statements = [
  `CREATE TABLE settings (key TEXT PRIMARY KEY, value TEXT NOT NULL)`,
  `CREATE TABLE users (
    id TEXT PRIMARY KEY, login TEXT NOT NULL UNIQUE, name TEXT NOT NULL, role TEXT NOT NULL,
    salt TEXT NOT NULL, hash TEXT NOT NULL)`,
  `CREATE TABLE sessions (
    tokenHash TEXT PRIMARY KEY, userId TEXT NOT NULL REFERENCES users(id), expiresAt INTEGER NOT NULL)`,
  `CREATE TABLE boats (
    id TEXT PRIMARY KEY, name TEXT NOT NULL, hull TEXT NOT NULL, rig TEXT NOT NULL, inService TEXT, dueDate TEXT)`,
  `CREATE INDEX boats_due ON boats(dueDate)`,
  `CREATE TABLE deliveries (
    id TEXT PRIMARY KEY, boatId TEXT NOT NULL REFERENCES boats(id), date TEXT NOT NULL, time TEXT NOT NULL,
    note TEXT NOT NULL, buyers TEXT NOT NULL, style TEXT NOT NULL, summary TEXT NOT NULL, owed INTEGER NOT NULL)`,
  `CREATE INDEX deliveries_date ON deliveries(date, time)`,
  `CREATE INDEX deliveries_boat ON deliveries(boatId)`,
  `CREATE INDEX deliveries_owed ON deliveries(owed)`,
  `CREATE TABLE entries (
    id TEXT PRIMARY KEY, deliveryId TEXT NOT NULL REFERENCES deliveries(id), body TEXT NOT NULL)`,
  `CREATE INDEX entries_delivery ON entries(deliveryId)`,
  `CREATE TABLE seals (
    deliveryId TEXT PRIMARY KEY REFERENCES deliveries(id), sha256 TEXT NOT NULL, sealedAt TEXT NOT NULL,
    canonical TEXT NOT NULL)`,
  `CREATE TABLE readings (
    id TEXT PRIMARY KEY, boatId TEXT NOT NULL REFERENCES boats(id), engine TEXT NOT NULL, date TEXT NOT NULL,
    hours REAL NOT NULL, reason TEXT, by TEXT NOT NULL)`,
  `CREATE INDEX readings_boat ON readings(boatId, engine, date)`,
  `CREATE TABLE services (
    id TEXT PRIMARY KEY, boatId TEXT NOT NULL REFERENCES boats(id), engine TEXT NOT NULL, item TEXT NOT NULL,
    date TEXT NOT NULL, hours REAL NOT NULL, by TEXT NOT NULL)`,
  `CREATE INDEX services_boat ON services(boatId)`,
];

/** The store of the first slice. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
