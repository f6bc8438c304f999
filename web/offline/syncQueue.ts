import { ulid } from "ulid";
import type { AnswerOf, BodyOf, Endpoints, ErrorBody, ParamsOf } from "../../api/index.ts";
import { toInstant } from "../../core/dates/index.ts";
import { hashBytes } from "../../core/hash/index.ts";
import { createPhotoId, type Entry } from "../../core/walk/index.ts";
import { ask, Refused, sendPhoto } from "../app/client.ts";
import { measureClock } from "./clock.ts";
import { isFinal } from "./refusals.ts";
import { createSyncStore, type KeptPost, type SyncChange } from "./syncStore.ts";

export interface SyncStatus {
  /** Entries, photos, hours, runs and fuel that are not at the yard yet. */
  readonly unsent: number;
  /** Of those: written by somebody else, by name; they are sent when that person signs in here. */
  readonly others: readonly { readonly name: string; readonly count: number }[];
  readonly lastSentAtMs: number | null;
  readonly hasSignal: boolean;
  /** What the yard would not take, now or for good; it stays on the tablet. */
  readonly refusal: Refused | null;
  /** How often in a row the yard was reached and did not do what was asked; shown when it does not end. */
  readonly failures: number;
  /** Why nothing is kept on this device beyond this page; null while it is. */
  readonly storageFault: string | null;
}

/** An entry without what the queue itself fills in. */
export type NewEntry = Entry extends infer E
  ? E extends Entry
    ? Omit<E, "id" | "at" | "device" | "by" | "delivery" | "clockMs">
    : never
  : never;

/** What may be written without signal apart from a walk. All of it carries ids of its own, so that sending twice keeps once. */
export type PostName = "addReading" | "addRun" | "addFill" | "addOwnerReading" | "addOwnerRun" | "addOwnerFill";

export interface Post<N extends PostName = PostName> {
  /** In order of writing. */
  readonly id: string;
  readonly name: N;
  readonly params: ParamsOf<Endpoints[N]>;
  readonly body: BodyOf<Endpoints[N]>;
  /** The boat or owner's page it belongs to, as its screen names it. */
  readonly about: string;
  /** What it is, in a few words, for as long as it waits here. */
  readonly says: string;
  /** Who wrote it; null for an owner, whose token is in the address. */
  readonly by: string | null;
  /** Why the yard did not take it: it waits for an answer to that, or to be discarded. */
  readonly refusal: ErrorBody["error"] | null;
}

const firstWaitMs = 2000;
const longestWaitMs = 60_000;
const mostAtOnce = 200;
/** What the server has is kept here for as long, so that a walk opened without signal is whole. */
const keepDays = 45;
const dayMs = 86_400_000;
/** So long a weak signal is waited for before what was written is left to be sent later. */
const usualPatienceMs = 8_000;

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);
const noEntries: readonly Entry[] = [];
const noPosts: readonly Post[] = [];

/**
 * What is done on this device: in memory at once, in the device's store next, then sent in order and stored once by the
 * server. One queue, one back-off, one store for entries, photos, hours, runs and fuel. Nothing leaves the store before the
 * server has acknowledged it. What others enter comes in by `receive`.
 */
