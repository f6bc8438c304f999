import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { topics as shipped } from "../content/index.ts";
import { toInstant } from "../core/dates/index.ts";
import type { Topic } from "../core/topic/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
});
afterAll(() => store.stop());

const topicOf = (id: string): Topic => structuredClone(shipped.find((topic) => topic.id === id)!);
const library = async () => (await nessa.get("/api/library")).body;
const told = async (delivery: string, id: string): Promise<Topic> =>
  (await nessa.get(`/api/deliveries/${delivery}`)).body.topics.find((topic: Topic) => topic.id === id);

describe("the store's own wording", () => {
  it("is told from the next look on, kept apart from what ships, and can be taken back", async () => {
    const topic = { ...topicOf("lanyard"), say: "Ours: clip it on before anything else." };
    expect((await nessa.send("PUT", "/api/library/topics/lanyard", topic)).status).toBe(200);
    expect((await told("d-w118", "lanyard")).say).toBe("Ours: clip it on before anything else.");
    const { edits } = await library();
    expect(edits).toEqual([
      {
        topic: "lanyard",
        by: "Nessa Quill",
        at: expect.any(String),
        shipped: topicOf("lanyard"),
        isBehind: false,
        basis: null,
        setAside: null,
      },
    ]);
    expect((await nessa.send("DELETE", "/api/library/topics/lanyard", {})).status).toBe(200);
    expect((await told("d-w118", "lanyard")).say).toContain(topicOf("lanyard").say.slice(0, 20));
    expect((await library()).edits).toEqual([]);
  });

  it("does not change what was sealed", async () => {
    const before = await told("d-w097", "lanyard");
    await nessa.send("PUT", "/api/library/topics/lanyard", {
      ...topicOf("lanyard"),
      say: "Another wording altogether.",
    });
    expect(await told("d-w097", "lanyard")).toEqual(before);
    await nessa.send("DELETE", "/api/library/topics/lanyard", {});
  });

  it("says when what ships has changed since, and an edit that is the shipped text again is none", async () => {
    const topic = topicOf("horn");
    await store.services.topicEdits.write({
      topic: { ...topic, say: "Ours." },
      basis: { ...topic, say: "What shipped last year." },
      by: "Nessa Quill",
      at: "2025-11-01T10:00:00.000Z",
    });
    expect((await library()).edits).toMatchObject([{ topic: "horn", isBehind: true }]);
    await nessa.send("PUT", "/api/library/topics/horn", topic);
    expect((await library()).edits).toEqual([]);
  });

  it("follows topics that were merged: words wait beside the merged one, what named one means the other", async () => {
    const old = { ...topicOf("winch"), id: "winch-handle", title: "Winch handle", was: undefined, say: "Ours." };
    const after = { ...topicOf("horn"), id: "our-own", after: ["winch-handle", "bow-chain"] };
    const written = { by: "Nessa Quill", at: toInstant(Date.parse("2025-11-01T10:00:00Z")) };
    await store.services.topicEdits.write({ topic: old, basis: old, ...written });
    await store.services.topicEdits.write({ topic: after, basis: null, ...written });
    const { topics, edits } = await library();
    expect(topics.map(({ id }: Topic) => id)).not.toContain("winch-handle");
    expect(topics.find(({ id }: Topic) => id === "our-own").after).toEqual(["winch"]);
    expect(edits.find(({ topic }: { topic: string }) => topic === "winch-handle")).toMatchObject({
      isBehind: true,
      shipped: { id: "winch" },
      setAside: { say: "Ours." },
    });
    const put = await nessa.send("PUT", "/api/library/topics/winch-handle", old);
    expect(put.body.error).toMatchObject({ code: "topic-merged", into: topicOf("winch").title });
    for (const id of ["our-own", "winch-handle"])
      expect((await nessa.send("DELETE", `/api/library/topics/${id}`, {})).status).toBe(200);
    expect((await library()).edits).toEqual([]);
  });

  it("is refused when the library would not hold together", async () => {
    const put = (topic: Topic) => nessa.send("PUT", `/api/library/topics/${topic.id}`, topic);
    const unknown = await put({ ...topicOf("horn"), after: ["no-such-topic"] });
    expect(unknown.body.error).toMatchObject({
      code: "invalid-input",
      issues: [{ path: "horn.after.0", message: 'no topic "no-such-topic"' }],
    });
    const start = topicOf("start-order");
    const circle = await put({
      ...topicOf("battery-switches"),
      after: [...topicOf("battery-switches").after, start.id],
    });
    expect(circle.status).toBe(409);
    expect(circle.body.error.code).toBe("cycle");
    const ines = await store.signIn("tobin");
    expect((await ines.send("PUT", "/api/library/topics/horn", topicOf("horn"))).status).toBe(403);
  });

  it("takes in a file of topics, all or none, and counts what changed", async () => {
    const own = { ...topicOf("horn"), id: "our-own", title: "What only we teach" };
    const send = (topics: Topic[]) => nessa.send("POST", "/api/library/topics", { topics });
    expect((await send([own, topicOf("horn")])).body).toEqual({ changed: 1, same: 1 });
    expect((await library()).topics.map(({ id }: Topic) => id)).toContain("our-own");
    expect(
      (
        await send([
          { ...topicOf("jackets"), say: "Changed." },
          { ...own, after: ["gone"] },
        ])
      ).status,
    ).toBe(422);
    expect((await library()).edits.map(({ topic }: { topic: string }) => topic)).toEqual(["our-own"]);
    await send([{ ...topicOf("horn"), after: ["our-own"] }]);
    const needed = await nessa.send("DELETE", "/api/library/topics/our-own", {});
    expect(needed.body.error).toMatchObject({ code: "topic-needed", neededBy: topicOf("horn").title });
    await nessa.send("DELETE", "/api/library/topics/horn", {});
    expect((await nessa.send("DELETE", "/api/library/topics/our-own", {})).status).toBe(200);
  });
});

