import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
const towing = async (boat = "w118") => (await nessa.get(`/api/boats/${boat}/towing`)).body;
const launch = (change: object = {}) => ({
  id: ulid(),
  at: toInstant(Date.now()),
  ramp: "Ondrel, north ramp",
  gradePct: 13,
  fenderUnderM: 0.07,
  ...change,
});

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
});
afterAll(() => store.stop());

describe("what a boat is towed and launched with", () => {
  it("is nothing at first, but the ramps people go to are known", async () => {
    const sheet = await towing();
    expect(sheet).toMatchObject({ vehicle: null, launches: [] });
    expect(sheet.ramps.map(({ name }: { name: string }) => name)).toContain("Ondrel, north ramp");
    expect((await nessa.get("/api/boats/none/towing")).status).toBe(404);
  });

  it("keeps the buyer's car, which goes with them and not with the boat", async () => {
    const car = { name: "Their estate car", towLimitKg: 2500, ballMm: 50, pins: 7, wadeLimitM: 0.3 };
    expect((await nessa.send("PUT", "/api/boats/w097/vehicle", car)).status).toBe(200);
    expect((await towing("w097")).vehicle).toEqual(car);
    const handover = { boat: "w097", date: "2030-05-01", time: "10:00", note: "", buyers: ["Other Folk"] };
    const added = await nessa.send("POST", "/api/deliveries", handover);
    expect(added.status, JSON.stringify(added.body)).toBe(200);
    expect((await towing("w097")).vehicle).toBeNull();
  });

  it("keeps a launch once however often it is sent, with who saw it, and lets one be taken out", async () => {
    const seen = launch();
    await nessa.send("POST", "/api/boats/w118/launches", seen);
    await nessa.send("POST", "/api/boats/w118/launches", seen);
    expect((await towing()).launches).toEqual([{ ...seen, by: "Nessa Quill" }]);
    expect((await nessa.send("DELETE", `/api/boats/w118/launches/${seen.id}`, null)).status).toBe(200);
    expect((await towing()).launches).toEqual([]);
    expect((await nessa.send("DELETE", `/api/boats/w118/launches/${seen.id}`, null)).status).toBe(404);
  });

  it("refuses grades and marks that cannot be, in words", async () => {
    for (const change of [{ gradePct: 0 }, { gradePct: 46 }, { fenderUnderM: 9 }, { at: "yesterday" }])
      expect((await nessa.send("POST", "/api/boats/w118/launches", launch(change))).status).toBe(422);
    const flat = { name: "Flat", riseM: 0, runM: 2, surface: "concrete", isDriveOn: false, staging: "" };
    expect((await nessa.send("PUT", "/api/ramps/flat", flat)).status).toBe(422);
  });

  it("learns a ramp and forgets it; a technician does neither", async () => {
    const slip = { name: "Slip", riseM: 0.3, runM: 2, surface: "planks", isDriveOn: true, staging: "" };
    expect((await nessa.send("PUT", "/api/ramps/slip", slip)).status).toBe(200);
    expect((await towing()).ramps).toContainEqual({ ...slip, id: "slip" });
    const tobin = await store.signIn("tobin");
    expect((await tobin.send("PUT", "/api/ramps/slip", slip)).status).toBe(403);
    expect((await nessa.send("DELETE", "/api/ramps/slip", null)).status).toBe(200);
    expect((await nessa.send("DELETE", "/api/ramps/slip", null)).status).toBe(404);
  });
});

describe("what does not fit", () => {
  const saveCar = (change: object) =>
    nessa.send("PUT", "/api/boats/w118/vehicle", { name: "Blue van", ballMm: 50, ...change });
  const misfits = async () => (await nessa.get("/api/today")).body.misfits;

  it("stands on Today before the buyer comes, and is gone with the right ball", async () => {
    expect(await misfits()).toEqual([]);
    await saveCar({});
    expect(await misfits()).toMatchObject([
      { boat: "w118", delivery: "d-w118", car: "Blue van", says: ["Ball and coupler"] },
    ]);
    await saveCar({ ballMm: 58.7375 });
    expect(await misfits()).toEqual([]);
  });

  it("is read by owners on their own page, each for their own boat", async () => {
    const { token } = (await nessa.send("POST", "/api/deliveries/d-w118/link", { isRemote: false })).body;
    const page = async () => (await store.stranger.get(`/api/owner/${token}`)).body;
    expect((await page()).towing.rules.length).toBeGreaterThan(2);
    const car = { name: "Our wagon", ballMm: 50.8 };
    expect((await store.stranger.send("PUT", `/api/owner/${token}/vehicle`, car)).status).toBe(200);
    expect((await page()).towing.vehicle).toEqual(car);
    expect((await towing()).vehicle).toEqual(car);
    expect((await misfits())[0].says).toEqual(["Ball and coupler"]);
    expect((await store.stranger.send("PUT", `/api/owner/${"A".repeat(22)}/vehicle`, car)).status).toBe(410);
    expect((await store.stranger.send("PUT", `/api/owner/${token}/vehicle`, { ballMm: 50 })).status).toBe(422);
  });
});

describe("rules of the region", () => {
  it("are written by those who keep the store's, come before what ships, and can be deleted", async () => {
    const { rules } = await towing();
    const ours = { ...rules[0], id: "lake-country", name: "Lake country", brakesAboveKg: 500 };
    expect((await nessa.send("PUT", "/api/tow-rules", ours)).status).toBe(403);
    const odile = await store.signIn("odile");
    expect(
      (await odile.send("PUT", "/api/tow-rules", { ...ours, tongueShareMin: 0.4, tongueShareMax: 0.2 })).status,
    ).toBe(422);
    expect((await odile.send("PUT", "/api/tow-rules", ours)).status).toBe(200);
    const after = await towing();
    expect([after.rules[0].name, after.ownRules]).toEqual(["Lake country", ["lake-country"]]);
    expect((await odile.send("DELETE", "/api/tow-rules/lake-country", null)).status).toBe(200);
    expect((await odile.send("DELETE", "/api/tow-rules/lake-country", null)).status).toBe(404);
    expect((await towing()).rules).toEqual(rules);
  });
});
