import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { firstEpoch } from "../../api/epoch.ts";
import type { Entry } from "../../core/walk/index.ts";
import { leaveQueues, openDevice, openQueueHere } from "../testing/queueStage.ts";
import { forgetServer } from "./clock.ts";
import type { NewEntry, SyncQueue } from "./syncQueue.ts";

/** A store that can be put back to what it was at a moment before. */
function createYard() {
  let entries = new Map<string, Entry>();
  let epoch: string = firstEpoch;
  const asked: string[] = [];
  const isAway = { now: false };
  const answer = (value: unknown) => new Response(JSON.stringify(value));
  vi.stubGlobal("fetch", async (path: string, init: { body: string }) => {
    if (isAway.now) throw new TypeError("failed to fetch");
    asked.push(path);
    if (path === "/api/clock") return answer({ nowMs: Date.now(), epoch });
    const body = JSON.parse(init.body) as {
      ids: string[];
      entries: Entry[];
      acknowledged?: { epoch: string; number: number };
    };
    if (path === "/api/entries/missing") return answer({ missing: body.ids.filter((id) => !entries.has(id)) });
    // It holds less than it had told this device: another epoch begins.
    if ((body.acknowledged?.number ?? 0) > entries.size && body.acknowledged?.epoch === epoch) epoch = "behind";
    for (const entry of body.entries) entries.set(entry.id, entry);
    const acknowledged = { epoch, number: entries.size, proof: "" };
    return answer({ stored: body.entries.map(({ id }) => id), known: [], acknowledged });
  });
  return {
    asked,
    isAway,
    list: () => [...entries.values()],
    take: (entry: Entry) => entries.set(entry.id, entry),
    copy: () => new Map(entries),
    /** An older copy of its folder opens as if nothing was missing. */
    lose: (to: Map<string, Entry>) => {
      entries = new Map(to);
    },
    restore(to: Map<string, Entry>, id = "second") {
      entries = new Map(to);
      epoch = id;
      forgetServer();
    },
  };
}

let yard: ReturnType<typeof createYard>;
let events: EventTarget;
beforeEach(() => {
  events = openDevice();
  yard = createYard();
});
afterEach(async () => {
  await leaveQueues();
  vi.unstubAllGlobals();
});

const told = (topic: string): NewEntry => ({ kind: "mark", topic, mark: "told", person: null, spentS: 3 });
const nessa = { id: "nessa", name: "Nessa Quill" };
async function openQueue(person: { id: string; name: string } | null = nessa): Promise<SyncQueue> {
  const queue = openQueueHere();
  await queue.ready;
  queue.setUser(person);
  return queue;
}
const foreign = (id: string): Entry =>
  ({
    ...(told("horn") as object),
    id,
    delivery: "d-1",
    at: new Date().toISOString(),
    by: "jonas",
    device: "tablet-9",
  }) as Entry;

it("what a store that was put back lacks is sent again, just as it was, and nothing else", async () => {
  const queue = await openQueue();
  const kept = await queue.add("d-1", told("horn"));
  await queue.sendAll();
  const backup = yard.copy();
  const lost = await queue.add("d-1", told("switch"));
  await queue.sendAll();
  yard.restore(backup);
  const later = await queue.add("d-1", told("bilge"));
  await queue.sendAll();
  await vi.waitFor(() => expect(yard.list().map(({ id }) => id)).toEqual([kept.id, lost.id, later.id].toSorted()));
  expect(yard.list().find(({ id }) => id === lost.id)).toEqual(lost);
  expect(queue.getStatus().unsent).toBe(0);
});

it("a store that lost something without knowing it learns of it at the next post, and gets it back", async () => {
  const queue = await openQueue();
  await queue.add("d-1", told("horn"));
  await queue.sendAll();
  const older = yard.copy();
  const lost = [await queue.add("d-1", told("switch")), await queue.add("d-1", told("anchor"))];
  await queue.sendAll();
  await leaveQueues();
  yard.lose(older);
  const again = await openQueue();
  await again.add("d-1", told("bilge"));
  await again.sendAll();
  await vi.waitFor(() => expect(yard.list()).toHaveLength(4));
  expect(yard.list().find(({ id }) => id === lost[1]!.id)).toEqual(lost[1]);
});

it("a tablet that was closed meanwhile does so when it is opened, and after that asks no more", async () => {
  const queue = await openQueue();
  const backup = yard.copy();
  await queue.add("d-1", told("switch"));
  await queue.sendAll();
  await leaveQueues();
  yard.restore(backup);
  const again = await openQueue();
  await vi.waitFor(() => expect(yard.list()).toHaveLength(1));
  await vi.waitFor(() => expect(again.getStatus().unsent).toBe(0));
  await leaveQueues();
  forgetServer();
  yard.asked.length = 0;
  await (await openQueue()).sendAll();
  expect(yard.asked).toEqual(["/api/clock"]);
});

it("one that had its page open all the time looks again when it is touched", async () => {
  const queue = await openQueue();
  await queue.add("d-1", told("switch"));
  await queue.sendAll();
  yard.restore(new Map());
  events.dispatchEvent(new Event("focus"));
  await vi.waitFor(() => expect(yard.list()).toHaveLength(1));
});

it("nothing is lost where the signal goes in the middle: the next look goes on", async () => {
  const queue = await openQueue();
  await queue.add("d-1", told("switch"));
  await queue.sendAll();
  yard.restore(new Map());
  yard.isAway.now = true;
  await queue.sendAll().catch(() => undefined);
  yard.isAway.now = false;
  await leaveQueues();
  await openQueue();
  await vi.waitFor(() => expect(yard.list()).toHaveLength(1));
});

it("what others wrote waits here in their name, until their own device has brought it", async () => {
  const queue = await openQueue();
  const theirs = [foreign("01J00000000000000000000001"), foreign("01J00000000000000000000002")];
  for (const entry of theirs) yard.take(entry);
  await queue.receive(theirs);
  await queue.sendAll();
  yard.restore(new Map());
  await queue.sendAll();
  await vi.waitFor(() => expect(queue.getStatus().others).toEqual([{ name: "jonas", count: 2 }]));
  expect(yard.list()).toEqual([]);
  // One is told by the news of the handover, the other found when this device is opened the next time.
  yard.take(theirs[0]!);
  await queue.receive([theirs[0]!]);
  expect(queue.getStatus().others).toEqual([{ name: "jonas", count: 1 }]);
  yard.take(theirs[1]!);
  await leaveQueues();
  const again = await openQueue();
  await vi.waitFor(() => expect(again.getStatus().others).toEqual([]));
});

it("what an owner wrote on their page does not wait here for ever: nobody could send it", async () => {
  const queue = await openQueue();
  const asked = { ...foreign("01J00000000000000000000003"), by: "owner" };
  yard.take(asked);
  await queue.receive([asked]);
  await queue.sendAll();
  yard.restore(new Map());
  await queue.sendAll();
  expect(queue.getStatus()).toMatchObject({ unsent: 0, others: [] });
});

it("an owner's page, where nobody is signed in, asks nothing of it", async () => {
  const queue = await openQueue(null);
  yard.restore(new Map());
  await queue.sendAll();
  expect(yard.asked).toEqual([]);
});
