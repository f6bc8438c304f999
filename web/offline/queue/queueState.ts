import type { Acknowledged } from "../../../api/index.ts";
import { type Instant, toInstant } from "../../../core/dates/index.ts";
import type { Entry } from "../../../core/walk/index.ts";
import type { Refused } from "../../app/client.ts";
import { createSyncStore, type SyncChange } from "../syncStore.ts";
import type { Post, SyncStatus } from "./types.ts";

/** What the server has is kept here for as long, so that a walk opened without signal is whole. */
const keepDays = 45;
const dayMs = 86_400_000;
const noPosts: readonly Post[] = [];
export const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

/** What a sync queue has in memory, and its copy in the device's store. */
export function createQueueState() {
  const store = createSyncStore();
  const listeners = new Set<() => void>();
  const state = createMemory();

  const tell = () => {
    for (const listener of listeners) listener();
  };
  const setStatus = (change: Partial<SyncStatus> = {}) => {
    const { unsent, unsentPhotos, posts, posting } = state;
    const waiting = [...posts.values()].filter(({ id }) => !posting.has(id)).length;
    state.status = {
      ...state.status,
      ...change,
      unsent: unsent.size + unsentPhotos.size + waiting,
      others: countOthers(state),
      storageFault: store.getFault(),
    };
    tell();
  };
  const setPosts = () => {
    const { posts, posting } = state;
    state.postLists = new Map();
    for (const post of [...posts.values()].filter(({ id }) => !posting.has(id)).sort(byId))
      state.postLists.set(post.about, [...(state.postLists.get(post.about) ?? noPosts), post]);
    setStatus();
  };
  const keep = (fresh: readonly Entry[]) => takeIn(state, fresh);
  const load = async () => {
    const past = takeBack(state, await store.load());
    setPosts();
    await store.write(past.map(({ entry }): SyncChange => ["entries", entry.id, null]));
  };
  return Object.assign(state, {
    tell,
    setStatus,
    setPosts,
    /** Takes entries into the lists that are shown. */
    keep,
    ready: load(),
    subscribe(listener: () => void) {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    /** Into the device's store; answers whether it is there. */
    async write(changes: readonly SyncChange[]) {
      const before = store.getFault();
      const isKept = await store.write(changes);
      if (store.getFault() !== before) setStatus();
      return isKept;
    },
    mustBeSomebody(): string {
      if (state.user === null) throw new Error("sync queue: expected somebody signed in, got nobody");
      return state.user;
    },
  });
}
export type QueueState = ReturnType<typeof createQueueState>;

/** Whether somebody's work can be sent from here now. */
export const canSend = ({ user, held }: Pick<QueueState, "user" | "held">, by: string): boolean =>
  by === user || held.has(by);

const isPast = ({ entry, sent }: { entry: Entry; sent: 0 | 1 }, oldest: Instant) => sent === 1 && entry.at <= oldest;

/** Whose work waits here that is not the work of whoever is signed in. */
function countOthers(
  state: Pick<QueueState, "user" | "held" | "names"> &
    Readonly<Record<"unsent" | "unsentPhotos" | "posts", ReadonlyMap<string, { by: string | null }>>>,
): SyncStatus["others"] {
  const { user, held, names, unsent, unsentPhotos, posts } = state;
  const counts = new Map<string, number>();
  for (const { by } of [...unsent.values(), ...unsentPhotos.values(), ...posts.values()])
    if (by !== null && by !== user && !held.has(by)) counts.set(by, (counts.get(by) ?? 0) + 1);
  return [...counts].map(([id, n]) => ({ name: names.get(id) ?? id, count: n }));
}

function createMemory() {
  return {
    entries: new Map<string, Map<string, Entry>>(),
    unsent: new Map<string, Entry>(),
    /** Sent once, and perhaps stored: they stay just as they are. */
    tried: new Set<string>(),
    /** Refused for good since this page was opened: not sent again until it is opened anew. */
    refused: new Map<string, Refused>(),
    unsentPhotos: new Map<string, { by: string; file: Blob; proof: string | null }>(),
    /** Of unsent entries written on a shared tablet: their authors' word for them. */
    proofs: new Map<string, string>(),
    photoAddresses: new Map<string, string>(),
    posts: new Map<string, Post>(),
    /** Posts that somebody waits for just now: not shown as waiting, and what became of them is answered, not kept. */
    posting: new Set<string>(),
    sittings: new Map<string, ReadonlySet<string>>(),
    names: new Map<string, string>(),
    lists: new Map<string, readonly Entry[]>(),
    postLists: new Map<string, readonly Post[]>(),
    /** Whose work is made and sent. */
    user: null as string | null,
    /** On a shared tablet: whose sessions it holds, so that their work is sent as well, whoever is in front. */
    held: new Set<string>() as ReadonlySet<string>,
    /** By how much this device's clock is behind the server's; null until it was asked. */
    behindMs: null as number | null,
    /** Which epoch of the store what is held here was sent to; null while the server was never spoken to. */
    epoch: null as string | null,
    /** The most that the store acknowledged, under its signature: told at each post, so that one that lost it learns of it. */
    acknowledged: null as Acknowledged | null,
    status: {
      unsent: 0,
      others: [],
      lastSentAtMs: null,
      hasSignal: navigator.onLine,
      refusal: null,
      failures: 0,
      storageFault: null,
    } as SyncStatus,
  };
}

type Memory = ReturnType<typeof createMemory>;

/** Into the lists that are shown; those of other handovers stay the same lists. */
function takeIn(state: Memory, fresh: readonly Entry[]) {
  const { entries } = state;
  const touched = new Set<string>();
  for (const entry of fresh) {
    const mine = entries.get(entry.delivery) ?? new Map<string, Entry>();
    mine.set(entry.id, entry);
    entries.set(entry.delivery, mine);
    touched.add(entry.delivery);
  }
  state.lists = new Map(state.lists);
  for (const delivery of touched) state.lists.set(delivery, [...entries.get(delivery)!.values()]);
}

type Kept = Awaited<ReturnType<ReturnType<typeof createSyncStore>["load"]>>;

/** What the device's store holds, into memory; answers the entries that are too old to be held any longer. */
function takeBack(state: Memory, kept: Kept): Kept["entries"] {
  const oldest = toInstant(Date.now() - keepDays * dayMs);
  takeIn(
    state,
    kept.entries.filter((each) => !isPast(each, oldest)).map(({ entry }) => entry),
  );
  for (const { entry, sent, tried, proof } of kept.entries) {
    if (sent === 0) state.unsent.set(entry.id, entry);
    if (sent === 0 && proof !== undefined) state.proofs.set(entry.id, proof);
    if (sent === 0 && tried === 1) state.tried.add(entry.id);
  }
  state.epoch = kept.epoch;
  state.acknowledged = kept.acknowledged;
  for (const { id, by, bytes, type, proof = null } of kept.photos) {
    const file = new Blob([bytes], { type });
    state.unsentPhotos.set(id, { by, file, proof });
    state.photoAddresses.set(id, URL.createObjectURL(file));
  }
  for (const post of kept.posts) if (!state.posts.has(post.id)) state.posts.set(post.id, post as unknown as Post);
  for (const { delivery, seen } of kept.sittings) state.sittings.set(delivery, new Set(seen));
  for (const [id, name] of kept.names) state.names.set(id, name);
  return kept.entries.filter((each) => isPast(each, oldest));
}
