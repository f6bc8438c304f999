import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Entry } from "../../core/walk/index.ts";
import { createJournal, type Journal, type NewEntry } from "./journal.ts";

/** A yard at the other end of the line: it may be out of reach, refuse, or take what it is sent. */
function createYard() {
  const stored = new Map<string, Entry>();
  const posts: string[][] = [];
  let mood: "takes" | "silent" | "refuses" = "takes";
  const fetchFrom = async (_: string, init: { body: string }) => {
    const { entries } = JSON.parse(init.body) as { entries: Entry[] };
    posts.push(entries.map(({ id }) => id));
    if (mood === "silent") throw new TypeError("failed to fetch");
    if (mood === "refuses") return new Response(JSON.stringify({ error: { code: "sealed" } }), { status: 409 });
    const known = entries.filter(({ id }) => stored.has(id)).map(({ id }) => id);
    for (const entry of entries) stored.set(entry.id, entry);
    const fresh = entries.map(({ id }) => id).filter((id) => !known.includes(id));
    return new Response(JSON.stringify({ stored: fresh, known }), { status: 200 });
  };
  return {
    stored,
    posts,
    fetchFrom,
    become(next: typeof mood) {
      mood = next;
    },
  };
}

const told = (topic: string): NewEntry => ({ kind: "mark", topic, mark: "told", person: null, spentS: 3 });
let yard: ReturnType<typeof createYard>;
let events: EventTarget;

beforeEach(() => {
  vi.stubGlobal("indexedDB", new IDBFactory());
  events = new EventTarget();
  vi.stubGlobal("window", events);
  vi.stubGlobal("navigator", { onLine: true });
  yard = createYard();
  vi.stubGlobal("fetch", yard.fetchFrom);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const until = (isSo: () => boolean) => vi.waitFor(() => expect(isSo()).toBe(true), { timeout: 5000 });

async function openJournal(user = "nessa"): Promise<Journal> {
  const journal = createJournal("tablet-1");
  await journal.ready;
  journal.setUser(user);
  return journal;
}

describe("the journal", () => {
  it("counts a mark at once, and sends it", async () => {
    const journal = await openJournal();
    const promise = journal.add("d-1", told("lanyard"));
    expect(journal.listOf("d-1")).toHaveLength(1);
    expect(journal.getStatus().unsent).toBe(1);
    const entry = await promise;
    expect(entry).toMatchObject({ delivery: "d-1", by: "nessa", device: "tablet-1", topic: "lanyard" });
    await until(() => journal.getStatus().unsent === 0);
    expect([...yard.stored.keys()]).toEqual([entry.id]);
    expect(journal.getStatus()).toMatchObject({ hasSignal: true, refusal: null });
    expect(journal.listOf("d-1")).toEqual([entry]);
  });

  it("tells those who listen, until they stop", async () => {
    const journal = await openJournal();
    const heard = vi.fn();
    const stop = journal.subscribe(heard);
    await journal.add("d-1", told("lanyard"));
    const before = heard.mock.calls.length;
    expect(before).toBeGreaterThan(0);
    await until(() => journal.getStatus().unsent === 0);
    stop();
    const atStop = heard.mock.calls.length;
    await journal.add("d-1", told("horn"));
    expect(heard.mock.calls.length).toBe(atStop);
  });

  it("keeps what was marked without signal, through a reload, and sends it in order", async () => {
    yard.become("silent");
    const first = await openJournal();
    const made: string[] = [];
    for (const topic of ["horn", "lanyard", "flush"]) made.push((await first.add("d-1", told(topic))).id);
    await until(() => !first.getStatus().hasSignal);
    expect(yard.stored.size).toBe(0);

    yard.become("takes");
    const afterReload = await openJournal();
    expect(
      afterReload
        .listOf("d-1")
        .map(({ id }) => id)
        .sort(),
    ).toEqual([...made].sort());
    await until(() => afterReload.getStatus().unsent === 0);
    expect(yard.posts.at(-1)).toEqual([...made].sort());
    expect(yard.stored.size).toBe(3);

    const onceMore = await openJournal();
    expect(onceMore.getStatus().unsent).toBe(0);
    expect(onceMore.listOf("d-1")).toHaveLength(3);
  });

  it("tries again by itself, waiting longer each time, and at once when signal returns", async () => {
    yard.become("silent");
    const journal = await openJournal();
    await journal.add("d-1", told("horn"));
    await until(() => yard.posts.length >= 1 && !journal.getStatus().hasSignal);
    const tries = yard.posts.length;
    yard.become("takes");
    events.dispatchEvent(new Event("online"));
    await until(() => journal.getStatus().unsent === 0);
    expect(yard.posts.length).toBe(tries + 1);
    expect(journal.getStatus().hasSignal).toBe(true);
  });

  it("says so when the browser loses signal", async () => {
    const journal = await openJournal();
    events.dispatchEvent(new Event("offline"));
    expect(journal.getStatus().hasSignal).toBe(false);
  });

  it("keeps what the yard refuses and says why", async () => {
    yard.become("refuses");
    const journal = await openJournal();
    await journal.add("d-1", told("horn"));
    await until(() => journal.getStatus().refusal !== null);
    expect(journal.getStatus()).toMatchObject({ unsent: 1, hasSignal: true });
    expect(journal.getStatus().refusal?.code).toBe("sealed");
    await expect(journal.sendAll()).rejects.toMatchObject({ code: "sealed" });
    expect(journal.listOf("d-1")).toHaveLength(1);
  });

  it("sends only the marks of who is signed in; another's wait for them", async () => {
    yard.become("silent");
    const journal = await openJournal("tobin");
    const his = await journal.add("d-1", told("horn"));
    await expect(journal.sendAll()).rejects.toMatchObject({ code: "no-signal" });
    yard.become("takes");
    journal.setUser("nessa");
    const hers = await journal.add("d-1", told("lanyard"));
    await until(() => yard.stored.has(hers.id));
    expect(yard.stored.has(his.id)).toBe(false);
    expect(journal.getStatus().unsent).toBe(1);
    journal.setUser("tobin");
    await until(() => yard.stored.has(his.id));
    expect(journal.getStatus().unsent).toBe(0);
  });

  it("makes no mark for nobody", async () => {
    const journal = createJournal("tablet-1");
    await journal.ready;
    await expect(journal.add("d-1", told("horn"))).rejects.toThrow("nobody");
    expect(journal.listOf("d-1")).toEqual([]);
  });

  it("hears of every delivery whose entries were sent", async () => {
    const journal = await openJournal();
    const sent = vi.fn();
    journal.onSent(sent);
    await journal.add("d-1", told("horn"));
    await journal.add("d-2", told("horn"));
    await until(() => journal.getStatus().unsent === 0);
    expect(new Set(sent.mock.calls.map(([delivery]) => delivery))).toEqual(new Set(["d-1", "d-2"]));
  });
});
