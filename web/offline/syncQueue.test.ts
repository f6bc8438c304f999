import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Entry } from "../../core/walk/index.ts";
import { leaveQueues, openDevice, openQueueHere } from "../testing/queueStage.ts";
import { forgetServer } from "./clock.ts";
import type { NewEntry, SyncQueue } from "./syncQueue.ts";

/** A yard at the other end of the line: it may be out of reach, refuse some entries, or take what it is sent. */
function createYard() {
  const stored = new Map<string, Entry>();
  const photos = new Map<string, number>();
  const posts: string[][] = [];
  let calls = 0;
  let aheadMs = 0;
  let mood: "takes" | "silent" = "takes";
  let isRefused: (entry: Entry) => boolean = () => false;
  const answer = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
  const fetchFrom = async (path: string, init: { body: string | Blob }) => {
    calls++;
    if (mood === "silent") throw new TypeError("failed to fetch");
    if (path === "/api/clock") return answer({ nowMs: Date.now() + aheadMs, epoch: "first" });
    if (path.startsWith("/api/photos/")) {
      const id = path.slice("/api/photos/".length);
      photos.set(id, (photos.get(id) ?? 0) + 1);
      return answer({ photo: id, width: 1, height: 1 });
    }
    const { entries } = JSON.parse(init.body as string) as { entries: Entry[] };
    posts.push(entries.map(({ id }) => id));
    if (entries.some(isRefused)) return answer({ error: { code: "sealed" } }, 409);
    const known = entries.filter(({ id }) => stored.has(id)).map(({ id }) => id);
    for (const entry of entries) stored.set(entry.id, entry);
    const fresh = entries.map(({ id }) => id).filter((id) => !known.includes(id));
    return answer({ stored: fresh, known });
  };
  return {
    stored,
    photos,
    posts,
    fetchFrom,
    countCalls: () => calls,
    become(next: typeof mood) {
      mood = next;
    },
    refuse(what: typeof isRefused) {
      isRefused = what;
    },
    setClock(ms: number) {
      aheadMs = ms;
    },
  };
}

const told = (topic: string): NewEntry => ({ kind: "mark", topic, mark: "told", person: null, spentS: 3 });
let yard: ReturnType<typeof createYard>;
let events: EventTarget;

beforeEach(() => {
  events = openDevice();
  yard = createYard();
  vi.stubGlobal("fetch", yard.fetchFrom);
});
afterEach(async () => {
  vi.useRealTimers();
  await leaveQueues();
  vi.unstubAllGlobals();
});

const until = (isSo: () => boolean) => vi.waitFor(() => expect(isSo()).toBe(true), { timeout: 5000 });

async function openQueue(user = "nessa"): Promise<SyncQueue> {
  const queue = openQueueHere();
  await queue.ready;
  queue.setUser({ id: user, name: `Name of ${user}` });
  return queue;
}

