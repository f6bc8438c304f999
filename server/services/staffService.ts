import { Op } from "sequelize";
import { ulid } from "ulid";
import type { StaffSheet } from "../../api/index.ts";
import type { Language } from "../../core/language/index.ts";
import type { Role } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { InviteRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";
import { Failure } from "../failure.ts";
import type { Account, People } from "../repositories/people.ts";
import { createToken, hashToken, type Sessions } from "../repositories/sessions.ts";
import type { Settings } from "../repositories/settings.ts";
import { type Hasher, hashPassword, type KeptPassword, type ScryptCost } from "../signIn/passwords.ts";
import {
  createCode,
  createRecoveryCodes,
  createSecret,
  describeSecret,
  findStep,
  hashCode,
} from "../signIn/secondFactor.ts";
import { findWeakness, passwordLength } from "../signIn/weakPasswords.ts";

interface Parts {
  readonly database: Database;
  readonly people: People;
  readonly sessions: Sessions;
  readonly settings: { read(): Promise<Settings> };
  readonly clock: Clock;
  readonly hasher: Hasher;
  readonly cost: ScryptCost;
}

const dayMs = 86_400_000;
const inviteMs = 7 * dayMs;
const resetMs = dayMs;
const pendingMs = 600_000;

/** The store's people: who is let in, as what, and who is no more. */
export function createStaffService({ database, people, sessions, settings, clock, hasher, cost }: Parts) {
  const { models, inTransaction } = database;
  /** Secrets that were shown and have had no code yet. */
  const pending = new Map<string, { secret: string; untilMs: number }>();

  const find = async (id: string, transaction?: Transaction): Promise<Account> => {
    const account = await people.find(id, transaction);
    if (account === null) throw new Failure("not-found", { what: "person", id });
    return account;
  };
  const hash = async (password: string, own: readonly string[]): Promise<KeptPassword> => {
    const { store } = await settings.read();
    const why = findWeakness(password, [...own, store]);
    if (why !== null) throw new Failure("weak-password", { why, least: passwordLength.least });
    return hashPassword(hasher, password, cost);
  };
  const isOpen = (row: InviteRow | null): row is InviteRow =>
    row !== null && row.usedAt === null && clock.nowMs() < row.endsAtMs;
  const findInvite = async (code: string, transaction?: Transaction): Promise<InviteRow> => {
    const row = await readOne(models.invites, hashCode(code), transaction);
    if (!isOpen(row)) throw new Failure("code-ended");
    return row;
  };
  const makeInvite = async (invite: Pick<InviteRow, "userId" | "name" | "role" | "by">, lastsMs: number) => {
    const code = createCode();
    const endsAtMs = clock.nowMs() + lastsMs;
    const rest = {
      codeHash: hashCode(code),
      id: ulid(clock.nowMs()).toLowerCase(),
      at: clock.now(),
      endsAtMs,
      usedAt: null,
    };
    await models.invites.create({ ...rest, ...invite });
    return { code, endsAtMs };
  };
  /** Failure: `last-owner`: a store without one could not be kept. */
  const mustLeaveOwner = async (id: string, transaction: Transaction) => {
    const others = (await people.list(transaction)).filter((person) => person.id !== id && !person.isOff);
    if (!others.some(({ role }) => role === "owner")) throw new Failure("last-owner");
  };
  const addPerson = async (
    { login, name, role, kept }: { login: string; name: string; role: Role; kept: KeptPassword },
    transaction: Transaction,
  ): Promise<Account> => {
    if ((await people.findByLogin(login, transaction)) !== null) throw new Failure("login-taken", { login });
    // Never used again for another, and never a word of an address.
    const id = `p-${ulid(clock.nowMs()).toLowerCase()}`;
    await people.add({ id, login, name, role, kept }, transaction);
    return find(id, transaction);
  };

  return {
    find,
    addPerson,
    hash,
    async describe(deviceId: string | null): Promise<StaffSheet> {
      const last = await sessions.listLast();
      const invites = await readAll(models.invites, { where: { usedAt: null }, order: [["at", "DESC"]] });
      const devices = await readAll(models.devices, { where: { endedAt: null }, order: ["name"] });
      const names = new Map((await people.list()).map(({ id, name }) => [id, name]));
      return {
        people: (await people.list()).map((person) => ({ ...person, seenAtMs: last.get(person.id) ?? null })),
        invites: invites.filter(isOpen).map(({ id, name, role, userId, endsAtMs }) => ({
          id,
          name,
          role: role as Role,
          isReset: userId !== null,
          endsAtMs,
        })),
        devices: devices.map(({ id, name, by, at }) => ({
          id,
          name,
          by: names.get(by) ?? by,
          at,
          isThis: id === deviceId,
        })),
      };
    },
    invite: (name: string, role: Role, by: string) => makeInvite({ userId: null, name, role, by }, inviteMs),
    async removeInvite(id: string) {
      const gone = await models.invites.destroy({ where: { id, usedAt: null } });
      if (gone === 0) throw new Failure("not-found", { what: "invitation", id });
    },
    /** Failure: `code-ended`. */
    async describeInvite(code: string) {
      const { userId, name, role } = await findInvite(code);
      const person = userId === null ? null : await find(userId);
      const { store } = await settings.read();
      return { store, name, role: role as Role, isReset: userId !== null, login: person?.login ?? null };
    },
    /** Takes an invitation, or sets a new password. Failure: `code-ended`, `login-taken`, `weak-password`. */
    async join(code: string, asked: { login?: string | undefined; password: string }): Promise<Account> {
      const { userId, name } = await findInvite(code);
      const before = userId === null ? null : await find(userId);
      const login = before?.login ?? asked.login;
      if (login === undefined)
        throw new Failure("invalid-input", { issues: [{ path: "login", message: "must be given" }] });
      const kept = await hash(asked.password, [login, name]);
      const account = await inTransaction(async (transaction) => {
        // Looked at once more: of two that come with one code, one is first.
        const invite = await findInvite(code, transaction);
        await models.invites.update(
          { usedAt: clock.now() },
          { where: { codeHash: invite.codeHash, usedAt: null }, transaction },
        );
        if (before === null) return addPerson({ login, name, role: invite.role as Role, kept }, transaction);
        await people.change(before.id, { kept }, transaction);
        return find(before.id, transaction);
      });
      await sessions.endAllOf(account.id);
      return account;
    },
    async change(
      id: string,
      { name, role, isOff, needsSecond }: Pick<Account, "name" | "role" | "isOff" | "needsSecond">,
    ) {
      await inTransaction(async (transaction) => {
        await find(id, transaction);
        if (role !== "owner" || isOff) await mustLeaveOwner(id, transaction);
        await people.change(id, { name, role, isOff, needsSecond }, transaction);
        if (isOff) await models.invites.destroy({ where: { userId: id, usedAt: null }, transaction });
      });
      sessions.forget(id);
      if (isOff) await sessions.endAllOf(id);
    },
    async setLanguage(id: string, language: Language) {
      await people.change(id, { language });
      sessions.forget(id);
    },
    /** For somebody who has lost their password or their second factor: a code to begin anew with. */
    async reset(id: string, by: string) {
      const { name, role } = await find(id);
      await models.invites.destroy({ where: { userId: id, usedAt: { [Op.is]: null } } });
      // Nobody knows it, also whoever has read or guessed the old one.
      const kept = await hashPassword(hasher, createToken(), cost);
      await people.change(id, { kept, second: null, recovery: [] });
      await sessions.endAllOf(id);
      return makeInvite({ userId: id, name, role, by }, resetMs);
    },
    async setPassword(account: Account, password: string, session: string) {
      const kept = await hash(password, [account.login, account.name]);
      await people.change(account.id, { kept });
      await sessions.endAllOf(account.id, session);
    },
    async beginSecond(account: Account) {
      const { store } = await settings.read();
      const secret = createSecret();
      pending.set(account.id, { secret, untilMs: clock.nowMs() + pendingMs });
      return { secret, address: describeSecret(secret, store, account.login) };
    },
    /** Failure: `wrong-code`. */
    async setSecond(account: Account, code: string) {
      const shown = pending.get(account.id);
      const nowMs = clock.nowMs();
      const step = shown === undefined || nowMs > shown.untilMs ? null : findStep(shown.secret, code, nowMs, 0);
      if (shown === undefined || step === null) throw new Failure("wrong-code");
      pending.delete(account.id);
      const recovery = createRecoveryCodes();
      await people.change(account.id, { second: shown.secret, secondStep: step, recovery: recovery.map(hashCode) });
      sessions.forget(account.id);
      return { recovery };
    },
    /** Failure: `second-missing` where the owner wants one of them. */
    async removeSecond(account: Account) {
      if (account.needsSecond) throw new Failure("second-missing");
      await people.change(account.id, { second: null, recovery: [] });
      sessions.forget(account.id);
    },
    /** Answers the tablet's token, for its cookie. */
    async admitDevice(name: string, by: string): Promise<string> {
      const token = createToken();
      const row = {
        tokenHash: hashToken(token),
        id: ulid(clock.nowMs()).toLowerCase(),
        name,
        by,
        at: clock.now(),
        endedAt: null,
      };
      await models.devices.create(row);
      return token;
    },
    async removeDevice(id: string) {
      const [changed] = await models.devices.update({ endedAt: clock.now() }, { where: { id, endedAt: null } });
      if (changed === 0) throw new Failure("not-found", { what: "tablet", id });
      await sessions.endAllOn(id);
    },
  };
}

export type StaffService = ReturnType<typeof createStaffService>;
