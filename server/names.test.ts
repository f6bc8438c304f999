import { readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { endpoints, type MessageList, type WorkshopSheet } from "../api/index.ts";
import type { LocalDate } from "../core/dates/index.ts";
import { type Asker, makeEveryStage } from "../demo/everyStage.ts";
import { findHoles, findInText } from "../demo/findHoles.ts";
import { makeFleet } from "../demo/makeFleet.ts";
import { type Answer, type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let odile: Caller;
let stages: Awaited<ReturnType<typeof makeEveryStage>>;
let boats: readonly { readonly id: string; readonly stage: string }[];
let sold: readonly string[];
let today: LocalDate;

const bodyOf = ({ status, body }: Answer) => {
  if (status >= 300) throw new Error(`refused with ${status}: ${JSON.stringify(body)}`);
  return body;
};

beforeAll(async () => {
  store = await openTestStore();
  odile = await store.signIn("odile");
  today = store.services.clock.today();
  const nessa = await store.signIn("nessa");
  const ask = (who: Caller): Asker => ({
    get: async (path) => bodyOf(await who.get(path)),
    send: async (method, path, body) => bodyOf(await who.send(method, path, body)),
    importBundle: async (bytes) => bodyOf(await store.sendFile(who, "/api/bundles", bytes, "application/zip", "POST")),
  });
  await makeFleet(store.database, today, 12);
  // A boat that was sold before its handovers were kept here, and nobody wrote down to whom.
  const [unnamed] = (await store.services.boats.listHeads()).filter(({ id }) => id.startsWith("f"));
  await store.services.boats.setContact(unnamed!.id, { name: "", phone: "555 0100", email: "", optOut: false });
  const bundle = readFileSync(new URL("golden/handover-1.zip", import.meta.url));
  const asked = { owner: ask(odile), specialist: ask(nessa), today, nowMs: store.services.clock.nowMs(), bundle };
  stages = await makeEveryStage(asked);
  boats = (await odile.get("/api/boats")).body.boats;
  sold = (await store.services.deliveries.listOfBoats(boats.map(({ id }) => id))).map(({ id }) => id);
});
afterAll(() => store.stop());

const isSold = (boat: string) => boat !== stages.inStock;

const lists = [
  "/api/boats?sort=name",
  "/api/boats?stage=in-stock",
  "/api/care",
  "/api/care/all.json",
  "/api/workshop",
  "/api/messages",
  "/api/owed",
  "/api/dock-calls",
  "/api/reports",
  "/api/staff",
  "/api/audit",
  "/api/retention",
  "/api/library",
  "/api/packs",
  "/api/templates",
  "/api/guides",
] as const;

describe("a store with boats of every stage", () => {
  it("has them all", async () => {
    const stage = new Map(boats.map(({ id, stage }) => [id, stage]));
    expect(stage.get(stages.inStock)).toBe("in-stock");
    expect(stage.get(stages.planned.boat)).toBe("to-hand-over");
    expect(stage.get(stages.madeReady.boat)).toBe("making-ready");
    expect(stage.get(stages.sealed.boat)).toBe("in-break-in");
    expect(sold).toContain("d-w097");
    const states = await Promise.all(
      [stages.walking, stages.sealed, stages.struck].map(({ delivery }) => store.services.deliveries.find(delivery)),
    );
    expect(states.map((each) => each!.summary.state)).toEqual(["walking", "signed", "signed"]);
    expect(states[2]!.buyers).toEqual([{ id: "b1", name: "(struck)" }]);
  });

  it.each(lists)("no empty name in %s", async (path) => {
    const answer = await odile.get(path);
    expect(answer.status).toBe(200);
    expect(findHoles(answer.body, isSold)).toEqual([]);
  });

  it("no empty name in Today, to anybody", async () => {
    for (const login of ["odile", "ines", "nessa", "tobin", "corwin"]) {
      const { body } = await (await store.signIn(login)).get("/api/today");
      expect(findHoles(body, isSold), login).toEqual([]);
    }
  });

  it("no empty name in the weeks of the workshop", async () => {
    const { weeks } = (await odile.get("/api/workshop")).body as unknown as WorkshopSheet;
    for (const { begins } of weeks.slice(0, 30)) {
      const { body } = await odile.get(`/api/workshop/weeks/${begins}`);
      expect(findHoles(body, isSold), begins).toEqual([]);
    }
  });

  it("no empty name on the page of any boat and any handover", async () => {
    for (const { id } of boats) {
      for (const path of [`/api/boats/${id}`, `/api/boats/${id}/messages`, `/api/boats/${id}/towing`]) {
        const answer = await odile.get(path);
        expect(answer.status, path).toBe(200);
        const { rig: _, ...body } = answer.body;
        expect(findHoles(body, isSold), path).toEqual([]);
      }
    }
    for (const id of sold) {
      const { body } = await odile.get(`/api/deliveries/${id}`);
      const { rig: _, entries: __, added: ___, ...rest } = body;
      expect(findHoles(rest, isSold), id).toEqual([]);
    }
  });

  it("no empty name in what is written to anybody", async () => {
    const { messages } = (await odile.get("/api/messages")).body as unknown as MessageList;
    expect(messages.length).toBeGreaterThan(4);
    for (const { text } of messages) expect(findInText(text), text).toEqual([]);
    const { aftercareService, jobs } = store.services;
    await aftercareService.planJobs();
    await jobs.tick();
    for (const { text } of (await odile.get("/api/messages")).body.messages) expect(findInText(text), text).toEqual([]);
  });

  it("no bare comma in a calendar", async () => {
    const { token } = (await odile.send("POST", "/api/feed", {})).body;
    const feeds = [`/api/feeds/${token}`, ...boats.map(({ id }) => `/api/boats/${id}/calendar.ics`)];
    for (const path of feeds) {
      const answer = await fetch(store.address + path, { headers: { cookie: odile.cookie } });
      expect(answer.status, path).toBe(200);
      const lines = (await answer.text()).replace(/\r\n[ \t]/g, "").split("\r\n");
      const titles = lines.filter((line) => /^(SUMMARY|DESCRIPTION|X-WR-CALNAME|NAME)[:;]/.test(line));
      expect(titles.length, path).toBeGreaterThan(0);
      for (const line of titles) {
        const text = line
          .slice(line.indexOf(":") + 1)
          .replaceAll("\\,", ",")
          .replaceAll("\\;", ";");
        if (line.startsWith("SUMMARY")) expect(text.trim(), path).not.toBe("");
        expect(findInText(text), `${path} ${line}`).toEqual([]);
      }
    }
  });

  it("no empty name in the tables", async () => {
    for (const what of ["readings", "fills", "services", "runs", "bookings", "messages"]) {
      const { body } = await odile.get(`/api/care/${what}.csv`);
      const [head, ...rows] = String(body.text).trim().split(/\r?\n/);
      expect(head).toMatch(/boat.*hull number/);
      for (const row of rows) expect(row, what).toMatch(/^(﻿)?"?[^,"]+/);
    }
  });

  it("no empty words on any paper", async () => {
    const read = async (path: string) => ({ path, text: await store.readPaper(odile, path) });
    const papers = [
      ...[stages.sealed, stages.resold, stages.struck].flatMap(({ delivery }) =>
        ["plan", "record", "pack"].map((paper) => `/api/deliveries/${delivery}/${paper}.pdf`),
      ),
      ...[stages.planned, stages.madeReady, stages.walking, stages.comingBack].map(
        ({ delivery }) => `/api/deliveries/${delivery}/plan.pdf`,
      ),
      ...[stages.inStock, stages.sealed.boat, stages.resold.boat, stages.struck.boat].map(
        (boat) => `/api/boats/${boat}/history.pdf`,
      ),
    ];
    for (const path of papers) {
      const { text } = await read(path);
      expect(text, path).toContain("Wending 23");
      expect(text.match(/.{0,40}(\bundefined\b|\bnull\b|\bNaN\b|\[object| , ,|,,).{0,40}/g), path).toBeNull();
    }
  }, 240_000);

  it("walks every list that there is", () => {
    const got = Object.values(endpoints).filter(({ method, path }) => method === "GET" && !path.includes(":"));
    const known = new Set<string>([
      ...lists.map((path) => path.split("?")[0]!),
      "/api/today",
      // Say nothing of a boat or a person by name, or are files of their own tests.
      ...[
        "health",
        "sign-in",
        "me",
        "rights",
        "sessions",
        "backups",
        "restored",
        "everything",
        "audit.csv",
        "store",
      ].map((name) => `/api/${name}`),
      ...[
        "openapi.json",
        "hulls",
        "wind",
        "gateway/runs",
        "glossary",
        "faults",
        "library/languages",
        "clock",
        "compute",
      ].map((name) => `/api/${name}`),
    ]);
    expect(got.map(({ path }) => path).filter((path) => !known.has(path))).toEqual([]);
  });
});

it("a slot on a boat that was never handed over names the boat and its buyers", async () => {
  const { bookings } = (await odile.get("/api/workshop")).body as unknown as WorkshopSheet;
  const of = (boat: string) => bookings.find((each) => each.boat === boat);
  expect(of(stages.inStock)).toMatchObject({ boatName: "Wending 23", buyers: "" });
  expect(of(stages.planned.boat)).toMatchObject({ boatName: "Wending 23", buyers: "Ada Lunt" });
  expect(of(stages.struck.boat)).toMatchObject({ boatName: "Wending 23", buyers: "the buyer" });
});

it("the log names boats and handovers, and holds no empty value, no phone and no address", async () => {
  const contact = { phone: "555 0177", email: "lunt@harbor.example" };
  const plan = { boat: stages.inStock, date: today, time: "11:00", buyers: ["Ada Lunt"], note: "", ...contact };
  expect((await odile.send("POST", "/api/deliveries", plan)).status).toBe(200);
  const { lines } = (await odile.get("/api/audit")).body as unknown as { lines: { what: string; about: string }[] };
  expect(lines[0]).toMatchObject({
    what: "Plan a handover of a boat",
    about: `boat Wending 23 24701, date ${today}, time 11:00`,
  });
  for (const { about } of lines) {
    expect(findInText(about), about).toEqual([]);
    expect(about).not.toMatch(/555 0177|lunt@|slw247/);
  }
});
