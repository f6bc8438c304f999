import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { gearPacks } from "../content/index.ts";
import { toInstant } from "../core/dates/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let token: string;
const delivery = "d-w097";
const plan = {
  name: "Round the island",
  date: "2026-06-13",
  departAt: "10:00",
  from: { lat: 45.2, lon: -93.4 },
  legs: [{ to: "Island", nm: 9 }],
  cruiseKn: 20,
  burnLph: 60,
  fuelL: 300,
  stayH: 2,
  wind: [],
  windSource: "typed",
  windOn: null,
  windLimitKn: 15,
  anchor: null,
  people: [{ name: "Guest One", isChild: false }],
  gearPack: gearPacks[0]!.id,
  offshoreNm: 0,
  aboard: [],
  ashore: { name: "Cy Hollick", phone: "555 0100" },
};
const entry = (by: string, change: object) => ({
  id: ulid(),
  delivery,
  at: toInstant(Date.now()),
  by,
  device: "phone-1",
  ...change,
});
const step = (by: string, change: object = {}) =>
  entry(by, {
    kind: "step",
    sequence: "launch",
    run: "launch-2026-06-13",
    step: "chock",
    role: "helper",
    as: "done",
    ...change,
  });
const asOwner = (entries: object[]) => store.stranger.send("POST", `/api/owner/${token}/entries`, { entries });

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  token = (await nessa.send("POST", `/api/deliveries/${delivery}/link`, { isRemote: false })).body.token;
});
afterAll(() => store.stop());

describe("steps and trips of a boat that was handed over", () => {
  it("are taken from owner and store after the seal, once, and go on from it", async () => {
    const [theirs, ours] = [step("owner", { device: "owner-page" }), step("nessa", { step: "leak", role: "skipper" })];
    for (let i = 0; i < 2; i++) {
      expect((await asOwner([theirs])).status).toBe(200);
      expect((await nessa.send("POST", `/api/deliveries/${delivery}/entries`, { entries: [ours] })).status).toBe(200);
    }
    const { entries, seal } = (await nessa.get(`/api/deliveries/${delivery}`)).body;
    expect(seal).not.toBeNull();
    expect(entries.filter(({ kind }: { kind: string }) => kind === "step")).toHaveLength(2);
  });

  it("refuse what cannot be: a reading that is not what was typed, a role that is none, a trip with wind going backwards", async () => {
    const code = async (bad: object) => (await asOwner([bad])).status;
    expect(await code(step("owner", { value: 41, typed: { value: 104, unit: "°F" } }))).toBe(422);
    expect(await code(step("owner", { role: "captain" }))).toBe(422);
    const wind = [
      { at: "12:00", kn: 5 },
      { at: "11:00", kn: 5 },
    ];
    expect(await code(entry("owner", { kind: "trip", trip: "t-1", plan: { ...plan, wind } }))).toBe(422);
    expect(await code(entry("owner", { kind: "trip", trip: "t-1", plan: { ...plan, cruiseKn: 0 } }))).toBe(422);
    expect(await code(step("nessa"))).toBe(403);
  });

  it("print the float plan for whoever planned it, until it is called off", async () => {
    const trip = "t-island";
    expect((await asOwner([entry("owner", { kind: "trip", trip, plan })])).status).toBe(200);
    for (const [who, address] of [
      [nessa, `/api/deliveries/${delivery}/trips/${trip}/plan.pdf`],
      [store.stranger, `/api/owner/${token}/trips/${trip}/plan.pdf`],
    ] as const) {
      const answer = await who.get(address);
      expect([answer.status, answer.headers.get("content-type")]).toEqual([200, "application/pdf"]);
    }
    const spanish = await store.readPaper(nessa, `/api/deliveries/${delivery}/trips/${trip}/plan.pdf?language=es`);
    expect(spanish).toMatch(/Plan de salida: Round the island.*13 de junio de 2026/);
    expect(spanish).toMatch(/Viento sin comprobar: .*Extintor.*Dónde están los chalecos/);
    expect(spanish).not.toMatch(/Sunset|Aboard|Wind|missing|Where the|page \d of/);
    expect((await store.stranger.get(`/api/deliveries/${delivery}/trips/${trip}/plan.pdf`)).status).toBe(401);
    expect((await nessa.get(`/api/deliveries/${delivery}/trips/other/plan.pdf`)).status).toBe(404);
    await asOwner([entry("owner", { kind: "trip", trip, plan: null })]);
    expect((await nessa.get(`/api/deliveries/${delivery}/trips/${trip}/plan.pdf`)).status).toBe(404);
  });
});

describe("the wind", () => {
  it("is made up in the demo, says so, reads the same twice, and is refused for what is no place", async () => {
    const ask = (query: string) => store.stranger.get(`/api/wind?${query}`);
    const there = "lat=45.2&lon=-93.4&date=2026-06-13";
    const first = await ask(there);
    expect(first.body.source).toBe("made-up");
    expect(first.body.wind.length).toBeGreaterThan(12);
    expect((await ask(there)).body).toEqual(first.body);
    expect((await ask("lat=145&lon=0&date=2026-06-13")).status).toBe(422);
    expect((await ask("lat=45&lon=0&date=soon")).status).toBe(422);
  });
});
