import { createHash, randomBytes } from "node:crypto";
import { LRUCache } from "lru-cache";
import { Op } from "sequelize";
import { ulid } from "ulid";
import type { SessionRow } from "../database/models.ts";
import type { Database } from "../database/open.ts";
import { readAll } from "../database/rows.ts";
import { passWhileStuck } from "../failure.ts";
import { type People, type Person, toPerson } from "./people.ts";

const hourMs = 3_600_000;
const dayMs = 24 * hourMs;
/** A working day on the dock, without signal too, and no more. On an admitted tablet a PIN stands before each session. */
const lifetimes = {
  ofPerson: { idleMs: 12 * hourMs, wholeMs: dayMs },
  onDevice: { idleMs: 14 * dayMs, wholeMs: 60 * dayMs },
} as const;
const rememberMs = 20_000;
const mostRemembered = 2000;
/** How far `seenAtMs` may be behind: a write for every question would be too many. */
const seenEveryMs = 300_000;

export const hashToken = (token: string): string => createHash("sha256").update(token).digest("hex");
export const createToken = (): string => randomBytes(32).toString("base64url");

export interface Session {
  readonly id: string;
  readonly userId: string;
  /** What it is used with, in words. */
  readonly device: string;
  readonly deviceId: string | null;
  /** On a shared tablet, the public half of the key that its PIN unlocks there; null before one was chosen. */
  readonly pinKey: string | null;
  readonly beganAtMs: number;
  readonly seenAtMs: number;
  readonly endsAtMs: number;
}

/** Who is signed in where. Tokens are kept hashed. */
export function createSessions({ models }: Database, people: People) {
  // Every request asks who it is from: answers are remembered for a moment, and forgotten at once when something ends.
  const remembered = new LRUCache<string, { person: Person; session: Session; untilMs: number }>({
    max: mostRemembered,
  });
  const enders = new Map<string, Set<() => void>>();
  const isOver = (row: SessionRow, nowMs: number) => nowMs >= row.endsAtMs || nowMs >= row.seenAtMs + row.idleMs;
  // While the disk takes nothing people still come in to read, and go: what began and ended then is known here, until the server stops.
  const unkept = new LRUCache<string, SessionRow>({ max: mostRemembered });
  const endedUnkept = new Set<string>();
  const readRows = async (where: Partial<SessionRow>): Promise<SessionRow[]> => {
    const rows = await readAll(models.sessions, { where, order: ["seenAtMs"] });
    const isMeant = (row: SessionRow) =>
      Object.entries(where).every(([name, value]) => row[name as keyof SessionRow] === value);
    return [...rows, ...[...unkept.values()].filter(isMeant)].filter(({ id }) => !endedUnkept.has(id));
  };
  const endRows = async (rows: readonly SessionRow[]) => {
    const ids = rows.map(({ id }) => id);
    for (const { tokenHash } of rows) {
      remembered.delete(tokenHash);
      unkept.delete(tokenHash);
    }
    await models.sessions.destroy({ where: { id: { [Op.in]: ids } } }).catch((error: unknown) => {
      passWhileStuck(error);
      for (const id of ids) endedUnkept.add(id);
    });
    for (const id of ids) for (const end of enders.get(id) ?? []) end();
  };
  return {
    /** `deviceId`: an admitted tablet, on which a session lasts longer. Where nothing can be stored it lasts as long as the server runs. */
    async begin(userId: string, nowMs: number, on: { device: string; deviceId: string | null }) {
      const token = createToken();
      const { idleMs, wholeMs } = on.deviceId === null ? lifetimes.ofPerson : lifetimes.onDevice;
      const over = await readRows({ userId });
      await endRows(over.filter((row) => isOver(row, nowMs)));
      const row: SessionRow = {
        tokenHash: hashToken(token),
        id: ulid(nowMs).toLowerCase(),
        userId,
        ...on,
        pinKey: null,
        beganAtMs: nowMs,
        seenAtMs: nowMs,
        idleMs,
        endsAtMs: nowMs + wholeMs,
      };
      await models.sessions.create({ ...row }).catch((error: unknown) => {
        passWhileStuck(error);
        unkept.set(row.tokenHash, row);
      });
      return { token, maxAgeMs: wholeMs, id: row.id };
    },
    async setPinKey(id: string, pinKey: string) {
      await models.sessions.update({ pinKey }, { where: { id } });
      for (const [key, row] of unkept.entries()) if (row.id === id) unkept.set(key, { ...row, pinKey });
      for (const [key, { session }] of remembered.entries()) if (session.id === id) remembered.delete(key);
    },
    async find(token: string, nowMs: number): Promise<{ person: Person; session: Session } | null> {
      const key = hashToken(token);
      const known = remembered.get(key);
      if (known !== undefined && nowMs < known.untilMs) return known;
      const [row = null] = await readRows({ tokenHash: key });
      if (row === null || isOver(row, nowMs)) return null;
      const account = await people.find(row.userId);
      if (account === null || account.isOff) return null;
      if (nowMs - row.seenAtMs > seenEveryMs)
        await models.sessions.update({ seenAtMs: nowMs }, { where: { tokenHash: key } }).catch(passWhileStuck);
      const found = { person: toPerson(account), session: toSession(row), untilMs: nowMs + rememberMs };
      remembered.set(key, found);
      return found;
    },
    async listOf(userId: string, nowMs: number): Promise<Session[]> {
      const rows = (await readRows({ userId })).toSorted((a, b) => b.seenAtMs - a.seenAtMs);
      return rows.filter((row) => !isOver(row, nowMs)).map(toSession);
    },
    /** Since when each of the store's people was last here. */
    async listLast(): Promise<ReadonlyMap<string, number>> {
      const rows = await readAll(models.sessions, { order: ["seenAtMs"] });
      return new Map(rows.map(({ userId, seenAtMs }) => [userId, seenAtMs]));
    },
    async endByToken(token: string) {
      await endRows(await readRows({ tokenHash: hashToken(token) }));
    },
    async end(id: string, userId: string): Promise<boolean> {
      const rows = await readRows({ id, userId });
      await endRows(rows);
      return rows.length > 0;
    },
    async endAllOf(userId: string, but: string | null = null) {
      const rows = await readRows({ userId });
      await endRows(rows.filter(({ id }) => id !== but));
    },
    async endAllOn(deviceId: string) {
      await endRows(await readRows({ deviceId }));
    },
    /** What was read of a person is read anew. */
    forget(userId: string) {
      for (const [key, { person }] of remembered.entries()) if (person.id === userId) remembered.delete(key);
    },
    /** Called once the session ends, with what it keeps open. Answers its own undo. */
    onEnd(id: string, end: () => void): () => void {
      const mine = enders.get(id) ?? new Set();
      mine.add(end);
      enders.set(id, mine);
      return () => {
        mine.delete(end);
        if (mine.size === 0) enders.delete(id);
      };
    },
  };
}

export type Sessions = ReturnType<typeof createSessions>;

const toSession = ({ id, userId, device, deviceId, pinKey, beganAtMs, seenAtMs, endsAtMs }: SessionRow): Session => ({
  id,
  userId,
  device,
  deviceId,
  pinKey,
  beganAtMs,
  seenAtMs,
  endsAtMs,
});
