import "fake-indexeddb/auto";
import { openDB } from "idb";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hashBytes } from "../../core/hash/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import { leaveQueues, openDevice, openQueueHere } from "../testing/queueStage.ts";
import { finalRefusals } from "./refusals.ts";
import type { NewEntry, SyncQueue } from "./syncQueue.ts";
import { createSyncStore } from "./syncStore.ts";

/** A server that takes all it is sent, or answers as told. */
function createServer() {
  const entries: Entry[] = [];
  const photos: string[] = [];
  const posts: string[] = [];
  const server = { entries, photos, posts, refuse: null as null | { code: string; status: number }, calls: 0 };
  vi.stubGlobal("fetch", async (path: string, init: { body: string | Blob }) => {
    server.calls++;
    if (path === "/api/clock") return new Response(JSON.stringify({ nowMs: Date.now(), epoch: "first" }));
    if (server.refuse?.code === "no-signal") throw new TypeError("failed to fetch");
    if (server.refuse !== null)
      return new Response(JSON.stringify({ error: { code: server.refuse.code } }), { status: server.refuse.status });
    if (path.startsWith("/api/photos/")) {
      photos.push(path.split("/").at(-1)!);
      return new Response(JSON.stringify({ photo: "", width: 1, height: 1 }));
    }
    const body = JSON.parse(init.body as string);
    if (body.entries === undefined) {
      posts.push(body.id);
      return new Response(JSON.stringify({ done: true }));
    }
    entries.push(...body.entries);
    return new Response(JSON.stringify({ stored: body.entries.map(({ id }: Entry) => id), known: [] }));
  });
  return server;
}

let server: ReturnType<typeof createServer>;
beforeEach(() => {
  openDevice();
  server = createServer();
});
afterEach(async () => {
  vi.useRealTimers();
  await leaveQueues();
  vi.unstubAllGlobals();
});

const told: NewEntry = { kind: "mark", topic: "horn", mark: "told", person: null, spentS: 3 };
const nessa = { id: "nessa", name: "Nessa Quill" };
async function openQueue(person: { id: string; name: string } | null = nessa): Promise<SyncQueue> {
  const queue = openQueueHere({ patienceMs: 50 });
  await queue.ready;
  queue.setUser(person);
  return queue;
}
const until = (isSo: () => boolean) => vi.waitFor(() => expect(isSo()).toBe(true), { timeout: 5000 });

describe("a tab that is killed the moment after a mark", () => {
  it("has kept it: each write asks for its own end at once, and does not wait for the page", async () => {
    const commit = vi.spyOn(IDBTransaction.prototype, "commit");
    const store = createSyncStore();
    const written = store.write([["facts", "epoch", "first"]]);
    await vi.waitFor(() => expect(commit).toHaveBeenCalledTimes(1));
    expect(await written).toBe(true);
    expect((await createSyncStore().load()).epoch).toBe("first");
    commit.mockRestore();
  });
});

describe("where nothing can be kept", () => {
  it.each([
    [
      "a private window",
      () =>
        vi.stubGlobal("indexedDB", {
          open: () => {
            throw new DOMException("no", "SecurityError");
          },
        }),
    ],
    [
      "no room",
      () => {
        const put = IDBObjectStore.prototype.put;
        vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(function (this: IDBObjectStore, ...given) {
          if (this.name === "names") return put.apply(this, given);
          throw new DOMException("no room", "QuotaExceededError");
        });
      },
    ],
  ])("%s: it goes on in memory and by network at once, and says so", async (_, fail) => {
    fail();
    const queue = await openQueue();
    await queue.add("d-1", told);
    await until(() => server.entries.length === 1);
    expect(queue.listOf("d-1")).toHaveLength(1);
    expect(queue.getStatus().storageFault).not.toBeNull();
    vi.restoreAllMocks();
  });

  it("says so until the store keeps again", async () => {
    const spy = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("no room", "QuotaExceededError");
    });
    const queue = await openQueue();
    await queue.add("d-1", told);
    expect(queue.getStatus().storageFault).toBe("QuotaExceededError");
    spy.mockRestore();
    await queue.add("d-1", told);
    expect(queue.getStatus().storageFault).toBeNull();
  });
});

