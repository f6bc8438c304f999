import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery, OwnerPage } from "../api/index.ts";
import { createCards } from "../core/card/index.ts";
import { toInstant } from "../core/dates/index.ts";
import { foldWalk } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-papers-"));
let store: TestStore;
let nessa: Caller;
let odile: Caller;

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
});
afterAll(async () => {
  await store.stop();
  rmSync(folder, { recursive: true, force: true });
});

const read = async (id: string) => (await nessa.get(`/api/deliveries/${id}`)).body as unknown as Delivery;
const plan = async (id: string, change: object) =>
  nessa.send("PUT", `/api/deliveries/${id}/plan`, { ...(await read(id)).planOptions, ...change });
const phrase = (language: string, body: object, who = odile) =>
  who.send("PUT", `/api/library/languages/${language}`, body);

describe("phrases of the store's own", () => {
  const text = "A small fire can be put out in the first few seconds. After that you leave the boat.";

  it("stand before those that ship, and go back to them", async () => {
    const words = "Petit feu, quelques secondes. Puis tout le monde quitte le bord.";
    expect((await phrase("fr", { kind: "texts", text, words })).status).toBe(200);
    const { books, own } = (await nessa.get("/api/library/languages")).body;
    const french = books.find(({ language }: { language: string }) => language === "fr");
    expect([french.texts[text], own.fr.texts[text]]).toEqual([words, words]);
    await phrase("fr", { kind: "texts", text, words: null });
    const after = (await nessa.get("/api/library/languages")).body;
    expect(after.books.find(({ language }: { language: string }) => language === "fr").texts[text]).toMatch(
      /^Un petit feu/,
    );
  });

  it("must ask the boat what the text asks, and are written by those who write the library", async () => {
    const asking = { kind: "texts", text: "It is {at:horn}.", words: "Il est là." };
    const refused = await phrase("fr", asking);
    expect([refused.status, refused.body.error.code, refused.body.error.wanted]).toEqual([
      422,
      "braces-differ",
      ["at:horn"],
    ]);
    expect((await phrase("en", { ...asking, text, words: "x" })).status).toBe(422);
    const corwin = await store.signIn("corwin");
    expect((await phrase("fr", { kind: "texts", text, words: "x" }, corwin)).status).toBe(403);
  });

  it("are offered for the places of boats that are handed over next", async () => {
    const { places, labels } = (await nessa.get("/api/library/languages")).body;
    expect(places).toContain("Under the floor hatch");
    expect(labels).toContain("Drain plug");
  });

  it("name a thing aboard without naming the sentence of the same letters, and the other way round", async () => {
    await phrase("fr", { kind: "labels", text: "Afloat", words: "Flotteur" });
    const { books, says } = (await nessa.get("/api/library/languages")).body;
    const [fr] = books;
    expect([fr!.labels.Afloat, fr!.texts.Afloat]).toEqual(["Flotteur", "À flot"]);
    expect(says).toContain("Apart, as they should be");
  });
});

describe("a walk in two languages", () => {
  it("has no other words while nobody needs them", async () => {
    expect((await read("d-w118")).told).toEqual({});
  });

  it("has the staff's and the buyer's, and says them of this boat", async () => {
    await plan("d-w118", { language: "es" });
    expect((await nessa.send("PUT", "/api/language", { language: "fr" })).status).toBe(200);
    expect((await nessa.get("/api/me")).body.language).toBe("fr");
    const { told, topics } = await read("d-w118");
    expect(Object.keys(told).sort()).toEqual(["es", "fr"]);
    const musts = topics.filter(({ must }) => must).map(({ id }) => id);
    expect(Object.keys(told.fr!)).toEqual(expect.arrayContaining(musts));
    expect(told.es!.extinguisher!.say).toMatch(/^El extintor está (en|bajo|sobre|detrás)/);
    expect(told.fr!["drain-plug"]!.say).not.toMatch(/[{}]/);
  });

  it("keeps what was spoken: in the words of that day, sealed with the record", async () => {
    const made = await odile.send("POST", "/api/boats", { name: "Sedge", hull: "SLW23777K526", template: "sedge-18" });
    const body = { boat: made.body.boat, date: store.services.clock.today(), time: "10:00", buyers: ["Dov Anselm"] };
    const { delivery: id } = (await odile.send("POST", "/api/deliveries", { ...body, note: "" })).body;
    const nowMs = Date.now();
    const allow = { id: ulid(nowMs - 9e6), delivery: id, at: toInstant(nowMs - 9e6), by: "odile", device: "t" };
    const post = (entries: object[], who: Caller) => who.send("POST", `/api/deliveries/${id}/entries`, { entries });
    await post([{ ...allow, kind: "allow", reason: "Made ready at the dock" }], odile);
    const before = await read(id);
    const entries = tellWalk(before, {
      by: "nessa",
      startMs: nowMs - 8e6,
      seed: 3,
      hours: { main: 0.5, kicker: 0.2 },
      isSigned: true,
    });
    const spoken = entries.map((entry) =>
      entry.kind === "mark" && entry.topic === "jackets" ? { ...entry, language: "fr" } : entry,
    );
    const [start, ...rest] = spoken;
    expect((await post([start!], nessa)).status).toBe(200);
    // Other words afterwards are no longer this walk's.
    const text = "Life jackets: one that fits for each person";
    await phrase("fr", { kind: "texts", text, words: "Gilets : autre titre" });
    expect((await post(rest, nessa)).status).toBe(200);
    const sealed = await read(id);
    expect(sealed.seal).not.toBeNull();
    const titleOf = (topic: string) => sealed.topics.find((each) => each.id === topic)!.title;
    expect(titleOf("jackets")).toBe("Gilets de sauvetage\u00a0: un à la taille de chacun");
    expect(titleOf("extinguisher")).toMatch(/^Fire extinguisher/);
    await phrase("fr", { kind: "texts", text, words: null });
  });
});

