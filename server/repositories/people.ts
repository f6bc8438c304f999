import { createHash, randomBytes } from "node:crypto";
import { Op } from "sequelize";
import type { Role } from "../../core/walk/index.ts";
import type { UserRow } from "../database/models.ts";
import type { Database } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";
import { hashPassword } from "../signIn/password.ts";

export interface Person {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly salt: string;
  readonly hash: string;
}

const rememberMs = 20_000;
const sessionMs = 12 * 60 * 60 * 1000;
const hashToken = (token: string) => createHash("sha256").update(token).digest("hex");

/** Staff accounts and their sessions. Tokens are kept hashed. */
export function createPeople({ models }: Database) {
  // Every request asks who it is from: answers are remembered for a moment, and forgotten at once on sign-out.
  const remembered = new Map<string, { person: Person; untilMs: number }>();
  const toPerson = (row: UserRow | null | undefined) => (row == null ? null : { ...row, role: row.role as Role });
  return {
    async add(person: { id: string; login: string; name: string; role: Role; password: string }) {
      const { password, ...rest } = person;
      await models.users.create({ ...rest, ...(await hashPassword(password)) });
    },
    async findByLogin(login: string): Promise<Person | null> {
      const rows = await readAll(models.users, { where: { login: login.trim().toLowerCase() } });
      return toPerson(rows[0]);
    },
    async list(): Promise<Person[]> {
      return (await readAll(models.users, { order: ["name"] })).map((row) => toPerson(row)!);
    },
    async beginSession(userId: string, nowMs: number): Promise<{ token: string; maxAgeMs: number }> {
      const token = randomBytes(32).toString("base64url");
      await models.sessions.destroy({ where: { expiresAt: { [Op.lt]: nowMs } } });
      await models.sessions.create({ tokenHash: hashToken(token), userId, expiresAt: nowMs + sessionMs });
      return { token, maxAgeMs: sessionMs };
    },
    async findBySession(token: string, nowMs: number): Promise<Person | null> {
      const key = hashToken(token);
      const known = remembered.get(key);
      if (known !== undefined && nowMs < known.untilMs) return known.person;
      remembered.delete(key);
      const session = await readOne(models.sessions, key);
      if (session === null || session.expiresAt < nowMs) return null;
      const person = toPerson(await readOne(models.users, session.userId));
      if (person !== null) {
        const untilMs = Math.min(session.expiresAt, nowMs + rememberMs);
        remembered.set(key, { person, untilMs });
      }
      return person;
    },
    async endSession(token: string) {
      remembered.delete(hashToken(token));
      await models.sessions.destroy({ where: { tokenHash: hashToken(token) } });
    },
  };
}

export type People = ReturnType<typeof createPeople>;
