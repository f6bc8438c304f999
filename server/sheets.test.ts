import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { rigTemplates } from "../content/index.ts";
import { addItem, createPart, createRig, type Rig } from "../core/rig/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let ines: Caller;

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  ines = await store.signIn("ines");
});
afterAll(() => store.stop());

const withWiper = (rig: Rig) => addItem(rig, "parts", createPart(rig, "wiper", { xM: 3, yM: 0 }));
const code = (answer: { body: { error: { code: string } } }) => answer.body.error.code;

describe("a rig", () => {
  it("comes with its template, and what is saved is what the next one sees and plans with", async () => {
    const { body: sheet } = await nessa.get("/api/boats/w118/rig");
    expect(sheet).toMatchObject({ boat: "w118", version: 2, template: { id: "wending-23" } });
    const saved = { version: sheet.version, name: sheet.name, hull: sheet.hull, rig: withWiper(sheet.rig) };
    expect(await nessa.send("PUT", "/api/boats/w118/rig", saved)).toMatchObject({ status: 200, body: { version: 3 } });
    const { body: again } = await nessa.get("/api/boats/w118/rig");
    expect(again.version).toBe(3);
    expect(again.rig.parts.at(-1).kind).toBe("wiper");
    const { body: delivery } = await nessa.get("/api/deliveries/d-w118");
    expect(delivery.topics.map(({ id }: { id: string }) => id)).toContain("wiper");
  });

  it("is not overwritten by somebody who has not seen the last save", async () => {
    const { body: sheet } = await nessa.get("/api/boats/w121/rig");
    const save = () =>
      nessa.send("PUT", "/api/boats/w121/rig", { version: sheet.version, name: "A", hull: sheet.hull, rig: sheet.rig });
    const answers = await Promise.all([save(), save()]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(code(await save())).toBe("rig-changed");
  });

  it("is refused when it does not hold together, or from someone who may not", async () => {
    const { body: sheet } = await nessa.get("/api/boats/w112/rig");
    const broken = { version: sheet.version, name: "A", hull: sheet.hull, rig: { ...sheet.rig, stations: [] } };
    expect((await nessa.send("PUT", "/api/boats/w112/rig", broken)).status).toBe(422);
    const whole = { version: sheet.version, name: "A", hull: sheet.hull, rig: sheet.rig };
    expect(code(await ines.send("PUT", "/api/boats/w112/rig", whole))).toBe("not-allowed");
    expect(code(await nessa.send("PUT", "/api/boats/none/rig", whole))).toBe("not-found");
    expect(code(await nessa.send("PUT", "/api/boats/w112/rig", { ...whole, hull: "SLW23118K526" }))).toBe("not-empty");
  });
});

describe("a new boat", () => {
  it("starts from a template, from another boat, or from nothing", async () => {
    const add = (body: object) => nessa.send("POST", "/api/boats", body);
    const first = await add({ name: "Ferrin 20", hull: "slw 30001 a626", template: "ferrin-20" });
    expect(first.body).toEqual({ boat: "slw30001" });
    const second = await add({ name: "Its sister", hull: "SLW30002A626", boat: "slw30001" });
    const rig = createRig({
      family: "pontoon",
      maker: "M",
      model: "N",
      modelYear: 2026,
      loaM: 7,
      beamM: 2.6,
      hasTrailer: false,
    });
    const third = await add({ name: "One off", hull: "unknown yet 3", rig });
    for (const [answer, template] of [
      [second, "ferrin-20"],
      [third, undefined],
    ] as const) {
      const { body } = await nessa.get(`/api/boats/${answer.body.boat}/rig`);
      expect(body.template?.id).toBe(template);
    }
    expect(code(await add({ name: "Twin", hull: "SLW-30001-A626", template: "ferrin-20" }))).toBe("not-empty");
    expect(code(await add({ name: "Twin", hull: "SLW30009A626", template: "none" }))).toBe("not-found");
    expect((await nessa.get("/api/boats")).body.boats.map(({ id }: { id: string }) => id)).toContain("slw30001");
  });

  it("can be planned for a handover at once, with as many people as come", async () => {
    const body = { boat: "h402", date: "2026-12-24", time: "09:00", buyers: ["Aino Brandt", "Ole Brandt"], note: "" };
    const { body: answer } = await nessa.send("POST", "/api/deliveries", body);
    const { body: delivery } = await nessa.get(`/api/deliveries/${answer.delivery}`);
    expect(delivery.buyers).toHaveLength(2);
    // Given with the booking, the buyer is found by phone, and what is known stays where a later one gives none.
    const reach = { phone: "555 0188", email: "aino@brandt.example" };
    await nessa.send("POST", "/api/deliveries", { ...body, ...reach });
    await nessa.send("POST", "/api/deliveries", body);
    const found = (await nessa.get("/api/boats?find=5550188")).body.boats as { id: string }[];
    expect(found.map(({ id }) => id)).toEqual(["h402"]);
    expect((await nessa.send("POST", "/api/deliveries", { ...body, email: "no address" })).status).toBe(422);
    expect(delivery.plan.visits.length).toBeGreaterThan(5);
    expect(code(await nessa.send("POST", "/api/deliveries", { ...body, boat: "none" }))).toBe("not-found");
    expect((await nessa.send("POST", "/api/deliveries", { ...body, buyers: [] })).status).toBe(422);
  });
});

describe("templates", () => {
  it("can be saved from a rig, listed, started from and removed; shipped ones stay", async () => {
    const rig = withWiper(rigTemplates["haldern-25"]);
    const put = (id: string) => nessa.send("PUT", `/api/templates/${id}`, { name: "Haldern 25, wiper", rig });
    expect((await put("haldern-25-wiper")).status).toBe(200);
    const { body } = await nessa.get("/api/templates");
    expect(body.templates).toHaveLength(8);
    expect(body.templates[0]).toMatchObject({ id: "haldern-25-wiper", isShipped: false });
    const { body: boat } = await nessa.send("POST", "/api/boats", {
      name: "H",
      hull: "SLW40001A626",
      template: "haldern-25-wiper",
    });
    expect((await nessa.send("DELETE", "/api/templates/haldern-25-wiper", {})).status).toBe(200);
    expect((await nessa.get(`/api/boats/${boat.boat}/rig`)).body).toMatchObject({ template: null });
    expect(code(await nessa.send("DELETE", "/api/templates/haldern-25-wiper", {}))).toBe("not-found");
    expect(code(await put("haldern-25"))).toBe("template-shipped");
    expect((await nessa.get("/api/templates/ferrin-20")).body.rig.model).toBe("Ferrin 20");
  });
});

describe("a stock list", () => {
  const line = (hull: string, change: object = {}) => ({
    hull,
    name: "Pipit 15",
    start: { template: "pipit-15" },
    maker: null,
    model: null,
    modelYear: 2027,
    loaM: 4.9,
    beamM: null,
    ...change,
  });

  it("adds what is new, and the same list twice adds nothing", async () => {
    const boats = [
      line("SLW50001A627", { stock: "A-17", color: "sand" }),
      line("slw 50002 A627"),
      line("SLW50001A627"),
    ];
    const owner = await store.signIn("odile");
    const send = () => owner.send("POST", "/api/boats/import", { boats });
    expect((await send()).body).toEqual({ added: 2, known: 1 });
    expect((await send()).body).toEqual({ added: 0, known: 3 });
    const { body } = await nessa.get("/api/boats/slw50001/rig");
    expect(body.rig).toMatchObject({ loaM: 4.9, modelYear: 2027 });
    expect((await nessa.get("/api/boats/slw50001")).body).toMatchObject({ stock: "A-17", color: "sand" });
  });

  it("makes a plain boat of a kind where no template was taken", async () => {
    const owner = await store.signIn("odile");
    const boats = [line("SLW50021A627", { start: { family: "cuddy" }, name: "Zephyr 9" })];
    expect((await owner.send("POST", "/api/boats/import", { boats })).body).toEqual({ added: 1, known: 0 });
    const { body } = await nessa.get("/api/boats/slw50021/rig");
    expect(body).toMatchObject({
      template: null,
      rig: { family: "cuddy", model: "Zephyr 9", modelYear: 2027, loaM: 4.9 },
    });
  });

  it("is taken whole or not at all", async () => {
    const owner = await store.signIn("odile");
    const boats = [line("SLW50011A627"), line("SLW50012A627", { start: { template: "none" } })];
    expect(code(await owner.send("POST", "/api/boats/import", { boats }))).toBe("invalid-input");
    expect((await nessa.get("/api/boats/slw50011/rig")).status).toBe(404);
    expect(code(await nessa.send("POST", "/api/boats/import", { boats }))).toBe("not-allowed");
  });
});
