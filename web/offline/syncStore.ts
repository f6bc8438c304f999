import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Acknowledged, ErrorBody } from "../../api/index.ts";
import type { Entry } from "../../core/walk/index.ts";

export interface KeptEntry {
  readonly entry: Entry;
  readonly sent: 0 | 1;
  /** It may have reached the server: from now on it must stay as it is. */
  readonly tried?: 0 | 1;
  /** On a shared tablet, its author's word for it. */
  readonly proof?: string;
}
export interface KeptPhoto {
  readonly id: string;
  readonly by: string;
  readonly bytes: ArrayBuffer;
  readonly type: string;
  readonly proof?: string;
}
/** What is written apart from a walk: hours, runs, fuel. */
export interface KeptPost {
  readonly id: string;
  readonly name: string;
  readonly params: Readonly<Record<string, string>>;
  readonly body: unknown;
  readonly about: string;
  readonly says: string;
  readonly by: string | null;
  readonly refusal: ErrorBody["error"] | null;
}
/** What others had entered when the first signature of a handover was given on this device. */
export interface Sitting {
  readonly delivery: string;
  readonly seen: readonly string[];
}
interface SyncSchema extends DBSchema {
  entries: { key: string; value: KeptEntry };
  photos: { key: string; value: KeptPhoto };
  posts: { key: string; value: KeptPost };
  sittings: { key: string; value: Sitting };
  /** The names of those who have unsent work here, by their ids. */
  names: { key: string; value: string };
  /** What is known of the server, by name: `epoch`, which the store was in when this device last spoke to it. */
  facts: { key: string; value: string };
}
export type SyncTable = "entries" | "photos" | "posts" | "sittings" | "names" | "facts";
/** One change of the device's store: a value put under a key, or what is there taken away. */
export type SyncChange = {
  [T in SyncTable]: readonly [table: T, key: string, value: SyncSchema[T]["value"] | null];
}[SyncTable];

export interface Loaded {
  readonly entries: readonly KeptEntry[];
  readonly photos: readonly KeptPhoto[];
  readonly posts: readonly KeptPost[];
  readonly sittings: readonly Sitting[];
  readonly names: ReadonlyMap<string, string>;
  /** The store's epoch as this device last saw it; null while it never has. */
  readonly epoch: string | null;
  /** The most that the store acknowledged to this device. */
  readonly acknowledged: Acknowledged | null;
}

const tables: readonly SyncTable[] = ["entries", "photos", "posts", "sittings", "names", "facts"];
const nothing: Loaded = {
  entries: [],
  photos: [],
  posts: [],
  sittings: [],
  names: new Map(),
  epoch: null,
  acknowledged: null,
};
/** What cannot be read says nothing. */
function readAcknowledged(kept: string | undefined): Acknowledged | null {
  try {
    return kept === undefined ? null : (JSON.parse(kept) as Acknowledged);
  } catch {
    return null;
  }
}

/**
 * The device's own store of what is not at the yard yet. Where it fails (no room, a private window, a browser that put it
 * away) nothing throws: `write` answers false, what is written lives in memory alone, and `fault` says so.
 */
export function createSyncStore() {
  let fault: string | null = null;
  let isAsked = false;
  const fail = (error: unknown) => {
    fault = error instanceof Error ? error.name : "unknown";
  };
  const open = (): Promise<IDBPDatabase<SyncSchema>> =>
    openDB<SyncSchema>("ravik-sync", 2, {
      upgrade(db) {
        for (const table of tables) if (!db.objectStoreNames.contains(table)) db.createObjectStore(table);
      },
      // Another tab with a newer app must not wait for this one.
      blocking: (_, __, event) => (event.target as IDBDatabase).close(),
    });
  // Opened anew when the browser has closed it behind our back (eviction, a newer version elsewhere).
  let database: Promise<IDBPDatabase<SyncSchema>> | null = null;
  const getDatabase = () => {
    database ??= open().catch((error: unknown) => {
      database = null;
      throw error;
    });
    return database;
  };
  const askToStay = () => {
    if (isAsked) return;
    isAsked = true;
    // Without it a browser that is short of room may put away what was never sent.
    void navigator.storage?.persist?.().catch(() => false);
  };

  return {
    /** Why what is written here is in memory alone; null while the store keeps it. */
    getFault: () => fault,
    /** All that is kept, what older versions of the app left behind among it. */
    async load(): Promise<Loaded> {
      try {
        await drainOld((changes) => put(changes));
        const db = await getDatabase();
        const [entries, photos, posts, sittings, nameKeys, names, epoch, acknowledged] = await Promise.all([
          db.getAll("entries"),
          db.getAll("photos"),
          db.getAll("posts"),
          db.getAll("sittings"),
          db.getAllKeys("names"),
          db.getAll("names"),
          db.get("facts", "epoch"),
          db.get("facts", "acknowledged"),
        ]);
        const byId = new Map(nameKeys.map((key, i) => [key, names[i]!]));
        return {
          entries,
          photos,
          posts,
          sittings,
          names: byId,
          epoch: epoch ?? null,
          acknowledged: readAcknowledged(acknowledged),
        };
      } catch (error) {
        fail(error);
        return nothing;
      }
    },
    /** Makes these changes together. False when the store does not keep them. */
    async write(changes: readonly SyncChange[]): Promise<boolean> {
      if (changes.length === 0) return fault === null;
      try {
        await put(changes);
        askToStay();
        fault = null;
        return true;
      } catch (error) {
        database = null;
        fail(error);
        return false;
      }
    },
  };

  async function put(changes: readonly SyncChange[]): Promise<void> {
    const db = await getDatabase();
    const transaction = db.transaction([...new Set(changes.map(([table]) => table))], "readwrite");
    const writes = changes.map(([table, key, value]) => {
      const store = transaction.objectStore(table);
      return value === null ? store.delete(key) : store.put(value as never, key);
    });
    // Asked for now, it happens without this page: a tab that is killed the moment after a mark has kept it.
    transaction.commit();
    await Promise.all([...writes, transaction.done]);
  }
}

export type SyncStore = ReturnType<typeof createSyncStore>;

/** The databases of the versions before, and where what they hold goes. */
const oldDatabases = [
  { name: "ravik", version: 2, stores: { entries: "entries", photos: "photos" } },
  { name: "ravik-letters", version: 1, stores: { letters: "posts" } },
] as const;

/**
 * Brings over what the app's older versions kept here, at every start: an old page may still be open in another tab. Taken
 * out there only when it stands here.
 */
async function drainOld(put: (changes: SyncChange[]) => Promise<void>): Promise<void> {
  const known = await indexedDB.databases?.();
  for (const { name, version, stores } of oldDatabases) {
    if (known !== undefined && !known.some((database) => database.name === name)) continue;
    let isNew = false;
    const old = await openDB(name, version, {
      upgrade(db, from) {
        isNew = from === 0;
        // Made by asking for it: left as the old app would have made it, so that it can still be opened there.
        if (isNew) for (const store of Object.keys(stores)) db.createObjectStore(store);
      },
    });
    try {
      for (const [from, to] of Object.entries(stores)) {
        if (isNew || !old.objectStoreNames.contains(from)) continue;
        const keys = await old.getAllKeys(from);
        const values = await old.getAll(from);
        if (keys.length === 0) continue;
        await put(keys.map((key, i) => [to, String(key), values[i]] as SyncChange));
        const transaction = old.transaction(from, "readwrite");
        await Promise.all([...keys.map((key) => transaction.store.delete(key)), transaction.done]);
      }
    } finally {
      old.close();
    }
  }
}
