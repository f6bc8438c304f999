import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { DockCall, DockCallSheet } from "../api/index.ts";
import { faultContent } from "../content/index.ts";
import { toInstant } from "../core/dates/index.ts";
import type { CallFault } from "../core/faults/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let token: string;
let nowMs = Date.now();
const delivery = "d-p615";
const fault = (change: Partial<CallFault> = {}): CallFault => ({
  functions: { "horn-sounds": false },
  components: {},
  fails: "Horn sounds",
  atStake: ["horn-stuck", "breaker-out", "bank-low"],
  cause: null,
  minutes: 4,
  goesOn: null,
  ...change,
});
const entry = (change: object) => ({
  id: ulid(),
  delivery,
  at: toInstant(nowMs),
  by: "nessa",
  device: "t",
  kind: "call",
  topic: null,
  note: "No sound",
  ...change,
});
const post = (change: object) => {
  const made = entry(change);
  return nessa.send("POST", `/api/deliveries/${delivery}/entries`, { entries: [made] }).then(() => made.id);
};
const postAsOwner = (change: object) => {
  const made = entry({ by: "owner", device: "owner-page", kind: "ask", ...change });
  return store.stranger.send("POST", `/api/owner/${token}/entries`, { entries: [made] }).then(() => made.id);
};
const read = async (): Promise<DockCallSheet> => (await nessa.get("/api/dock-calls")).body as never;
const has = (calls: readonly DockCall[], id: string) => calls.some((call) => call.id === id);
const priorOf = ({ learned }: Pick<DockCallSheet, "learned">, kind: string) =>
  learned.find((each) => each.kind === kind && each.family === null)?.prior ??
  faultContent.kinds.find(({ id }) => id === kind)!.prior;

beforeAll(async () => {
  store = await openTestStore({ nowMs: () => nowMs });
  nessa = await store.signIn("nessa");
  token = (await nessa.send("POST", `/api/deliveries/${delivery}/link`, { isRemote: false })).body.token;
});
afterAll(() => store.stop());

describe("dock calls", () => {
  it("stand open with their boat until one that goes on from them finds the cause", async () => {
    const open = await post({ fault: fault() });
    expect((await read()).open.find(({ id }) => id === open)).toMatchObject({
      boat: "p615",
      fails: "Horn sounds",
      by: "Nessa Quill",
      cause: null,
    });
    const cause = { kind: "horn-stuck", label: "Horn wet or corroded" };
    const closing = await post({ topic: "horn", fault: fault({ cause, goesOn: open }) });
    const after = await read();
    expect(has(after.open, open)).toBe(false);
    expect(after.closed.find(({ id }) => id === closing)).toMatchObject({ cause: "Horn wet or corroded", minutes: 4 });
  });

  it("an owner's question stands among them, closes nobody's, and moves no likelihood", async () => {
    const open = await post({ fault: fault() });
    const before = await read();
    const cause = { kind: "bank-low", label: "Battery low" };
    const asked = await postAsOwner({ fault: fault({ cause, goesOn: open }) });
    const later = await read();
    expect(later.closed.find(({ id }) => id === asked)).toMatchObject({ by: null });
    expect(has(later.open, open)).toBe(true);
    expect(later.learned).toEqual(before.learned);
  });

  it("make their cause likelier, for owners' pages too, until somebody begins anew", async () => {
    const before = await read();
    const cause = { kind: "breaker-out", label: "Breaker out" };
    await post({ topic: "breakers", fault: fault({ cause }) });
    const after = await read();
    expect(priorOf(after, "breaker-out")).toBeGreaterThan(priorOf(before, "breaker-out"));
    expect(priorOf(after, "bank-low")).toBeLessThan(priorOf(before, "bank-low"));
    const page = (await store.stranger.get(`/api/owner/${token}`)).body;
    expect(priorOf({ learned: page.learnedFaults }, "breaker-out")).toBe(priorOf(after, "breaker-out"));

    nowMs += 60_000;
    expect((await nessa.send("POST", "/api/dock-calls/forget", {})).status).toBe(403);
    const ines = await store.signIn("ines");
    expect((await ines.send("POST", "/api/dock-calls/forget", {})).status).toBe(200);
    const anew = await read();
    expect(anew.learned).toEqual([]);
    expect(anew.closed.length).toBe(after.closed.length);
  });

  it("take a topic further once buyers ring about it often, and the library says why", async () => {
    const library = async () => (await nessa.get("/api/library")).body;
    expect((await library()).raised["livewell-overflow"]).toBeUndefined();
    const cause = { kind: "well-timer", label: "Timer between two runs" };
    for (let i = 0; i < 3; i++)
      await post({ topic: "livewell-overflow", fault: fault({ cause, atStake: ["well-timer"] }) });
    // Plans are not moved under those who walk them: it counts from tomorrow.
    expect((await library()).raised["livewell-overflow"]).toBeUndefined();
    nowMs += 86_400_000;
    nessa = await store.signIn("nessa");
    const raised = (await library()).raised["livewell-overflow"];
    expect(raised).toMatchObject({ calls: 3 });
    const { topics } = await library();
    const now = topics.find(({ id }: { id: string }) => id === "livewell-overflow");
    expect(raised.level === now.level && raised.value === now.value).toBe(false);
  });
});
