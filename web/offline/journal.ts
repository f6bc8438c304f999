import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ulid } from "ulid";
import type { Entry } from "../../core/walk/index.ts";
import { ask, Refused } from "../app/client.ts";

interface JournalSchema extends DBSchema {
  entries: { key: string; value: { entry: Entry; sent: 0 | 1 }; indexes: { delivery: string; sent: number } };
}

export interface JournalStatus {
  readonly unsent: number;
  readonly lastSentAtMs: number | null;
  readonly hasSignal: boolean;
  /** What the server would not take; it stays on the tablet. */
  readonly refusal: Refused | null;
}

/** An entry without what the journal itself fills in. */
export type NewEntry = Entry extends infer E
  ? E extends Entry
    ? Omit<E, "id" | "at" | "device" | "by" | "delivery">
    : never
  : never;

const firstWaitMs = 2000;
const longestWaitMs = 60_000;
const mostAtOnce = 200;

/**
 * What is marked on this device: in memory at once, in IndexedDB next, then sent in order and stored once by the server.
 * Nothing leaves the device's store before the server has acknowledged it.
 */
export function createJournal(deviceId: string) {
  const entries = new Map<string, Map<string, Entry>>();
  const unsent = new Map<string, Entry>();
  const listeners = new Set<() => void>();
  let lists = new Map<string, readonly Entry[]>();
  let status: JournalStatus = { unsent: 0, lastSentAtMs: null, hasSignal: navigator.onLine, refusal: null };
  let user: string | null = null;
  let waitMs = firstWaitMs;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;
  const onSent = new Set<(delivery: string) => void>();

  const database: Promise<IDBPDatabase<JournalSchema>> = openDB<JournalSchema>("ravik", 1, {
    upgrade(db) {
      const store = db.createObjectStore("entries");
      store.createIndex("delivery", "entry.delivery");
      store.createIndex("sent", "sent");
    },
  });
  const tell = () => {
    for (const listener of listeners) listener();
  };
  const setStatus = (change: Partial<JournalStatus>) => {
    status = { ...status, ...change, unsent: unsent.size };
    tell();
  };
  const keep = (entry: Entry) => {
    const mine = entries.get(entry.delivery) ?? new Map<string, Entry>();
    mine.set(entry.id, entry);
    entries.set(entry.delivery, mine);
    lists = new Map(lists).set(entry.delivery, [...mine.values()]);
  };
  const ready = database.then(async (db) => {
    for (const { entry, sent } of await db.getAll("entries")) {
      keep(entry);
      if (sent === 0) unsent.set(entry.id, entry);
    }
    setStatus({});
  });

  const sendOnce = async () => {
    await ready;
    const db = await database;
    const mine = [...unsent.values()].filter((entry) => entry.by === user).sort((a, b) => (a.id < b.id ? -1 : 1));
    const deliveries = [...new Set(mine.map((entry) => entry.delivery))];
    for (const delivery of deliveries) {
      const batch = mine.filter((entry) => entry.delivery === delivery).slice(0, mostAtOnce);
      // An entry is put into the device's store before it is sent: what was sent must be there to be marked as sent.
      await Promise.all(batch.map((entry) => db.put("entries", { entry, sent: 0 }, entry.id)));
      const { stored, known } = await ask("addEntries", { params: { delivery }, body: { entries: batch } });
      const done = new Set([...stored, ...known]);
      for (const entry of batch) {
        if (!done.has(entry.id)) continue;
        await db.put("entries", { entry, sent: 1 }, entry.id);
        unsent.delete(entry.id);
      }
      setStatus({ lastSentAtMs: Date.now(), hasSignal: true, refusal: null });
      for (const listener of onSent) listener(delivery);
    }
  };
  const send = () => {
    clearTimeout(timer);
    sending ??= sendOnce()
      .then(() => {
        waitMs = firstWaitMs;
      })
      .catch((error: unknown) => {
        const isSignal = error instanceof Refused && error.code === "no-signal";
        setStatus({ hasSignal: !isSignal, refusal: isSignal || !(error instanceof Refused) ? null : error });
        waitMs = Math.min(longestWaitMs, waitMs * 2);
      })
      .finally(() => {
        sending = null;
        const isOwed = [...unsent.values()].some((entry) => entry.by === user);
        if (isOwed) timer = setTimeout(send, waitMs === firstWaitMs ? 0 : waitMs);
      });
    return sending;
  };
  window.addEventListener("online", () => void send());
  window.addEventListener("offline", () => setStatus({ hasSignal: false }));

  return {
    ready,
    getStatus: () => status,
    listOf: (delivery: string): readonly Entry[] => lists.get(delivery) ?? none,
    subscribe(listener: () => void) {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    onSent(listener: (delivery: string) => void) {
      onSent.add(listener);
      return () => {
        onSent.delete(listener);
      };
    },
    /** Whose entries are made and sent from now on; null after sign-out. */
    setUser(id: string | null) {
      user = id;
      if (id !== null) void send();
    },
    /** Writes an entry down. It counts at once; the promise resolves when it is in the device's store. */
    async add(delivery: string, entry: NewEntry): Promise<Entry> {
      if (user === null) throw new Error("journal: expected somebody signed in, got nobody");
      const nowMs = Date.now();
      const whole = {
        ...entry,
        id: ulid(nowMs),
        delivery,
        at: new Date(nowMs).toISOString(),
        by: user,
        device: deviceId,
      } as Entry;
      keep(whole);
      unsent.set(whole.id, whole);
      setStatus({});
      const db = await database;
      await db.put("entries", { entry: whole, sent: 0 }, whole.id);
      void send();
      return whole;
    },
    /** Sends what is owed now; resolves when the server has it all, rejects with what stands in the way. */
    async sendAll(): Promise<void> {
      await send();
      if (unsent.size > 0) await send();
      if (unsent.size > 0) throw status.refusal ?? new Refused({ code: "no-signal" });
    },
  };
}

const none: readonly Entry[] = [];

export type Journal = ReturnType<typeof createJournal>;
