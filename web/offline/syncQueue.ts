import { ulid } from "ulid";
import { toInstant } from "../../core/dates/index.ts";
import { hashBytes } from "../../core/hash/index.ts";
import { describeEntry, describePhoto } from "../../core/pin/index.ts";
import { createPhotoId, type Entry } from "../../core/walk/index.ts";
import { Refused } from "../app/client.ts";
import { signAsFront } from "../app/held.ts";
import { forgetServer } from "./clock.ts";
import { createEpochCheck, isEpochInDoubt, settleSent } from "./queue/epochCheck.ts";
import { createPostBox } from "./queue/postBox.ts";
import { canSend, createQueueState, type QueueState } from "./queue/queueState.ts";
import { correctTime, createEntrySender } from "./queue/sendEntries.ts";
import { createSendLoop } from "./queue/sendLoop.ts";
import { createPhotoSender } from "./queue/sendPhotos.ts";
import type { NewEntry, Post } from "./queue/types.ts";
import type { SyncChange } from "./syncStore.ts";

export type { NewEntry, Post, PostName, SyncStatus } from "./queue/types.ts";

/** So long a weak signal is waited for before what was written is left to be sent later. */
const usualPatienceMs = 8_000;
const noEntries: readonly Entry[] = [];
const noPosts: readonly Post[] = [];

/**
 * What is done on this device: in memory at once, in the device's store next, then sent in order and stored once by the
 * server. One queue, one back-off, one store for entries, photos, hours, runs and fuel. Nothing leaves the store before the
 * server has acknowledged it. What others enter comes in by `receive`.
 */
export function createSyncQueue(deviceId: string, { patienceMs = usualPatienceMs } = {}) {
  const state = createQueueState();
  const onSent = new Set<(delivery: string) => void>();
  const onPosted = new Set<(post: Post) => Promise<void>>();
  const isOwed = () =>
    isEpochInDoubt(state) ||
    [...state.unsent.values()].some(({ by, id }) => canSend(state, by) && !state.refused.has(id)) ||
    [...state.unsentPhotos.values()].some(({ by }) => canSend(state, by)) ||
    box.isOwed();
  const sendEntries = createEntrySender(state, (delivery) => {
    for (const listener of onSent) listener(delivery);
  });
  const sendPhotos = createPhotoSender(state, (photo) => writer.takeBack(photo));
  const loop = createSendLoop(state, {
    steps: [createEpochCheck(state), sendEntries, sendPhotos, () => box.sendPosts()],
    isOwed,
  });
  const writer = createWriter(state, deviceId, loop.send);
  const box = createPostBox(state, { ...loop, patienceMs }, async (post) => {
    for (const listener of onPosted) await listener(post);
  });
  // What owners wrote needs nobody to sign in.
  void state.ready.then(() => (isOwed() ? loop.send() : undefined));
  const listen =
    <L>(listeners: Set<L>) =>
    (listener: L) => {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    };

  return {
    ready: state.ready,
    deviceId,
    getStatus: () => state.status,
    listOf: (delivery: string): readonly Entry[] => state.lists.get(delivery) ?? noEntries,
    listPosts: (about: string): readonly Post[] => state.postLists.get(about) ?? noPosts,
    /** Whether an entry is not at the yard yet. */
    isUnsent: (id: string): boolean => state.unsent.has(id),
    /** Where a photo can be seen that has not been sent yet, or was sent since this page was opened; null else. */
    findPhoto: (photo: string): string | null => state.photoAddresses.get(photo) ?? null,
    subscribe: state.subscribe,
    /** Called with the handover whose entries were sent. */
    onSent: listen(onSent),
    /** Called for hours, runs and fuel that were sent, before whoever posted them is answered. */
    onPosted: listen(onPosted),
    /** Whose work is made and sent from now on; null after sign-out. The name is kept, to say whose work waits here. */
    setUser(person: { readonly id: string; readonly name: string } | null) {
      state.user = person?.id ?? null;
      if (person !== null && state.names.get(person.id) !== person.name) {
        state.names.set(person.id, person.name);
        void state.write([["names", person.id, person.name]]);
      }
      state.setStatus();
      if (person !== null) void loop.send();
    },
    /** On a shared tablet: whose sessions it holds. Their work is sent too, in their name. */
    setHeld(people: readonly string[]) {
      state.held = new Set(people);
      state.setStatus();
      if (people.length > 0) void loop.send();
    },
    add: writer.add,
    addPhoto: writer.addPhoto,
    noteSnapshot: writer.noteSnapshot,
    /** Takes in what others entered, as the server tells it; what waits here and is there already waits no longer. */
    async receive(fresh: readonly Entry[]): Promise<void> {
      await settleSent(
        state,
        fresh.map(({ id }) => id),
      );
      const isNews = ({ id, delivery }: Entry) => !state.unsent.has(id) && !state.entries.get(delivery)?.has(id);
      const news = fresh.filter(isNews);
      if (news.length === 0) return;
      state.keep(news);
      state.tell();
      await state.write(news.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 1 }]));
    },
    /** What was known when the first signature of a handover was given here; null while there is none. */
    findSitting: (delivery: string): ReadonlySet<string> | null => state.sittings.get(delivery) ?? null,
    async setSitting(delivery: string, seen: readonly string[] | null): Promise<void> {
      if (seen === null) state.sittings.delete(delivery);
      else state.sittings.set(delivery, new Set(seen));
      state.tell();
      await state.write([["sittings", delivery, seen === null ? null : { delivery, seen }]]);
    },
    /**
     * Sends hours, a run or fuel, or keeps them here: then the answer is null. Throws Refused when the yard does not take
     * them now; they are not kept then, for whoever wrote them is still there to put them right.
     */
    post: box.post,
    answerPost: box.answer,
    discardPost: box.drop,
    /** The server was away: it is asked anew what it is, and given what it lacks. */
    lookAgain() {
      forgetServer();
      void loop.send();
    },
    /** Sends what is owed now; resolves when the server has it all, rejects with what stands in the way. */
    async sendAll(): Promise<void> {
      await loop.send();
      if (isOwed()) await loop.send();
      if (isOwed()) throw state.status.refusal ?? new Refused({ code: "no-signal" });
      const [first] = state.refused.values();
      if (first !== undefined) throw first;
    },
  };
}