describe("the sync queue", () => {
  it("counts a mark at once, and sends it", async () => {
    const queue = await openQueue();
    const promise = queue.add("d-1", told("lanyard"));
    expect(queue.listOf("d-1")).toHaveLength(1);
    expect(queue.getStatus().unsent).toBe(1);
    const entry = await promise;
    expect(entry).toMatchObject({ delivery: "d-1", by: "nessa", device: "tablet-1", topic: "lanyard" });
    await until(() => queue.getStatus().unsent === 0);
    expect([...yard.stored.keys()]).toEqual([entry.id]);
    expect(queue.getStatus()).toMatchObject({ hasSignal: true, refusal: null });
    expect(queue.listOf("d-1")).toEqual([entry]);
  });

  it("tells those who listen, until they stop", async () => {
    const queue = await openQueue();
    const heard = vi.fn();
    const stop = queue.subscribe(heard);
    await queue.add("d-1", told("lanyard"));
    const before = heard.mock.calls.length;
    expect(before).toBeGreaterThan(0);
    await until(() => queue.getStatus().unsent === 0);
    stop();
    const atStop = heard.mock.calls.length;
    await queue.add("d-1", told("horn"));
    expect(heard.mock.calls.length).toBe(atStop);
  });

  it("keeps what was marked without signal, through a reload, and sends it in order", async () => {
    yard.become("silent");
    const first = await openQueue();
    const made: string[] = [];
    for (const topic of ["horn", "lanyard", "flush"]) made.push((await first.add("d-1", told(topic))).id);
    await until(() => !first.getStatus().hasSignal);
    expect(yard.stored.size).toBe(0);

    yard.become("takes");
    const afterReload = await openQueue();
    expect(
      afterReload
        .listOf("d-1")
        .map(({ id }) => id)
        .sort(),
    ).toEqual([...made].sort());
    await until(() => afterReload.getStatus().unsent === 0);
    expect(yard.posts.at(-1)).toEqual([...made].sort());
    expect(yard.stored.size).toBe(3);

    const onceMore = await openQueue();
    expect(onceMore.getStatus().unsent).toBe(0);
    expect(onceMore.listOf("d-1")).toHaveLength(3);
  });

  it("tries again by itself, waiting longer each time, and at once when signal returns", async () => {
    yard.become("silent");
    const queue = await openQueue();
    await queue.add("d-1", told("horn"));
    await until(() => yard.countCalls() >= 1 && !queue.getStatus().hasSignal);
    expect(yard.posts).toEqual([]);
    yard.become("takes");
    events.dispatchEvent(new Event("online"));
    await until(() => queue.getStatus().unsent === 0);
    expect(yard.posts).toHaveLength(1);
    expect(queue.getStatus().hasSignal).toBe(true);
  });

  it("says so when the browser loses signal", async () => {
    const queue = await openQueue();
    events.dispatchEvent(new Event("offline"));
    expect(queue.getStatus().hasSignal).toBe(false);
  });

  it("keeps what the yard refuses and says why", async () => {
    yard.refuse(() => true);
    const queue = await openQueue();
    await queue.add("d-1", told("horn"));
    await until(() => queue.getStatus().refusal !== null);
    expect(queue.getStatus()).toMatchObject({ unsent: 1, hasSignal: true });
    expect(queue.getStatus().refusal?.code).toBe("sealed");
    await expect(queue.sendAll()).rejects.toMatchObject({ code: "sealed" });
    expect(queue.listOf("d-1")).toHaveLength(1);
  });

  it("does not let one refused entry hold back the others", async () => {
    yard.become("silent");
    const queue = await openQueue();
    const made: string[] = [];
    for (const topic of ["horn", "lanyard", "flush"]) made.push((await queue.add("d-1", told(topic))).id);
    yard.refuse(({ id }) => id === made[1]);
    yard.become("takes");
    await expect(queue.sendAll()).rejects.toMatchObject({ code: "sealed" });
    expect([...yard.stored.keys()].sort()).toEqual([made[0], made[2]].sort());
    expect(queue.getStatus()).toMatchObject({ unsent: 1, hasSignal: true });
    const afterReload = await openQueue();
    await until(() => afterReload.getStatus().refusal !== null);
    expect(afterReload.listOf("d-1")).toHaveLength(3);
  });

  it("puts a clock that is wrong right, once, before anything is sent", async () => {
    yard.become("silent");
    yard.setClock(3_600_000);
    const queue = await openQueue();
    const late = await queue.add("d-1", told("horn"));
    yard.become("takes");
    await queue.sendAll();
    const stored = yard.stored.get(late.id)!;
    expect(Date.parse(stored.at) - Date.parse(late.at)).toBeGreaterThan(3_590_000);
    expect(stored.clockMs).toBe(Date.parse(stored.at) - Date.parse(late.at));
    const next = await queue.add("d-1", told("lanyard"));
    expect(next.clockMs).toBe(stored.clockMs);
    await queue.sendAll();
    expect(yard.stored.get(next.id)).toEqual(next);
    expect(queue.listOf("d-1")).toContainEqual(stored);
  });

  it("leaves a clock alone that is about right", async () => {
    yard.setClock(1500);
    const queue = await openQueue();
    const entry = await queue.add("d-1", told("horn"));
    await queue.sendAll();
    expect(yard.stored.get(entry.id)).toEqual(entry);
  });

  it("sends an entry again just as it was sent before, though the clock is known only now", async () => {
    const queue = await openQueue();
    let isLost = true;
    vi.stubGlobal("fetch", async (path: string, init: { body: string }) => {
      const answer = await yard.fetchFrom(path, init);
      // The server has it, the answer is lost on the way.
      if (path.endsWith("/entries") && isLost) throw new TypeError("failed to fetch");
      return answer;
    });
    const entry = await queue.add("d-1", told("horn"));
    await until(() => !queue.getStatus().hasSignal);
    yard.setClock(7_200_000);
    forgetServer();
    isLost = false;
    await queue.sendAll();
    expect(yard.stored.size).toBe(1);
    expect(yard.stored.get(entry.id)).toEqual(entry);
  });

  it("keeps a photo here, through a reload, until the server has it, and shows it meanwhile", async () => {
    yard.become("silent");
    const first = await openQueue();
    const photo = await first.addPhoto(new Blob(["picture"], { type: "image/jpeg" }));
    expect(first.findPhoto(photo)).toMatch(/^blob:/);
    expect(first.getStatus().unsent).toBe(1);
    const afterReload = await openQueue();
    expect(afterReload.findPhoto(photo)).toMatch(/^blob:/);
    yard.become("takes");
    await afterReload.sendAll();
    expect([...yard.photos]).toEqual([[photo, 1]]);
    const onceMore = await openQueue();
    expect(onceMore.getStatus().unsent).toBe(0);
  });

  it("takes in what others enter, once, and has it after a reload without signal", async () => {
    const queue = await openQueue();
    const mine = await queue.add("d-1", told("horn"));
    await queue.sendAll();
    const theirs = {
      ...mine,
      id: `${mine.id.slice(0, 25)}${mine.id.endsWith("0") ? "1" : "0"}`,
      by: "tobin",
      device: "tablet-2",
    };
    const heard = vi.fn();
    queue.subscribe(heard);
    await queue.receive([theirs, mine]);
    await queue.receive([theirs]);
    expect(heard).toHaveBeenCalledOnce();
    yard.become("silent");
    const afterReload = await openQueue();
    expect(new Set(afterReload.listOf("d-1").map(({ id }) => id))).toEqual(new Set([mine.id, theirs.id]));
    expect(afterReload.getStatus().unsent).toBe(0);
  });

  it("sends only the marks of who is signed in; another's wait for them", async () => {
    yard.become("silent");
    const queue = await openQueue("tobin");
    const his = await queue.add("d-1", told("horn"));
    await expect(queue.sendAll()).rejects.toMatchObject({ code: "no-signal" });
    yard.become("takes");
    queue.setUser({ id: "nessa", name: "Nessa Quill" });
    const hers = await queue.add("d-1", told("lanyard"));
    await until(() => yard.stored.has(hers.id));
    expect(yard.stored.has(his.id)).toBe(false);
    expect(queue.getStatus().unsent).toBe(1);
    queue.setUser({ id: "tobin", name: "Tobin Ashgrove" });
    await until(() => yard.stored.has(his.id) && queue.getStatus().unsent === 0);
  });

  it("makes no mark for nobody", async () => {
    const queue = openQueueHere();
    await queue.ready;
    await expect(queue.add("d-1", told("horn"))).rejects.toThrow("nobody");
    expect(queue.listOf("d-1")).toEqual([]);
  });

  it("hears of every delivery whose entries were sent", async () => {
    const queue = await openQueue();
    const sent = vi.fn();
    queue.onSent(sent);
    await queue.add("d-1", told("horn"));
    await queue.add("d-2", told("horn"));
    await until(() => queue.getStatus().unsent === 0);
    expect(new Set(sent.mock.calls.map(([delivery]) => delivery))).toEqual(new Set(["d-1", "d-2"]));
  });
});
