import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../app/client.ts";
import { leaveQueues, openDevice, openQueueHere } from "../testing/queueStage.ts";

const createQueue = (options = {}) => openQueueHere(options);
const person = (id: string) => ({ id, name: id });

/** A yard that may be out of reach, or not take hours that fall. */
function createYard() {
  const taken: { path: string; body: { id: string; hours: number; answer?: string } }[] = [];
  const yard = { isSilent: false, leastH: 0, taken };
  vi.stubGlobal("fetch", async (path: string, init: { body: string }) => {
    if (yard.isSilent) throw new TypeError("failed to fetch");
    if (path === "/api/clock") return new Response(JSON.stringify({ nowMs: Date.now(), epoch: "first" }));
    const body = JSON.parse(init.body);
    if (body.hours < yard.leastH && body.answer === undefined) {
      const error = { code: "hours-fall", got: body.hours, before: yard.leastH, on: "2026-06-01" };
      return new Response(JSON.stringify({ error }), { status: 409 });
    }
    taken.push({ path, body });
    return new Response(JSON.stringify({ done: true }));
  });
  return yard;
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

const reported = (id: string, hours: number) =>
  ({
    id,
    name: "addOwnerReading",
    params: { token: "t".repeat(22) },
    body: { id, engine: "main", date: "2026-06-20", hours },
    about: "boat",
    says: `${hours} h`,
  }) as const;
const atYard = () => yard.taken.map(({ body }) => body.id);

describe("what is written about a boat", () => {
  it("goes at once where there is signal, and leaves nothing here", async () => {
    const box = createQueue();
    const sent: string[] = [];
    box.onPosted(async ({ id }) => void sent.push(id));
    expect(await box.post(reported("1", 12))).toEqual({ done: true });
    expect(box.listPosts("boat")).toEqual([]);
    expect([atYard(), sent]).toEqual([["1"], ["1"]]);
  });

  it("is kept without signal, through a reload, and goes in the order it was written", async () => {
    yard.isSilent = true;
    const box = createQueue();
    expect(await box.post(reported("1", 12))).toBeNull();
    expect(await box.post(reported("2", 13))).toBeNull();
    const afterReload = createQueue();
    await afterReload.ready;
    expect(afterReload.listPosts("boat").map(({ says }) => says)).toEqual(["12 h", "13 h"]);
    expect([afterReload.getStatus().unsent, afterReload.listPosts("other")]).toEqual([2, []]);
    yard.isSilent = false;
    events.dispatchEvent(new Event("online"));
    await vi.waitFor(() => expect(afterReload.getStatus().unsent).toBe(0));
    // The page of before has them too, and sends the same ones: the yard keeps each once.
    expect([...new Set(atYard())]).toEqual(["1", "2"]);
    expect(await createQueue().ready).toBeUndefined();
  });

  it("that the yard does not take is thrown back at whoever is there, and not kept", async () => {
    yard.leastH = 10;
    const box = createQueue();
    await expect(box.post(reported("1", 4))).rejects.toEqual(
      new Refused({ code: "hours-fall", got: 4, before: 10, on: "2026-06-01" }),
    );
    expect(box.getStatus().unsent).toBe(0);
  });

  it("that the yard does not take later stays here with its reason, and goes with the answer", async () => {
    yard.isSilent = true;
    yard.leastH = 10;
    const box = createQueue();
    await box.post(reported("1", 4));
    yard.isSilent = false;
    expect(await box.post(reported("2", 14))).toEqual({ done: true });
    expect(box.listPosts("boat")[0]).toMatchObject({ id: "1", refusal: { code: "hours-fall", before: 10 } });
    events.dispatchEvent(new Event("online"));
    await box.answerPost("1", { answer: "meter-changed" });
    expect(box.getStatus().unsent).toBe(0);
    expect(yard.taken.at(-1)!.body).toMatchObject({ id: "1", hours: 4, answer: "meter-changed" });
  });

  it("that the server fails on waits, and holds back nothing behind it", async () => {
    const answering = globalThis.fetch;
    vi.stubGlobal("fetch", async (path: string, init: { body: string }) =>
      JSON.parse(init.body).id === "1"
        ? new Response(JSON.stringify({ error: { code: "unexpected" } }), { status: 500 })
        : answering(path, init),
    );
    const box = createQueue();
    expect(await box.post(reported("1", 12))).toBeNull();
    expect(await box.post(reported("2", 13))).toEqual({ done: true });
    expect([atYard(), box.listPosts("boat").map(({ id }) => id)]).toEqual([["2"], ["1"]]);
    vi.stubGlobal("fetch", answering);
    events.dispatchEvent(new Event("online"));
    await vi.waitFor(() => expect(atYard()).toEqual(["2", "1"]));
  });

  it("can be taken back while it lies here", async () => {
    yard.isSilent = true;
    const box = createQueue();
    await box.post(reported("1", 4));
    await box.discardPost("1");
    yard.isSilent = false;
    events.dispatchEvent(new Event("online"));
    await box.post(reported("2", 5));
    expect(atYard()).toEqual(["2"]);
  });

  it("by somebody of the yard waits for them, not for whoever signs in next", async () => {
    yard.isSilent = true;
    const box = createQueue();
    box.setUser(person("nessa"));
    const { params: _, ...post } = reported("1", 12);
    await box.post({
      ...post,
      name: "addReading",
      params: { boat: "w097" },
      body: { ...post.body, source: "phone" },
    });
    box.setUser(person("tobin"));
    yard.isSilent = false;
    await box.post(reported("2", 13));
    expect(atYard()).toEqual(["2"]);
    box.setUser(person("nessa"));
    await vi.waitFor(() => expect(atYard()).toEqual(["2", "1"]));
    expect(yard.taken.at(-1)!.path).toBe("/api/boats/w097/readings");
  });

  it("waits no longer for a weak signal than people do", async () => {
    let release = (_: Response) => {};
    vi.stubGlobal("fetch", () => {
      return new Promise<Response>((resolve) => {
        release = resolve;
      });
    });
    const box = createQueue({ patienceMs: 10 });
    expect(await box.post(reported("1", 12))).toBeNull();
    expect(box.getStatus().unsent).toBe(1);
    release(new Response(JSON.stringify({ done: true })));
    await vi.waitFor(() => expect(box.getStatus().unsent).toBe(0));
  });
});