describe("schools and styles", () => {
  it("the school a store picks is what is told, with what it gains and costs", async () => {
    const topic = shipped.find(({ schools }) => schools !== undefined && schools.length > 1)!;
    const other = topic.schools![1]!;
    await nessa.send("PUT", "/api/library/schools", { schools: { [topic.id]: other.id } });
    expect((await library()).schools).toEqual({ [topic.id]: other.id });
    const everywhere = await Promise.all(["d-w118", "d-m204", "d-f207", "d-h402"].map((id) => told(id, topic.id)));
    const here = everywhere.filter((each) => each !== undefined);
    expect(here.length).toBeGreaterThan(0);
    for (const { school } of here) expect(school).toEqual({ id: other.id, name: other.name, tradeOff: other.tradeOff });
    await nessa.send("PUT", "/api/library/schools", { schools: {} });
  });

  it("a style of the store's own is compared, chosen and followed", async () => {
    const style = {
      id: "ours",
      name: "Our way",
      start: "helm",
      end: "coupler",
      sweep: "none",
      trailer: "last",
      systems: ["safety"],
    };
    expect((await nessa.send("PUT", "/api/library/styles", { styles: [style] })).status).toBe(200);
    const { body } = await nessa.get("/api/deliveries/d-w118/plans");
    expect(body.plans.map(({ name }: { name: string }) => name)).toContain("Our way");
    const { body: delivery } = await nessa.get("/api/deliveries/d-w118");
    await nessa.send("PUT", "/api/deliveries/d-w118/plan", { ...delivery.planOptions, style: "ours" });
    const { body: planned } = await nessa.get("/api/deliveries/d-w118");
    expect(planned.plan.style).toBe("ours");
    const kindOf = (id: string) => planned.rig.stations.find((station: { id: string }) => station.id === id).kind;
    expect(kindOf(planned.plan.visits.at(-1).station)).toBe("coupler");
    await nessa.send("PUT", "/api/library/styles", { styles: [] });
    expect((await nessa.get("/api/deliveries/d-w118")).status).toBe(200);
  });
});

