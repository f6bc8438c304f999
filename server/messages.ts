import type { MessageLine } from "../api/index.ts";
import type { Instant } from "../core/dates/index.ts";
import { toPlainLetters } from "../core/text/index.ts";
import type { MessageRow } from "./database/models.ts";
import type { Database, Transaction } from "./database/open.ts";
import { readAll, readOne, readQuery } from "./database/rows.ts";
import { Failure } from "./failure.ts";

export interface Message {
  /** Sent once under one id, however often it is asked for. */
  readonly id: string;
  /** The handover it is about; null for a boat handed over before this store kept records. */
  readonly deliveryId: string | null;
  readonly boatId: string;
  /** What it is about: `note`, `link`, `ask-hours`, `service`, `call` … */
  readonly kind: string;
  readonly recipient: string;
  readonly text: string;
  /** What of the text is told to the buyer alone and never kept, such as the token of a private link. */
  readonly secret?: string;
  readonly at: Instant;
}

/** What carries messages to people's phones. A real one is put in its place here; the demo has one that pretends. */
export interface Carrier {
  /** What became of a message it was given a while ago. */
  settle(hasPhone: boolean): "delivered" | "failed";
}

/** What is written to buyers and what became of it. */
export interface Messages {
  /** Whether something carries them; else they are made ready for people to send. */
  readonly isCarried: boolean;
  send(message: Message, transaction: Transaction): Promise<void>;
  /** Kept until it may be sent: what was written in quiet hours. */
  hold(message: Message, transaction: Transaction): Promise<void>;
  listHeld(): Promise<MessageRow[]>;
  /** A call that was made: it is kept with the messages, answered. */
  noteCall(message: Message, transaction: Transaction): Promise<void>;
  /** What became of those under way: `listReached` says of which boats the people can be reached. */
  settle(
    listReached: (boatIds: readonly string[]) => Promise<ReadonlySet<string>>,
    transaction: Transaction,
  ): Promise<number>;
  /** They have answered the last message of this kind. */
  noteAnswer(boatId: string, kind: string, answer: string, transaction: Transaction): Promise<void>;
  /** What became of each of these; of one that is not kept nothing is answered. */
  findStates(ids: readonly string[]): Promise<Map<string, MessageLine["state"]>>;
  find(id: string, transaction?: Transaction): Promise<MessageRow | null>;
  /** Somebody has sent by hand what was ready. */
  markSent(id: string, transaction: Transaction): Promise<void>;
  listOf(deliveryId: string): Promise<MessageLine[]>;
  listOfBoat(boatId: string): Promise<MessageLine[]>;
  /** The last of each boat. */
  listLast(): Promise<Map<string, MessageLine>>;
  /** When the people of each boat were last reached, ISO 8601: what failed or waits is no contact, nor is a note about a promise. */
  listContacts(): Promise<Map<string, Instant>>;
  /** What waits or is ready is not sent any more. */
  stop(id: string, transaction: Transaction): Promise<void>;
  listAll(): Promise<MessageRow[]>;
  countFailed(): Promise<number>;
  /** A page of all of them, the last first, whose boat, people or words hold `find`; with how many there are of each state. */
  listPage(asked: MessagePage): Promise<{ rows: MessageRow[]; states: Readonly<Record<string, number>> }>;
}

export interface MessagePage {
  readonly find: string;
  readonly state: string | null;
  readonly from: number;
  readonly limit: number;
}

/** How many messages are looked through at once. */
const batch = 5000;
const lastFirst: [string, string][] = [
  ["at", "DESC"],
  ["id", "DESC"],
];

const toLine = ({ deliveryId: _, boatId: __, ...row }: MessageRow) => row as MessageLine;

/**
 * Messages are kept in the table `outbox`, where people can read them. With a carrier one is sent at once; without, it is
 * ready: somebody sends it by hand and says so, and nothing claims that it was sent before. While `isHeld` all of them wait.
 */