/** Writes down what is done here, in the name of whoever is signed in. */
function createWriter(state: QueueState, deviceId: string, send: () => Promise<void>) {
  /** The hash of each photo taken since this page was opened, for the entry that names it. */
  const photoHashes = new Map<string, string>();
  /** What each walk that has begun goes by on this device's screen. */
  const snapshots = new Map<string, string>();
  /** Writes an entry down. It counts at once; the promise resolves when the device's store has it, or has failed to. */
  const add = async (delivery: string, entry: NewEntry, author?: string): Promise<Entry> => {
    const by = author ?? state.mustBeSomebody();
    const nowMs = Date.now();
    const snapshot = snapshots.get(delivery);
    const sha256 = entry.kind === "photo" ? photoHashes.get(entry.photo) : undefined;
    const whole = {
      ...(snapshot === undefined ? {} : { snapshot }),
      ...(sha256 === undefined ? {} : { sha256 }),
      ...entry,
      id: ulid(nowMs),
      delivery,
      at: toInstant(nowMs),
      by,
      device: deviceId,
    } as Entry;
    const corrected = correctTime(whole, state.behindMs);
    const proof = signAsFront(by, () => describeEntry(corrected));
    if (proof !== null) state.proofs.set(corrected.id, proof);
    state.keep([corrected]);
    state.unsent.set(corrected.id, corrected);
    state.setStatus();
    // Sent meanwhile, it must not be put down as unsent again.
    if (!state.tried.has(corrected.id))
      await state.write([
        ["entries", corrected.id, { entry: corrected, sent: 0, ...(proof === null ? {} : { proof }) }],
      ]);
    void send();
    return corrected;
  };
  return {
    add,
    /** Keeps a photo here, to be sent like everything else. Its name holds the hash of its bytes. */
    async addPhoto(file: Blob): Promise<string> {
      const by = state.mustBeSomebody();
      // Bytes, not the file: a file is only a pointer to where the camera put it, and that may be gone by tomorrow.
      const bytes = await file.arrayBuffer();
      const sha256 = hashBytes(new Uint8Array(bytes));
      const photo = createPhotoId(sha256, "staff");
      photoHashes.set(photo, sha256);
      const proof = signAsFront(by, () => describePhoto(photo, sha256));
      const word = proof === null ? {} : { proof };
      await state.write([["photos", photo, { id: photo, by, bytes, type: file.type, ...word }]]);
      const kept = new Blob([bytes], { type: file.type });
      state.unsentPhotos.set(photo, { by, file: kept, proof });
      state.photoAddresses.set(photo, URL.createObjectURL(kept));
      state.setStatus();
      void send();
      return photo;
    },
    /** What a walk that has begun goes by on this screen: the entries made of it from now on name it. */
    noteSnapshot(delivery: string, snapshot: string) {
      snapshots.set(delivery, snapshot);
    },
    /** Takes back what names a photo that is never taken. */
    async takeBack(photo: string) {
      for (const [delivery, mine] of state.entries)
        for (const entry of mine.values())
          if (entry.kind === "photo" && entry.photo === photo && canSend(state, entry.by))
            await add(delivery, { kind: "undo", ref: entry.id }, entry.by);
    },
  };
}

export type SyncQueue = ReturnType<typeof createSyncQueue>;
