import type { Context } from "koa";
import { type RateLimiterAbstract, RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import type { Clock } from "../clock.ts";
import type { DeviceRow } from "../database/models.ts";
import type { Database } from "../database/open.ts";
import { readOne } from "../database/rows.ts";
import { Failure, passWhileStuck } from "../failure.ts";
import type { Audit } from "../repositories/audit.ts";
import { type Account, type People, readLogin } from "../repositories/people.ts";
import { hashToken, type Sessions } from "../repositories/sessions.ts";
import {
  describeDevice,
  dropSession,
  findDeviceToken,
  findToken,
  isKnown,
  listHeld,
  setKnown,
  setSession,
} from "../signIn/cookies.ts";
import {
  type Hasher,
  hashPassword,
  isPassword,
  isWeaker,
  type KeptPassword,
  type ScryptCost,
} from "../signIn/passwords.ts";
import type { Pins } from "../signIn/pins.ts";
import { findStep, hashCode } from "../signIn/secondFactor.ts";
import type { StoreKey } from "../storeKey.ts";

interface Parts {
  readonly database: Database;
  readonly people: People;
  readonly sessions: Sessions;
  readonly audit: Audit;
  readonly clock: Clock;
  readonly storeKey: StoreKey;
  readonly pins: Pins;
  readonly hasher: Hasher;
  readonly cost: ScryptCost;
}

const tenMinutesS = 600;
/** Wrong tries in ten minutes: of one name from one address, of one address, and of one name from anywhere. */
const mostTries = { ofPair: 10, ofAddress: 60, ofName: 40 } as const;

/** Signing in: who it is, how often they may try, and the session it begins. */
export function createSignInService(parts: Parts) {
  const { database, people, sessions, audit, clock, storeKey, pins, hasher, cost } = parts;
  const limit = (points: number) => new RateLimiterMemory({ points, duration: tenMinutesS });
  const limits = {
    pair: limit(mostTries.ofPair),
    address: limit(mostTries.ofAddress),
    name: limit(mostTries.ofName),
    code: limit(mostTries.ofAddress),
  };
  const nobodys: KeptPassword = { salt: "00".repeat(16), hash: "00".repeat(32), cost };

  /** A try counts before it is looked at: of a hundred that come at once only so many are. */
  async function takeTry(limiter: RateLimiterAbstract, key: string) {
    try {
      await limiter.consume(key);
    } catch (error) {
      if (error instanceof RateLimiterRes)
        throw new Failure("too-many-tries", { waitS: Math.ceil(error.msBeforeNext / 1000) });
      throw error;
    }
  }

  /** Whoever has signed in from this browser before has tries of their own, which nobody else can use up. */
  async function takeTries(ctx: Context, login: string, account: Account | null) {
    if (account !== null && isKnown(ctx, account.id, storeKey)) {
      const key = `known ${account.id}`;
      await takeTry(limits.pair, key);
      return () => limits.pair.delete(key);
    }
    const key = `${ctx.ip} ${login}`;
    await takeTry(limits.pair, key);
    await takeTry(limits.address, ctx.ip);
    await takeTry(limits.name, login);
    return async () => {
      await limits.pair.delete(key);
      await limits.address.reward(ctx.ip, 1);
      await limits.name.reward(login, 1);
    };
  }

  /** Steps of the moment's codes that were used while the disk took nothing, by whom. */
  const usedUnkept = new Map<string, number>();
  const findFreshStep = ({ id, second, secondStep }: Account, code: string) =>
    second === null
      ? null
      : findStep(second, code, clock.nowMs(), Math.max(secondStep, usedUnkept.get(id) ?? secondStep));

  /**
   * The second factor, where there is one: a code of the moment, or a recovery code, each once. Looked at and used up in one
   * transaction: of two who come with the same code at once the second finds it used. On a disk that takes nothing a code of the moment
   * is used up here; a recovery code, which lasts, is not taken.
   */
  async function checkSecond({ id, second }: Account, code: string | undefined) {
    if (second === null) return;
    if (code === undefined || code === "") throw new Failure("second-needed");
    const takeOnce = () =>
      database.inTransaction(async (t) => {
        const now = await people.find(id, t);
        if (now === null || now.second === null) throw new Failure("wrong-code");
        const step = findFreshStep(now, code);
        if (step !== null) {
          await people.change(id, { secondStep: step }, t);
          return false;
        }
        const used = hashCode(code);
        if (!now.recovery.includes(used)) throw new Failure("wrong-code");
        await people.change(id, { recovery: now.recovery.filter((hash) => hash !== used) }, t);
        return true;
      });
    const isRecovery = await takeOnce().catch(async (error: unknown) => {
      passWhileStuck(error);
      const now = await people.find(id);
      const step = now === null ? null : findFreshStep(now, code);
      if (step === null) throw error;
      usedUnkept.set(id, step);
      return false;
    });
    if (isRecovery) await note(await people.find(id), "Used a recovery code");
  }

  /** On a disk that takes nothing whoever may come in does so all the same: the server's log has it. */
  const note = (person: Pick<Account, "id" | "name"> | null, what: string, about = "") =>
    audit
      .add({ at: clock.now(), by: person?.id ?? "", name: person?.name ?? "", kind: "sign-in", what, about })
      .catch(passWhileStuck);

  async function findDevice(ctx: Context): Promise<DeviceRow | null> {
    const token = findDeviceToken(ctx);
    if (token === null) return null;
    const row = await readOne(database.models.devices, hashToken(token));
    return row === null || row.endedAt !== null ? null : row;
  }

  /**
   * A session on this browser. What it had before ends, but on a shared tablet, where each person has their own, and which is told what opens
   * it there; null elsewhere.
   */
  async function begin(ctx: Context, account: Account): Promise<string | null> {
    const device = await findDevice(ctx);
    for (const [person, token] of listHeld(ctx)) {
      // One that was begun before the tablet was shared has no PIN before it: it ends as soon as somebody else comes.
      const isBehindPin =
        device !== null && (await sessions.find(token, clock.nowMs()))?.session.deviceId === device.id;
      if (isBehindPin && person !== account.id) continue;
      await sessions.endByToken(token);
      if (person !== account.id) dropSession(ctx, person);
    }
    const { token, maxAgeMs, id } = await sessions.begin(account.id, clock.nowMs(), {
      device: device?.name ?? describeDevice(ctx),
      deviceId: device?.id ?? null,
    });
    setSession(ctx, account.id, token, maxAgeMs);
    setKnown(ctx, account.id, storeKey);
    await note(account, "Signed in", device?.name ?? "");
    return device === null ? null : pins.open(id);
  }

  return {
    findDevice,
    begin,
    /** Whose sessions this browser holds that still open something. */
    async listHeldNow(ctx: Context): Promise<string[]> {
      const held = await Promise.all(
        [...listHeld(ctx)].map(async ([person, token]) =>
          (await sessions.find(token, clock.nowMs())) === null ? null : person,
        ),
      );
      return held.filter((person) => person !== null);
    },
    /** Failure: `too-many-tries`, `wrong-sign-in`, `second-needed`, `wrong-code`, `busy`. */
    async signIn(
      ctx: Context,
      asked: { login: string; password: string; code?: string | undefined },
    ): Promise<{ readonly account: Account; readonly open: string | null }> {
      const login = readLogin(asked.login);
      const account = await people.findByLogin(login);
      const forgive = await takeTries(ctx, login, account);
      const isRight = await isPassword(hasher, asked.password, account?.kept ?? nobodys);
      if (account === null || account.isOff || !isRight) {
        // A name that nobody has may be a password typed into the wrong field: that is not kept.
        await note(null, "Wrong name or password", account === null ? "" : login);
        throw new Failure("wrong-sign-in");
      }
      try {
        await checkSecond(account, asked.code);
      } catch (error) {
        // A right password that only lacks its code is no wrong try.
        if (error instanceof Failure && error.code === "second-needed") await forgive();
        throw error;
      }
      await forgive();
      if (isWeaker(account.kept.cost, cost))
        await people
          .change(account.id, { kept: await hashPassword(hasher, asked.password, cost) })
          .catch(passWhileStuck);
      return { account, open: await begin(ctx, account) };
    },
    /** Failure: `wrong-password`, `too-many-tries`. Whoever is signed in says their password once more. */
    async confirm(account: Account, password: string) {
      const key = `confirm ${account.id}`;
      await takeTry(limits.pair, key);
      if (!(await isPassword(hasher, password, account.kept))) throw new Failure("wrong-password");
      await limits.pair.delete(key);
    },
    /** Codes are long, and yet not to be guessed for ever. Failure: `too-many-tries`. */
    takeCodeTry: (ctx: Context) => takeTry(limits.code, ctx.ip),
    async signOut(ctx: Context, person: Pick<Account, "id" | "name">) {
      const token = findToken(ctx);
      if (token !== null) await sessions.endByToken(token);
      dropSession(ctx, person.id);
      await note(person, "Signed out");
    },
  };
}

export type SignInService = ReturnType<typeof createSignInService>;