export function createMessages(
  { models }: Database,
  carrier: Carrier | null,
  isHeld: (transaction: Transaction) => Promise<boolean> = async () => false,
): Messages {
  /** Once under one id: the same again is acknowledged, anything else refused. What waited goes on from there. */
  const keep = async ({ secret, ...message }: Message, state: string, transaction: Transaction) => {
    const text = secret === undefined ? message.text : message.text.replaceAll(secret, "…");
    const before = await readOne(models.messages, message.id, transaction);
    if (before !== null && before.state !== "waiting") {
      if (before.boatId === message.boatId && before.kind === message.kind && before.text === text) return;
      throw new Failure("message-differs", { id: message.id });
    }
    await models.messages.upsert({ ...message, text, state, answer: null }, { transaction });
  };
  /** Which hold the words: by all letters there are, of which SQLite knows only A to Z. A batch at a time, the last first. */
  const findSaid = async (words: string, { state, from, limit }: Omit<MessagePage, "find">) => {
    const states: Record<string, number> = {};
    const ids: string[] = [];
    let passed = 0;
    for (let offset = 0; ; offset += batch) {
      const rows = await readQuery<{ id: string; state: string; said: string }>(
        models.messages,
        `SELECT outbox.id AS id, outbox.state AS state,
           outbox.recipient || char(10) || outbox.text || char(10) || boats.name || char(10) || boats.hull AS said
         FROM outbox JOIN boats ON boats.id = outbox.boatId ORDER BY outbox.at DESC, outbox.id DESC LIMIT ? OFFSET ?`,
        [batch, offset],
      );
      for (const row of rows) {
        if (!toPlainLetters(row.said).includes(words)) continue;
        states[row.state] = (states[row.state] ?? 0) + 1;
        if (state !== null && row.state !== state) continue;
        if (passed >= from && ids.length < limit) ids.push(row.id);
        passed++;
      }
      if (rows.length < batch) return { states, ids };
    }
  };
  return {
    isCarried: carrier !== null,
    async send(message, transaction) {
      const state = carrier === null ? "ready" : "sent";
      await keep(message, (await isHeld(transaction)) ? "waiting" : state, transaction);
    },
    hold: (message, transaction) => keep(message, "waiting", transaction),
    listHeld: () => readAll(models.messages, { where: { state: "waiting" }, order: ["at"], limit: 200 }),
    noteCall: (message, transaction) => keep(message, "answered", transaction),
    async findStates(ids) {
      const rows = ids.length === 0 ? [] : await readAll(models.messages, { where: { id: [...ids] } });
      return new Map(rows.map(({ id, state }) => [id, state as MessageLine["state"]]));
    },
    find: (id, transaction) => readOne(models.messages, id, transaction),
    async markSent(id, transaction) {
      await models.messages.update({ state: "sent" }, { where: { id, state: "ready" }, transaction });
    },
    async settle(listReached, transaction) {
      if (carrier === null) return 0;
      const sent = await readAll(models.messages, { where: { state: "sent" }, order: ["at"], limit: 200 }, transaction);
      if (sent.length === 0) return 0;
      const reached = await listReached(sent.map(({ boatId }) => boatId));
      for (const { id, boatId } of sent) {
        const state = carrier.settle(reached.has(boatId));
        await models.messages.update({ state }, { where: { id }, transaction });
      }
      return sent.length;
    },
    async noteAnswer(boatId, kind, answer, transaction) {
      const rows = await readAll(
        models.messages,
        { where: { boatId, kind }, order: [["at", "DESC"]], limit: 1 },
        transaction,
      );
      const [last] = rows;
      if (last !== undefined && last.answer === null)
        await models.messages.update({ state: "answered", answer }, { where: { id: last.id }, transaction });
    },
    listOf: async (deliveryId) =>
      (await readAll(models.messages, { where: { deliveryId }, order: ["at"] })).map(toLine),
    listOfBoat: async (boatId) =>
      (await readAll(models.messages, { where: { boatId }, order: [["at", "DESC"]] })).map(toLine),
    async listLast() {
      const rows = await readQuery<MessageRow>(
        models.messages,
        "SELECT * FROM (SELECT *, ROW_NUMBER() OVER (PARTITION BY boatId ORDER BY at DESC) AS place FROM outbox) WHERE place = 1",
      );
      return new Map(rows.map(({ place: _, ...row }: MessageRow & { place?: number }) => [row.boatId, toLine(row)]));
    },
    async listContacts() {
      const rows = await readQuery<{ boatId: string; at: Instant }>(
        models.messages,
        `SELECT boatId, MAX(at) AS at FROM outbox
         WHERE kind <> 'note' AND state IN ('sent', 'delivered', 'answered') GROUP BY boatId`,
      );
      return new Map(rows.map(({ boatId, at }) => [boatId, at]));
    },
    async stop(id, transaction) {
      const state = ["waiting", "ready"];
      await models.messages.update({ state: "stopped" }, { where: { id, state }, transaction });
    },
    countFailed: () => models.messages.count({ where: { state: "failed" } }),
    async listPage({ find, state, from, limit }) {
      const words = toPlainLetters(find.trim());
      if (words !== "") {
        const { states, ids } = await findSaid(words, { state, from, limit });
        const found = await readAll(models.messages, { where: { id: ids } });
        const byId = new Map(found.map((row) => [row.id, row]));
        return { rows: ids.flatMap((id) => byId.get(id) ?? []), states };
      }
      const counted = await readQuery<{ state: string; n: number }>(
        models.messages,
        "SELECT state, COUNT(*) AS n FROM outbox GROUP BY state",
      );
      const where = state === null ? {} : { state };
      const rows = await readAll(models.messages, { where, order: lastFirst, limit, offset: from });
      return { rows, states: Object.fromEntries(counted.map(({ state: each, n }) => [each, n])) };
    },
    listAll: () => readAll(models.messages, { order: ["at"] }),
  };
}