describe("the glossary and the plan on paper", () => {
  it("is read in the store's own words, with the originals beside, and never explains a word twice", async () => {
    const glossary = async () => (await nessa.get("/api/glossary")).body;
    const set = (body: object) => nessa.send("PUT", "/api/library/glossary", body);
    const before = await glossary();
    const [first, second] = before.entries;
    const own = { ...first, means: "In our words." };
    await set({ key: first.term, entry: own });
    await set({ key: second.term, entry: null });
    await set({ key: "gunwale pad", entry: { term: "gunwale pad", also: [], means: "A cushion." } });
    const now = await glossary();
    expect(now.entries[0]).toEqual(own);
    expect(now.ours).toEqual([
      { key: first.term, term: first.term, original: first },
      { key: "gunwale pad", term: "gunwale pad", original: null },
    ]);
    expect(now.leftOut).toEqual([second]);
    const twice = await set({ key: "pad", entry: { term: "Gunwale pad", also: [], means: "Again." } });
    expect(twice.body.error.issues?.[0]?.message).toContain("explained twice");
    expect((await (await store.signIn("tobin")).send("PUT", "/api/library/glossary", { key: "x" })).status).toBe(403);
    for (const key of [first.term, second.term, "gunwale pad"]) await set({ key });
    expect(await glossary()).toEqual(before);
    // Two at once: neither is lost.
    await Promise.all([first, second].map(({ term }) => set({ key: term, entry: null })));
    expect((await glossary()).leftOut).toHaveLength(2);
    for (const key of [first.term, second.term]) await set({ key });
  });

  it("explains the trade's words", async () => {
    const { body } = await nessa.get("/api/glossary");
    expect(body.entries.length).toBeGreaterThan(60);
  });

  it("splits what does not fit over a second session", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w118");
    await nessa.send("PUT", "/api/deliveries/d-w118/plan", { ...body.planOptions, budgetMin: 90, secondMin: 30 });
    const { plan, topics } = (await nessa.get("/api/deliveries/d-w118")).body;
    expect(plan.totalMin).toBeLessThanOrEqual(90);
    expect(plan.second.totalMin).toBeLessThanOrEqual(30);
    const first = plan.visits.flatMap((visit: { topics: string[] }) => visit.topics);
    const second = plan.second.visits.flatMap((visit: { topics: string[] }) => visit.topics);
    expect([...first, ...second, ...plan.second.deferred].sort()).toEqual(topics.map(({ id }: Topic) => id).sort());
  });

  it.each(["a4", "letter"])("prints the plan on one page of %s, however long the walk", async (paper) => {
    const response = await fetch(`${store.address}/api/sign-in`, {
      method: "POST",
      headers: { origin: store.address, "content-type": "application/json" },
      body: JSON.stringify({ login: "nessa", password: "slack-water" }),
    });
    const cookie = response.headers.get("set-cookie")!.split(";")[0]!;
    for (const delivery of ["d-w118", "d-h402", "d-m204"]) {
      const { body } = await nessa.get(`/api/deliveries/${delivery}`);
      await nessa.send("PUT", `/api/deliveries/${delivery}/plan`, { ...body.planOptions, budgetMin: null });
      const pdf = await fetch(`${store.address}/api/deliveries/${delivery}/plan.pdf?paper=${paper}`, {
        headers: { cookie },
      });
      expect(pdf.headers.get("content-type")).toBe("application/pdf");
      const text = Buffer.from(await pdf.arrayBuffer()).toString("latin1");
      expect(text.match(/\/Type \/Page\b/g)).toHaveLength(1);
    }
  });
});