export function createSyncQueue(deviceId: string, { patienceMs = usualPatienceMs } = {}) {
  const store = createSyncStore();
  const entries = new Map<string, Map<string, Entry>>();
  const unsent = new Map<string, Entry>();
  const tried = new Set<string>();
  /** Refused for good since this page was opened: not sent again until it is opened anew. */
  const refused = new Map<string, Refused>();
  const unsentPhotos = new Map<string, { by: string; file: Blob }>();
  const photoAddresses = new Map<string, string>();
  const posts = new Map<string, Post>();
  /** Posts that somebody waits for just now: not shown as waiting, and what became of them is answered, not kept. */
  const posting = new Set<string>();
  const outcomes = new Map<string, { answer: unknown } | { refusal: ErrorBody["error"] }>();
  /** The hash of each photo taken since this page was opened, for the entry that names it. */
  const photoHashes = new Map<string, string>();
  /** What each walk that has begun goes by on this device's screen. */
  const snapshots = new Map<string, string>();
  const sittings = new Map<string, ReadonlySet<string>>();
  const names = new Map<string, string>();
  const listeners = new Set<() => void>();
  const onSent = new Set<(delivery: string) => void>();
  const onPosted = new Set<(post: Post) => Promise<void>>();
  let lists = new Map<string, readonly Entry[]>();
  let postLists = new Map<string, readonly Post[]>();
  let status: SyncStatus = {
    unsent: 0,
    others: [],
    lastSentAtMs: null,
    hasSignal: navigator.onLine,
    refusal: null,
    failures: 0,
    storageFault: null,
  };
  let user: string | null = null;
  let waitMs = firstWaitMs;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;
  let isSignalBack = false;
  /** By how much this device's clock is behind the server's; null until it was asked. */
  let behindMs: number | null = null;

  const countOthers = (): SyncStatus["others"] => {
    const counts = new Map<string, number>();
    const count = (by: string | null) => {
      if (by !== null && by !== user) counts.set(by, (counts.get(by) ?? 0) + 1);
    };
    for (const { by } of unsent.values()) count(by);
    for (const { by } of unsentPhotos.values()) count(by);
    for (const { by } of posts.values()) count(by);
    return [...counts].map(([id, n]) => ({ name: names.get(id) ?? id, count: n }));
  };
  const tell = () => {
    for (const listener of listeners) listener();
  };
  const setStatus = (change: Partial<SyncStatus> = {}) => {
    const waiting = [...posts.values()].filter(({ id }) => !posting.has(id)).length;
    status = {
      ...status,
      ...change,
      unsent: unsent.size + unsentPhotos.size + waiting,
      others: countOthers(),
      storageFault: store.getFault(),
    };
    tell();
  };
  const setPosts = () => {
    postLists = new Map();
    for (const post of [...posts.values()].filter(({ id }) => !posting.has(id)).sort(byId))
      postLists.set(post.about, [...(postLists.get(post.about) ?? noPosts), post]);
    setStatus();
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
  const write = async (changes: readonly SyncChange[]) => {
    const before = store.getFault();
    const isKept = await store.write(changes);
    if (store.getFault() !== before) setStatus();
    return isKept;
  };

  const ready = store.load().then(async (kept) => {
    const oldest = toInstant(Date.now() - keepDays * dayMs);
    const isPast = ({ entry, sent }: { entry: Entry; sent: 0 | 1 }) => sent === 1 && entry.at <= oldest;
    keep(kept.entries.filter((each) => !isPast(each)).map(({ entry }) => entry));
    for (const { entry, sent, tried: wasTried } of kept.entries) {
      if (sent === 0) unsent.set(entry.id, entry);
      if (sent === 0 && wasTried === 1) tried.add(entry.id);
    }
    for (const { id, by, bytes, type } of kept.photos) {
      const file = new Blob([bytes], { type });
      unsentPhotos.set(id, { by, file });
      photoAddresses.set(id, URL.createObjectURL(file));
    }
    for (const post of kept.posts) if (!posts.has(post.id)) posts.set(post.id, post as unknown as Post);
    for (const { delivery, seen } of kept.sittings) sittings.set(delivery, new Set(seen));
    for (const [id, name] of kept.names) names.set(id, name);
    setPosts();
    await store.write(kept.entries.filter(isPast).map(({ entry }): SyncChange => ["entries", entry.id, null]));
  });

  /** The same entry with its time put right by the server's clock, where this device's is off. */
  const correct = (entry: Entry): Entry => {
    if (behindMs === null || behindMs === 0 || entry.clockMs !== undefined) return entry;
    return { ...entry, at: toInstant(Date.parse(entry.at) + behindMs), clockMs: behindMs };
  };

  const sendBatch = async (delivery: string, batch: readonly Entry[]) => {
    const { stored, known } = await ask("addEntries", { params: { delivery }, body: { entries: [...batch] } });
    const done = new Set([...stored, ...known]);
    const sent = batch.filter(({ id }) => done.has(id));
    for (const { id } of sent) {
      unsent.delete(id);
      refused.delete(id);
    }
    await write(sent.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 1 }]));
    setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
    for (const listener of onSent) listener(delivery);
  };
  /** One by one where one of a batch is not taken: the others must not wait for it. */
  const sendSome = async (delivery: string, batch: readonly Entry[]): Promise<void> => {
    try {
      await sendBatch(delivery, batch);
    } catch (error) {
      if (!(error instanceof Refused) || isOfNoEntry.has(error.code)) throw error;
      const [first] = batch;
      if (batch.length === 1 && first !== undefined) {
        if (!isFinal("entry", error.code)) throw error;
        refused.set(first.id, error);
        return;
      }
      let stopped: unknown = null;
      for (const entry of batch) {
        try {
          await sendSome(delivery, [entry]);
        } catch (reason) {
          if (!(reason instanceof Refused) || isOfNoEntry.has(reason.code)) throw reason;
          stopped ??= reason;
        }
      }
      if (stopped !== null) throw stopped;
    }
  };
  const sendEntries = async () => {
    const mine = [...unsent.values()].filter(({ by, id }) => by === user && !refused.has(id)).sort(byId);
    if (mine.length > 0) behindMs = await measureClock();
    let stopped: unknown = null;
    for (const delivery of new Set(mine.map((entry) => entry.delivery))) {
      const ofIt = mine.filter((entry) => entry.delivery === delivery);
      for (let i = 0; i < ofIt.length; i += mostAtOnce) {
        // Put right and into the device's store before it is sent: what was sent must be there, just so, to be sent again.
        const batch = ofIt.slice(i, i + mostAtOnce).map((entry) => (tried.has(entry.id) ? entry : correct(entry)));
        await write(batch.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 0, tried: 1 }]));
        const corrected = batch.filter((entry) => unsent.get(entry.id) !== entry);
        for (const entry of batch) {
          tried.add(entry.id);
          unsent.set(entry.id, entry);
        }
        // Only what has changed: every list that is kept anew is folded and shown anew.
        if (corrected.length > 0) keep(corrected);
        try {
          await sendSome(delivery, batch);
        } catch (error) {
          if (isOutage(error)) throw error;
          // This handover is not taken just now; the others need not wait for it.
          stopped ??= error;
          break;
        }
      }
    }
    if (stopped !== null) throw stopped;
  };
  /** Photos go two at a time: while one is on its way the server makes the other fit to keep. */
  const sendPhotos = async () => {
    const waiting = [...unsentPhotos].filter(([, { by }]) => by === user).sort(([a], [b]) => (a < b ? -1 : 1));
    let stopped: unknown = null;
    const sendNext = async (): Promise<void> => {
      for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
        const [id, { file }] = next;
        try {
          await sendPhoto(id, file);
        } catch (error) {
          if (!(error instanceof Refused) || !isFinal("photo", error.code)) {
            if (isOutage(error)) throw error;
            stopped ??= error;
            continue;
          }
          refused.set(id, error);
          // It will never be taken: what names it is taken back, so that nothing waits for it.
          await takeBack(id);
        }
        await write([["photos", id, null]]);
        unsentPhotos.delete(id);
        setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
      }
    };
    await Promise.all([sendNext(), sendNext()]);
    if (stopped !== null) throw stopped;
  };
  const takeBack = async (photo: string) => {
    for (const [delivery, mine] of entries)
      for (const entry of mine.values())
        if (entry.kind === "photo" && entry.photo === photo && entry.by === user)
          await add(delivery, { kind: "undo", ref: entry.id });
  };
  const dropPost = async (id: string) => {
    posts.delete(id);
    setPosts();
    await write([["posts", id, null]]);
  };
  const putPost = async (post: Post) => {
    posts.set(post.id, post);
    setPosts();
    await write([["posts", post.id, post as unknown as KeptPost]]);
  };
  const isDue = ({ by, refusal }: Post) => refusal === null && (by === null || by === user);
  const sendPosts = async () => {
    let stopped: unknown = null;
    for (const { id } of [...posts.values()].filter(isDue).sort(byId)) {
      // It may have been discarded meanwhile.
      const post = posts.get(id);
      if (post === undefined) continue;
      try {
        const answer = await ask(post.name, { params: post.params, body: post.body } as never);
        if (posting.has(id)) outcomes.set(id, { answer });
        await dropPost(id);
        setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
        for (const listener of onPosted) await listener(post);
      } catch (error) {
        if (!(error instanceof Refused) || !isFinal("post", error.code)) {
          if (isOutage(error)) throw error;
          stopped ??= error;
        } else if (posting.has(id)) {
          outcomes.set(id, { refusal: error.facts });
          await dropPost(id);
        } else await putPost({ ...post, refusal: error.facts });
      }
    }
    if (stopped !== null) throw stopped;
  };
  const sendOnce = async () => {
    await ready;
    let stopped: unknown = null;
    for (const step of [sendEntries, sendPhotos, sendPosts]) {
      try {
        await step();
      } catch (error) {
        if (isOutage(error)) throw error;
        // What one kind waits for is no reason for the others to wait.
        stopped ??= error;
      }
    }
    if (stopped !== null) throw stopped;
  };
  const isOwed = () =>
    [...unsent.values()].some(({ by, id }) => by === user && !refused.has(id)) ||
    [...unsentPhotos.values()].some(({ by }) => by === user) ||
    [...posts.values()].some(isDue);
  const send = () => {
    clearTimeout(timer);
    sending ??= sendOnce()
      .then(() => {
        waitMs = firstWaitMs;
        setStatus({ failures: 0, refusal: [...refused.values()][0] ?? null });
      })
      .catch((error: unknown) => {
        const isSignal = error instanceof Refused && error.code === "no-signal";
        setStatus({
          hasSignal: !isSignal,
          failures: isSignal ? 0 : status.failures + 1,
          refusal: isSignal || !(error instanceof Refused) ? ([...refused.values()][0] ?? null) : error,
        });
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
  // What owners wrote needs nobody to sign in.
  void ready.then(() => (isOwed() ? send() : undefined));
  const mustBeSomebody = (): string => {
    if (user === null) throw new Error("sync queue: expected somebody signed in, got nobody");
    return user;
  };

  /** Writes an entry down. It counts at once; the promise resolves when the device's store has it, or has failed to. */
  async function add(delivery: string, entry: NewEntry): Promise<Entry> {
    const by = mustBeSomebody();
    const nowMs = Date.now();
    const snapshot = snapshots.get(delivery);
    const sha256 = entry.kind === "photo" ? photoHashes.get(entry.photo) : undefined;
    const whole = correct({
      ...(snapshot === undefined ? {} : { snapshot }),
      ...(sha256 === undefined ? {} : { sha256 }),
      ...entry,
      id: ulid(nowMs),
      delivery,
      at: toInstant(nowMs),
      by,
      device: deviceId,
    } as Entry);
    keep([whole]);
    unsent.set(whole.id, whole);
    setStatus();
    // Sent meanwhile, it must not be put down as unsent again.
    if (!tried.has(whole.id)) await write([["entries", whole.id, { entry: whole, sent: 0 }]]);
    void send();
    return whole;
  }

  return {
    ready,
    deviceId,
    getStatus: () => status,
    listOf: (delivery: string): readonly Entry[] => lists.get(delivery) ?? noEntries,
    listPosts: (about: string): readonly Post[] => postLists.get(about) ?? noPosts,
    /** Whether an entry is not at the yard yet. */
    isUnsent: (id: string): boolean => unsent.has(id),
    /** Where a photo can be seen that has not been sent yet, or was sent since this page was opened; null else. */
    findPhoto: (photo: string): string | null => photoAddresses.get(photo) ?? null,
    subscribe(listener: () => void) {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    /** Called with the handover whose entries were sent. */
    onSent(listener: (delivery: string) => void) {
      onSent.add(listener);
      return () => {
        onSent.delete(listener);
      };
    },
    /** Called for hours, runs and fuel that were sent, before whoever posted them is answered. */
    onPosted(listener: (post: Post) => Promise<void>) {
      onPosted.add(listener);
      return () => {
        onPosted.delete(listener);
      };
    },
    /** Whose work is made and sent from now on; null after sign-out. The name is kept, to say whose work waits here. */
    setUser(person: { readonly id: string; readonly name: string } | null) {
      user = person?.id ?? null;
      if (person !== null && names.get(person.id) !== person.name) {
        names.set(person.id, person.name);
        void write([["names", person.id, person.name]]);
      }
      setStatus();
      if (person !== null) void send();
    },
    add,
    /** Keeps a photo here, to be sent like everything else. Its name holds the hash of its bytes. */
    async addPhoto(file: Blob): Promise<string> {
      const by = mustBeSomebody();
      // Bytes, not the file: a file is only a pointer to where the camera put it, and that may be gone by tomorrow.
      const bytes = await file.arrayBuffer();
      const sha256 = hashBytes(new Uint8Array(bytes));
      const photo = createPhotoId(sha256, "staff");
      photoHashes.set(photo, sha256);
      await write([["photos", photo, { id: photo, by, bytes, type: file.type }]]);
      const kept = new Blob([bytes], { type: file.type });
      unsentPhotos.set(photo, { by, file: kept });
      photoAddresses.set(photo, URL.createObjectURL(kept));
      setStatus();
      void send();
      return photo;
    },
    /** What a walk that has begun goes by on this screen: the entries made of it from now on name it. */
    noteSnapshot(delivery: string, snapshot: string) {
      snapshots.set(delivery, snapshot);
    },
    /** Takes in what others entered, as the server tells it. */
    async receive(fresh: readonly Entry[]): Promise<void> {
      const news = fresh.filter(({ id, delivery }) => !unsent.has(id) && !entries.get(delivery)?.has(id));
      if (news.length === 0) return;
      keep(news);
      tell();
      await write(news.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 1 }]));
    },
    /** What was known when the first signature of a handover was given here; null while there is none. */
    findSitting: (delivery: string): ReadonlySet<string> | null => sittings.get(delivery) ?? null,
    async setSitting(delivery: string, seen: readonly string[] | null): Promise<void> {
      if (seen === null) sittings.delete(delivery);
      else sittings.set(delivery, new Set(seen));
      tell();
      await write([["sittings", delivery, seen === null ? null : { delivery, seen }]]);
    },
    /**
     * Sends hours, a run or fuel, or keeps them here: then the answer is null. Throws Refused when the yard does not take
     * them now; they are not kept then, for whoever wrote them is still there to put them right.
     */
    async post<N extends PostName>(post: Omit<Post<N>, "by" | "refusal">): Promise<AnswerOf<Endpoints[N]> | null> {
      const isOwners = "token" in post.params;
      posting.add(post.id);
      try {
        await putPost({ ...post, by: isOwners ? null : user, refusal: null } as Post);
        const sent = (sending ?? Promise.resolve()).then(() => (posts.has(post.id) ? send() : undefined));
        await Promise.race([sent, new Promise((resolve) => setTimeout(resolve, patienceMs))]);
      } finally {
        posting.delete(post.id);
        setPosts();
      }
      const outcome = outcomes.get(post.id);
      outcomes.delete(post.id);
      if (outcome === undefined) return null;
      if ("refusal" in outcome) throw new Refused(outcome.refusal);
      return outcome.answer as AnswerOf<Endpoints[N]>;
    },
    /** Sends one that was refused again, with what was asked about it. */
    async answerPost(id: string, change: Record<string, unknown>) {
      const post = posts.get(id);
      if (post === undefined) return;
      await putPost({ ...post, body: { ...post.body, ...change }, refusal: null } as Post);
      await send();
    },
    discardPost: dropPost,
    /** Sends what is owed now; resolves when the server has it all, rejects with what stands in the way. */
    async sendAll(): Promise<void> {
      await send();
      if (isOwed()) await send();
      if (isOwed()) throw status.refusal ?? new Refused({ code: "no-signal" });
      const [first] = refused.values();
      if (first !== undefined) throw first;
    },
  };
}

/** Refusals that say nothing of what was sent: sent one by one it would fare no better. */
const isOfNoEntry: ReadonlySet<string> = new Set(["no-signal", "sign-in-needed", "unexpected", "busy", "wrong-origin"]);

/** Without an answer at all the next thing would not go either; whatever else is in the way may be in the way of one alone. */
const isOutage = (error: unknown): boolean => !(error instanceof Refused) || error.code === "no-signal";

export type SyncQueue = ReturnType<typeof createSyncQueue>;
