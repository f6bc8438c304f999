import { createHash, randomBytes } from "node:crypto";
import { Op } from "sequelize";
import type { Role } from "../../api/index.ts";
import type { Database } from "../database/open.ts";
import { hashPassword } from "../signIn/password.ts";

export interface Person {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly salt: string;
  readonly hash: string;
}

const sessionMs = 12 * 60 * 60 * 1000;
const hashToken = (token: string) => createHash("sha256").update(token).digest("hex");

/** Staff accounts and their sessions. Tokens are kept hashed. */
export function createPeople({ models }: Database) {
  const toPerson = (row: { get(options: { plain: true }): unknown } | null) =>
    row === null ? null : (row.get({ plain: true }) as Person);
  return {
    async add(person: { id: string; login: string; name: string; role: Role; password: string }) {
      const { password, ...rest } = person;
      await models.users.create({ ...rest, ...(await hashPassword(password)) });
    },
    async findByLogin(login: string): Promise<Person | null> {
      return toPerson(await models.users.findOne({ where: { login: login.trim().toLowerCase() } }));
    },
    async list(): Promise<Person[]> {
      return (await models.users.findAll({ order: ["name"] })).map((row) => toPerson(row)!);
    },
    async beginSession(userId: string, nowMs: number): Promise<{ token: string; maxAgeMs: number }> {
      const token = randomBytes(32).toString("base64url");
      await models.sessions.destroy({ where: { expiresAt: { [Op.lt]: nowMs } } });
      await models.sessions.create({ tokenHash: hashToken(token), userId, expiresAt: nowMs + sessionMs });
      return { token, maxAgeMs: sessionMs };
    },
    async findBySession(token: string, nowMs: number): Promise<Person | null> {
      const session = await models.sessions.findByPk(hashToken(token));
      if (session === null || (session.get("expiresAt") as number) < nowMs) return null;
      return toPerson(await models.users.findByPk(session.get("userId") as string));
    },
    async endSession(token: string) {
      await models.sessions.destroy({ where: { tokenHash: hashToken(token) } });
    },
  };
}

export type People = ReturnType<typeof createPeople>;
