import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ulid } from "ulid";
import type { Entry } from "../../core/walk/index.ts";
import { ask, passing, Refused, sendPhoto } from "../app/client.ts";
import { measureClock } from "./clock.ts";

interface KeptEntry {
  readonly entry: Entry;
  readonly sent: 0 | 1;
  /** It may have reached the server: from now on it must stay as it is. */
  readonly tried?: 0 | 1;
}
interface KeptPhoto {
  readonly id: string;
  readonly by: string;
  readonly bytes: ArrayBuffer;
  readonly type: string;
}
interface JournalSchema extends DBSchema {
  entries: { key: string; value: KeptEntry; indexes: { delivery: string; sent: number } };
  photos: { key: string; value: KeptPhoto };
}

export interface JournalStatus {
  /** Entries and photos that are only here. */
  readonly unsent: number;
  readonly lastSentAtMs: number | null;
  readonly hasSignal: boolean;
  /** What the server would not take; it stays on the tablet. */
  readonly refusal: Refused | null;
}

/** An entry without what the journal itself fills in. */
export type NewEntry = Entry extends infer E
  ? E extends Entry
    ? Omit<E, "id" | "at" | "device" | "by" | "delivery" | "clockMs">
    : never
  : never;

const firstWaitMs = 2000;
const longestWaitMs = 60_000;
const mostAtOnce = 200;
/** What the server has is kept here for as long, so that a walk opened without signal is whole. */
const keepDays = 45;
const dayMs = 86_400_000;

/**
 * What is done on this device: in memory at once, in IndexedDB next, then sent in order and stored once by the server.
 * Nothing leaves the device's store before the server has acknowledged it. What others enter comes in by `receive`.
 */