describe("what older versions of the app left here", () => {
  it("is sent, in whatever tab it was written, at every start", async () => {
    const fill = async (id: string) => {
      const old = await openDB("ravik", 2, {
        upgrade(db) {
          const store = db.createObjectStore("entries");
          store.createIndex("delivery", "entry.delivery");
          store.createIndex("sent", "sent");
          db.createObjectStore("photos");
        },
      });
      const entry = { ...told, id, delivery: "d-1", at: "2026-06-01T10:00:00.000Z", by: "nessa", device: "t" };
      await old.put("entries", { entry, sent: 0 }, id);
      await old.put(
        "photos",
        { id: `photo-${id}`, by: "nessa", bytes: new ArrayBuffer(3), type: "image/jpeg" },
        `photo-${id}`,
      );
      old.close();
      const posts = await openDB("ravik-letters", 1, { upgrade: (db) => void db.createObjectStore("letters") });
      await posts.put(
        "letters",
        {
          id,
          name: "addReading",
          params: { boat: "w097" },
          body: { id, hours: 3 },
          about: "w097",
          says: "3 h",
          by: "nessa",
          refusal: null,
        },
        id,
      );
      posts.close();
    };
    await fill("01HZZZZZZZZZZZZZZZZZZZZZ01");
    await (await openQueue()).sendAll();
    await fill("01HZZZZZZZZZZZZZZZZZZZZZ02");
    await (await openQueue()).sendAll();
    expect(new Set(server.entries.map(({ id }) => id))).toEqual(
      new Set(["01HZZZZZZZZZZZZZZZZZZZZZ01", "01HZZZZZZZZZZZZZZZZZZZZZ02"]),
    );
    expect(new Set(server.photos)).toEqual(
      new Set(["photo-01HZZZZZZZZZZZZZZZZZZZZZ01", "photo-01HZZZZZZZZZZZZZZZZZZZZZ02"]),
    );
    expect(new Set(server.posts)).toEqual(new Set(["01HZZZZZZZZZZZZZZZZZZZZZ01", "01HZZZZZZZZZZZZZZZZZZZZZ02"]));
    const left = await openDB("ravik", 2);
    expect(await left.getAll("entries")).toEqual([]);
    left.close();
  });
});

describe("a photo leaves the device", () => {
  const take = (queue: SyncQueue) => queue.addPhoto(new Blob(["picture"], { type: "image/jpeg" }));

  it.each(["wrong-origin", "not-allowed", "not-found", "sign-in-needed", "unexpected", "busy"])(
    "not for %s",
    async (code) => {
      server.refuse = { code, status: 403 };
      const queue = await openQueue();
      await take(queue);
      await expect(queue.sendAll()).rejects.toMatchObject({ code });
      expect(queue.getStatus().unsent).toBe(1);
      server.refuse = null;
      await queue.sendAll();
      expect(server.photos).toHaveLength(1);
    },
  );

  it.each(finalRefusals.photo)("for good when it is refused as %s", async (code) => {
    server.refuse = { code, status: 415 };
    const queue = await openQueue();
    await take(queue);
    await queue.sendAll().catch(() => undefined);
    expect(queue.getStatus()).toMatchObject({ unsent: 0, refusal: { code } });
  });

  it("under a name that holds the hash of its bytes, which its entry names", async () => {
    const queue = await openQueue();
    const photo = await take(queue);
    const sha256 = hashBytes(new TextEncoder().encode("picture"));
    expect(photo).toBe(`p${sha256.slice(0, 40)}`);
    const entry = await queue.add("d-1", { kind: "photo", photo, topic: null, ref: null });
    expect(entry).toMatchObject({ photo, sha256 });
  });
});

describe("whose work waits here", () => {
  it("is said by name, and sent when that person signs in again", async () => {
    server.refuse = { code: "no-signal", status: 0 };
    const first = await openQueue();
    await first.add("d-1", told);
    await first.sendAll().catch(() => undefined);
    first.setUser(null);
    server.refuse = null;
    const second = await openQueue({ id: "tobin", name: "Tobin Ashgrove" });
    expect(second.getStatus()).toMatchObject({ unsent: 1, others: [{ name: "Nessa Quill", count: 1 }] });
    await second.sendAll();
    expect(server.entries).toEqual([]);
    second.setUser(nessa);
    await until(() => server.entries.length === 1);
    expect(second.getStatus().others).toEqual([]);
  });
});

describe("a server that does not do what it is asked", () => {
  it("is counted, so that it can be said; signal that is missing is not", async () => {
    server.refuse = { code: "unexpected", status: 500 };
    const queue = await openQueue();
    await queue.add("d-1", told);
    await queue.sendAll().catch(() => undefined);
    const after = queue.getStatus().failures;
    expect(after).toBeGreaterThan(0);
    server.refuse = { code: "no-signal", status: 0 };
    await queue.sendAll().catch(() => undefined);
    expect(queue.getStatus()).toMatchObject({ failures: 0, hasSignal: false });
  });
});

describe("a sitting", () => {
  it("lasts through a reload, and ends when it is started over", async () => {
    await (await openQueue()).setSitting("d-1", ["a", "b"]);
    const again = await openQueue();
    expect(again.findSitting("d-1")).toEqual(new Set(["a", "b"]));
    await again.setSitting("d-1", null);
    expect((await openQueue()).findSitting("d-1")).toBeNull();
  });

  it("the entries of a walk that has begun name its snapshot", async () => {
    const queue = await openQueue();
    expect(await queue.add("d-1", told)).not.toHaveProperty("snapshot");
    queue.noteSnapshot("d-1", "a".repeat(64));
    expect(await queue.add("d-1", told)).toMatchObject({ snapshot: "a".repeat(64) });
    expect(await queue.add("d-2", told)).not.toHaveProperty("snapshot");
  });
});