describe("the buyer's page", () => {
  it("has the book of what they read, for their cards", async () => {
    const { token } = (await nessa.send("POST", "/api/deliveries/d-w118/link", { isRemote: false })).body;
    const page = (await store.stranger.get(`/api/owner/${token}`)).body as unknown as OwnerPage;
    expect(page.book?.language).toBe("es");
    const { delivery } = page;
    const cards = createCards(page.cards, {
      ...page,
      rig: delivery.rig,
      boatName: delivery.boatName,
      hull: delivery.hull,
      gear: foldWalk(delivery.entries).gear,
      idiom: { ...page.region, book: page.book! },
      emergency: page.region.emergency,
    });
    expect(cards.map(({ title }) => title)).toEqual(
      expect.arrayContaining(["Arrancar", "Dónde está", "Remolque y rampa"]),
    );
    await plan("d-w118", { language: "en" });
    expect(((await store.stranger.get(`/api/owner/${token}`)).body as unknown as OwnerPage).book).toBeNull();
  });
});

describe("the buyer's calendar", () => {
  const unfold = (text: string) =>
    text
      .replace(/\r\n[ \t]/g, "")
      .replaceAll("\\,", ",")
      .replaceAll("\\;", ";");

  it("has what runs out aboard, in their language, and a number that goes up when the day is entered anew", async () => {
    await plan("d-w118", { language: "fr" });
    const { token } = (await nessa.send("POST", "/api/deliveries/d-w118/link", { isRemote: false })).body;
    const enter = (until: string | null) =>
      store.stranger.send("PUT", `/api/owner/${token}/dates`, { item: "registration", until });
    const read = async () => unfold((await store.stranger.get(`/api/owner/${token}/calendar.ics`)).body.text);
    expect((await enter("2028-05-31")).status).toBe(200);
    const first = await read();
    expect(first).toMatch(/SUMMARY:Immatriculation.*expire, Wending 23/);
    expect(first).toContain("DTSTART;VALUE=DATE:20280531");
    expect(first).toMatch(/Valable jusqu’au 31 mai 2028\./);
    await enter("2029-05-31");
    const sequenceOf = (text: string) => Number(text.match(/SEQUENCE:(\d+)/)![1]);
    const second = await read();
    expect(second.match(/UID:.*gear.*/)![0]).toBe(first.match(/UID:.*gear.*/)![0]);
    expect(sequenceOf(second)).toBeGreaterThan(sequenceOf(first));
    await enter(null);
    expect(await read()).not.toContain("Immatriculation");
    await plan("d-w118", { language: "en" });
  });

  it("says what falls due in it, with days as it writes them", async () => {
    const { calendarService, languageService } = store.services;
    const book = await languageService.findBook("es");
    const said = unfold(await calendarService.writeBoat("w112", { book, gear: [] }));
    expect(said).toMatch(/Vence|Atrasado/);
    expect(said).toMatch(/\d+ de? ?\p{L}+ de? ?20\d\d|\d+ \p{L}+ 20\d\d/u);
    expect(said).toContain("El manual del fabricante va primero.");
    expect(said).not.toMatch(/whichever|Likely|20\d\d-\d\d-\d\d/);
  });
});

describe("papers in the buyer's language", () => {
  const readPaper = (path: string) => store.readPaper(nessa, path);

  it("say plan, record and history in it, with days as it writes them, and in English for whoever asks for that", async () => {
    await plan("d-w118", { language: "fr" });
    const french = await readPaper("/api/deliveries/d-w118/plan.pdf?language=fr");
    expect(french).toMatch(/\d+ arrêts, \d+ déplacements, \d+ min sur \d+/);
    expect(french).toMatch(/Extincteur/);
    expect(french).toMatch(/1 Au |1 À /);
    expect(french).not.toMatch(/because|The shortest way/);
    expect(await readPaper("/api/deliveries/d-w118/plan.pdf")).toMatch(/\d+ stops, \d+ moves/);
    const record = await readPaper("/api/deliveries/d-w112/record.pdf?language=es");
    expect(record).toMatch(/Acta de entrega/);
    expect(record).toMatch(/sellado el \d+ \w+ 20\d\d/);
    // So is what readings mean.
    expect(record).toMatch(/Conforme a los 65 psi de la placa/);
    expect(record).not.toMatch(/the plate's|charged, if|Tire, port/);
    const history = await readPaper("/api/boats/w112/history.pdf?language=fr");
    expect(history).toMatch(/Carnet d’entretien, .* En service depuis le \d+ \p{L}+ 20\d\d\./u);
    expect(history).not.toMatch(/What was done|Likely now|page 1 of/);
  });
});