export function createJournal(deviceId: string) {
  const entries = new Map<string, Map<string, Entry>>();
  const unsent = new Map<string, Entry>();
  const tried = new Set<string>();
  const unsentPhotos = new Map<string, { by: string; file: Blob }>();
  const photoAddresses = new Map<string, string>();
  const listeners = new Set<() => void>();
  let lists = new Map<string, readonly Entry[]>();
  let status: JournalStatus = { unsent: 0, lastSentAtMs: null, hasSignal: navigator.onLine, refusal: null };
  let user: string | null = null;
  let waitMs = firstWaitMs;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;
  let isSignalBack = false;
  /** By how much this device's clock is behind the server's; null until it was asked. */
  let behindMs: number | null = null;
  const onSent = new Set<(delivery: string) => void>();

  const database: Promise<IDBPDatabase<JournalSchema>> = openDB<JournalSchema>("ravik", 2, {
    upgrade(db, from) {
      if (from < 1) {
        const store = db.createObjectStore("entries");
        store.createIndex("delivery", "entry.delivery");
        store.createIndex("sent", "sent");
      }
      if (from < 2) db.createObjectStore("photos");
    },
  });
  const tell = () => {
    for (const listener of listeners) listener();
  };
  const setStatus = (change: Partial<JournalStatus>) => {
    status = { ...status, ...change, unsent: unsent.size + unsentPhotos.size };
    tell();
  };
  const keep = (fresh: readonly Entry[]) => {
    const touched = new Set<string>();
    for (const entry of fresh) {
      const mine = entries.get(entry.delivery) ?? new Map<string, Entry>();
      mine.set(entry.id, entry);
      entries.set(entry.delivery, mine);
      touched.add(entry.delivery);
    }
    lists = new Map(lists);
    for (const delivery of touched) lists.set(delivery, [...entries.get(delivery)!.values()]);
  };
  const ready = database.then(async (db) => {
    const kept = await db.getAll("entries");
    const oldest = new Date(Date.now() - keepDays * dayMs).toISOString();
    keep(kept.filter(({ entry, sent }) => sent === 0 || entry.at > oldest).map(({ entry }) => entry));
    for (const { entry, sent, tried: wasTried } of kept) {
      if (sent === 0) unsent.set(entry.id, entry);
      if (sent === 0 && wasTried === 1) tried.add(entry.id);
      if (sent === 1 && entry.at <= oldest) await db.delete("entries", entry.id);
    }
    for (const { id, by, bytes, type } of await db.getAll("photos")) {
      const file = new Blob([bytes], { type });
      unsentPhotos.set(id, { by, file });
      photoAddresses.set(id, URL.createObjectURL(file));
    }
    setStatus({});
  });

  /** The same entry with its time put right by the server's clock, where this device's is off. */
  const correct = (entry: Entry): Entry => {
    if (behindMs === null || behindMs === 0 || entry.clockMs !== undefined) return entry;
    return { ...entry, at: new Date(Date.parse(entry.at) + behindMs).toISOString(), clockMs: behindMs };
  };

  /** Sends these; what is refused for good is answered, the rest is stored. */
  const sendBatch = async (delivery: string, batch: readonly Entry[], db: IDBPDatabase<JournalSchema>) => {
    const { stored, known } = await ask("addEntries", { params: { delivery }, body: { entries: [...batch] } });
    const done = new Set([...stored, ...known]);
    const transaction = db.transaction("entries", "readwrite");
    for (const entry of batch) {
      if (!done.has(entry.id)) continue;
      void transaction.store.put({ entry, sent: 1 }, entry.id);
      unsent.delete(entry.id);
    }
    await transaction.done;
    setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
    for (const listener of onSent) listener(delivery);
  };

  const sendEntries = async (db: IDBPDatabase<JournalSchema>): Promise<Refused | null> => {
    let refusal: Refused | null = null;
    const mine = [...unsent.values()].filter((entry) => entry.by === user).sort((a, b) => (a.id < b.id ? -1 : 1));
    if (mine.length > 0) behindMs = await measureClock();
    for (const delivery of new Set(mine.map((entry) => entry.delivery))) {
      const ofIt = mine.filter((entry) => entry.delivery === delivery);
      for (let i = 0; i < ofIt.length; i += mostAtOnce) {
        // Put right and into the device's store before it is sent: what was sent must be there, just so, to be sent again.
        const batch = ofIt.slice(i, i + mostAtOnce).map((entry) => (tried.has(entry.id) ? entry : correct(entry)));
        const transaction = db.transaction("entries", "readwrite");
        for (const entry of batch) void transaction.store.put({ entry, sent: 0, tried: 1 }, entry.id);
        await transaction.done;
        const corrected = batch.filter((entry) => unsent.get(entry.id) !== entry);
        for (const entry of batch) {
          tried.add(entry.id);
          unsent.set(entry.id, entry);
        }
        // Only what has changed: every list that is kept anew is folded and shown anew.
        if (corrected.length > 0) keep(corrected);
        try {
          await sendBatch(delivery, batch, db);
        } catch (error) {
          if (!(error instanceof Refused) || passing.has(error.code)) throw error;
          // One of them is not taken: the others must not wait for it.
          if (batch.length === 1) refusal = error;
          else refusal = (await sendOneByOne(delivery, batch, db)) ?? refusal;
        }
      }
    }
    return refusal;
  };
  const sendOneByOne = async (delivery: string, batch: readonly Entry[], db: IDBPDatabase<JournalSchema>) => {
    let refusal: Refused | null = null;
    for (const entry of batch) {
      try {
        await sendBatch(delivery, [entry], db);
      } catch (error) {
        if (!(error instanceof Refused) || passing.has(error.code)) throw error;
        refusal = error;
      }
    }
    return refusal;
  };
  /** Photos go two at a time: while one is on its way the server makes the other fit to keep. */
  const sendPhotos = async (db: IDBPDatabase<JournalSchema>): Promise<Refused | null> => {
    const waiting = [...unsentPhotos].filter(([, { by }]) => by === user).sort(([a], [b]) => (a < b ? -1 : 1));
    let refusal: Refused | null = null;
    const sendNext = async (): Promise<void> => {
      for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
        const [id, { file }] = next;
        try {
          await sendPhoto(id, file);
        } catch (error) {
          if (!(error instanceof Refused) || passing.has(error.code)) throw error;
          refusal = error;
          // It will never be taken: what names it is taken back, so that nothing waits for it.
          await takeBack(id);
        }
        await db.delete("photos", id);
        unsentPhotos.delete(id);
        setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
      }
    };
    await Promise.all([sendNext(), sendNext()]);
    return refusal;
  };
  const takeBack = async (photo: string) => {
    for (const [delivery, mine] of entries)
      for (const entry of mine.values())
        if (entry.kind === "photo" && entry.photo === photo) await add(delivery, { kind: "undo", ref: entry.id });
  };
  const sendOnce = async () => {
    await ready;
    const db = await database;
    const entryRefusal = await sendEntries(db);
    const photoRefusal = await sendPhotos(db);
    const refusal = entryRefusal ?? photoRefusal;
    setStatus({ refusal });
    // What came in while this was sent goes now; what was refused waits.
    if (refusal !== null) throw refusal;
  };
  const isOwed = () =>
    [...unsent.values()].some((entry) => entry.by === user) || [...unsentPhotos.values()].some(({ by }) => by === user);
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
        const isNow = isSignalBack || waitMs === firstWaitMs;
        isSignalBack = false;
        if (isOwed()) timer = setTimeout(send, isNow ? 0 : waitMs);
      });
    return sending;
  };
  window.addEventListener("online", () => {
    // A try that is under way may have failed already for want of signal.
    isSignalBack = sending !== null;
    void send();
  });
  window.addEventListener("offline", () => setStatus({ hasSignal: false }));
  const mustBeSomebody = (): string => {
    if (user === null) throw new Error("journal: expected somebody signed in, got nobody");
    return user;
  };

  /** Writes an entry down. It counts at once; the promise resolves when it is in the device's store. */
  async function add(delivery: string, entry: NewEntry): Promise<Entry> {
    const by = mustBeSomebody();
    const nowMs = Date.now();
    const whole = correct({
      ...entry,
      id: ulid(nowMs),
      delivery,
      at: new Date(nowMs).toISOString(),
      by,
      device: deviceId,
    } as Entry);
    keep([whole]);
    unsent.set(whole.id, whole);
    setStatus({});
    const db = await database;
    // Sent meanwhile, it must not be put down as unsent again.
    if (!tried.has(whole.id)) await db.put("entries", { entry: whole, sent: 0 }, whole.id);
    void send();
    return whole;
  }

  return {
    ready,
    getStatus: () => status,
    listOf: (delivery: string): readonly Entry[] => lists.get(delivery) ?? none,
    /** Where a photo can be seen that has not been sent yet, or was sent since this page was opened; null else. */
    findPhoto: (photo: string): string | null => photoAddresses.get(photo) ?? null,
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
    add,
    /** Keeps a photo here under an id of its own, to be sent like everything else. Resolves when it is in the store. */
    async addPhoto(file: Blob): Promise<string> {
      const by = mustBeSomebody();
      const id = ulid().toLowerCase();
      // Bytes, not the file: a file is only a pointer to where the camera put it, and that may be gone by tomorrow.
      const bytes = await file.arrayBuffer();
      const db = await database;
      await db.put("photos", { id, by, bytes, type: file.type }, id);
      const kept = new Blob([bytes], { type: file.type });
      unsentPhotos.set(id, { by, file: kept });
      photoAddresses.set(id, URL.createObjectURL(kept));
      setStatus({});
      void send();
      return id;
    },
    /** Takes in what others entered, as the server tells it. */
    async receive(fresh: readonly Entry[]): Promise<void> {
      const news = fresh.filter(({ id, delivery }) => !unsent.has(id) && !entries.get(delivery)?.has(id));
      if (news.length === 0) return;
      keep(news);
      tell();
      const db = await database;
      const transaction = db.transaction("entries", "readwrite");
      for (const entry of news) void transaction.store.put({ entry, sent: 1 }, entry.id);
      await transaction.done;
    },
    /** Sends what is owed now; resolves when the server has it all, rejects with what stands in the way. */
    async sendAll(): Promise<void> {
      await send();
      if (isOwed()) await send();
      if (isOwed()) throw status.refusal ?? new Refused({ code: "no-signal" });
    },
  };
}

const none: readonly Entry[] = [];

export type Journal = ReturnType<typeof createJournal>;
