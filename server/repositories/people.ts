import { z } from "zod";
import { type Language, languageSchema } from "../../core/language/index.ts";
import type { Role } from "../../core/walk/index.ts";
import type { UserRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";
import { type KeptPassword, scryptCostSchema } from "../signIn/passwords.ts";

export interface Person {
  readonly id: string;
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  /** Somebody who has left: their past stays. */
  readonly isOff: boolean;
  /** The owner wants a second factor of them. */
  readonly needsSecond: boolean;
  readonly hasSecond: boolean;
  /** What they read topics in, as far as these were translated. */
  readonly language: Language;
}

/** A person with what only signing in looks at. */
export interface Account extends Person {
  readonly kept: KeptPassword;
  readonly second: string | null;
  readonly secondStep: number;
  /** Hashes of the recovery codes that are left. */
  readonly recovery: readonly string[];
}

type Change = Partial<
  Pick<Account, "name" | "role" | "isOff" | "needsSecond" | "kept" | "second" | "secondStep" | "recovery" | "language">
>;

export const readLogin = (login: string): string => login.trim().toLowerCase().normalize("NFKC");

/** Staff accounts. */
export function createPeople({ models }: Database) {
  const inside = (transaction?: Transaction) => (transaction === undefined ? {} : { transaction });
  return {
    async add(
      { id, login, name, role, kept }: Pick<Account, "id" | "login" | "name" | "role" | "kept">,
      transaction?: Transaction,
    ) {
      const row = { id, login: readLogin(login), name, role, ...toColumns({ kept }) };
      const rest = { isOff: 0, second: null, secondStep: 0, recovery: "[]", needsSecond: 0, language: "en" };
      await models.users.create({ ...rest, ...row } as UserRow, inside(transaction));
    },
    async find(id: string, transaction?: Transaction): Promise<Account | null> {
      return toAccount(await readOne(models.users, id, transaction));
    },
    async findByLogin(login: string, transaction?: Transaction): Promise<Account | null> {
      const [row] = await readAll(models.users, { where: { login: readLogin(login) } }, transaction);
      return toAccount(row ?? null);
    },
    async list(transaction?: Transaction): Promise<Person[]> {
      const rows = await readAll(models.users, { order: ["name"] }, transaction);
      return rows.map((row) => toPerson(toAccount(row)!));
    },
    count: (transaction?: Transaction): Promise<number> => models.users.count(inside(transaction)),
    async change(id: string, change: Change, transaction?: Transaction) {
      await models.users.update(toColumns(change), { where: { id }, ...inside(transaction) });
    },
  };
}

export type People = ReturnType<typeof createPeople>;

const recoverySchema = z.array(z.string());

function toAccount(row: UserRow | null): Account | null {
  if (row === null) return null;
  return {
    id: row.id,
    login: row.login,
    name: row.name,
    role: row.role as Role,
    isOff: row.isOff === 1,
    needsSecond: row.needsSecond === 1,
    hasSecond: row.second !== null,
    language: languageSchema.parse(row.language),
    kept: { salt: row.salt, hash: row.hash, cost: scryptCostSchema.parse(JSON.parse(row.cost)) },
    second: row.second,
    secondStep: row.secondStep,
    recovery: recoverySchema.parse(JSON.parse(row.recovery)),
  };
}

export const toPerson = ({ id, login, name, role, isOff, needsSecond, hasSecond, language }: Person): Person => ({
  id,
  login,
  name,
  role,
  isOff,
  needsSecond,
  hasSecond,
  language,
});

function toColumns({ kept, isOff, needsSecond, recovery, ...same }: Change): Partial<UserRow> {
  return {
    ...same,
    ...(kept === undefined ? {} : { salt: kept.salt, hash: kept.hash, cost: JSON.stringify(kept.cost) }),
    ...(isOff === undefined ? {} : { isOff: Number(isOff) }),
    ...(needsSecond === undefined ? {} : { needsSecond: Number(needsSecond) }),
    ...(recovery === undefined ? {} : { recovery: JSON.stringify(recovery) }),
  };
}
