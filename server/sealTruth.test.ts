import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery, Today } from "../api/index.ts";
import { toInstant } from "../core/dates/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

/** What goes into a seal when somebody who is signed in means ill. */
let store: TestStore;
let nessa: Caller;
let odile: Caller;
let ms: number;
beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
  ms = store.services.clock.nowMs() - 10 * 3_600_000;
});
afterAll(() => store.stop());

let hulls = 0;
const base = (delivery: string, by: string) => {
  ms += 1000;
  return { id: ulid(ms), delivery, at: toInstant(ms), by, device: "t" };
};
const read = async (delivery: string) => (await nessa.get(`/api/deliveries/${delivery}`)).body as unknown as Delivery;
const post = (delivery: string, entries: readonly object[], who = nessa) =>
  who.send("POST", `/api/deliveries/${delivery}/entries`, { entries });

/** A boat and its handover, which may begin. */
async function plan(buyers: string[], boat: string | null = null, template = "wending-23") {
  const made = { name: `Boat ${++hulls}`, hull: `SLW2480${hulls}K526`, template };
  const on = boat ?? (await odile.send("POST", "/api/boats", made)).body.boat;
  const wish = { boat: on, date: store.services.clock.today(), time: "10:00", buyers, note: "" };
  const { delivery } = (await odile.send("POST", "/api/deliveries", wish)).body;
  await post(delivery, [{ ...base(delivery, "odile"), kind: "allow", reason: "Made ready at the dock" }], odile);
  return { boat: on as string, delivery: delivery as string };
}
const hoursOf = (delivery: Delivery) => Object.fromEntries(delivery.rig.engines.map(({ id }) => [id, 1]));
/** A whole walk with its signatures and its close. */
async function tell(delivery: string): Promise<Entry[]> {
  const planned = await read(delivery);
  ms += 3_600_000;
  return tellWalk(planned, { by: "nessa", startMs: ms, seed: hulls, hours: hoursOf(planned), isSigned: true });
}

describe("a snapshot", () => {
  it("of another boat begins no walk and changes none", async () => {
    const [mine, other] = [await plan(["Ada Lunt"]), await plan(["Bo Thwaite"], null, "pipit-15")];
    const [{ snapshot: own }, { snapshot: foreign }] = [await read(mine.delivery), await read(other.delivery)];
    expect(foreign).not.toBe(own);
    const start = { ...base(mine.delivery, "nessa"), kind: "start", snapshot: foreign };
    const refused = await post(mine.delivery, [start]);
    expect([refused.status, refused.body.error.code]).toEqual([422, "unknown-snapshot"]);
    const begun = { ...base(mine.delivery, "nessa"), kind: "start", snapshot: own };
    expect((await post(mine.delivery, [begun])).status).toBe(200);
    const update = { ...base(mine.delivery, "nessa"), kind: "update", snapshot: own, next: foreign };
    expect((await post(mine.delivery, [update])).body.error.code).toBe("unknown-snapshot");
    const heard = { topic: "horn", mark: "told", person: null, spentS: 5 };
    const mark = { ...base(mine.delivery, "nessa"), kind: "mark", snapshot: foreign, ...heard };
    expect((await post(mine.delivery, [mark])).body.error.code).toBe("unknown-snapshot");
    expect((await read(mine.delivery)).rig.model).toBe("Wending 23");
  });

  it("that two handovers of one boat were given may be named by both", async () => {
    const first = await plan(["Cleo Arrow"]);
    const second = await plan(["Cleo Arrow"], first.boat);
    const given = [await read(first.delivery), await read(second.delivery)].map(({ snapshot }) => snapshot);
    for (const [i, { delivery }] of [first, second].entries()) {
      const start = { ...base(delivery, "nessa"), kind: "start", snapshot: given[i] };
      expect((await post(delivery, [start])).status).toBe(200);
    }
  });

  it("seals a walk that went by its own", async () => {
    const { delivery } = await plan(["Dell Fell"]);
    expect((await post(delivery, await tell(delivery))).status).toBe(200);
    expect((await read(delivery)).seal).not.toBeNull();
  });
});

const strokes = (seed: number) => ({
  width: 400,
  height: 150,
  strokes: [[20, 80, 150, 40 + seed, 300, 90, 360, 60 + seed]],
});
/** A walk that is ready to be signed, by `hands` who did what has to be done. */
async function walkUnsigned(
  delivery: string,
  change: (entry: Entry) => Entry | null = (entry) => entry,
): Promise<Entry[]> {
  const told = (await tell(delivery)).flatMap((entry) => {
    const kept = entry.kind === "sign" || entry.kind === "close" ? null : change(entry);
    return kept === null ? [] : [kept];
  });
  expect((await post(delivery, told)).status).toBe(200);
  return told;
}
async function signs(delivery: string, buyers: readonly string[], change: object = {}) {
  const { hashShown, foldWalk, writeSignWords, countForSigning } = await import("../core/walk/index.ts");
  const read1 = await read(delivery);
  const state = foldWalk(read1.entries);
  const digest = hashShown(read1, state);
  const say = (role: "buyer" | "staff", person: string | null) =>
    writeSignWords(role, countForSigning(read1, state, person));
  const made = buyers.map((person, i) => ({
    ...{ ...base(delivery, "nessa"), kind: "sign", role: "buyer", person, digest, signsFor: say("buyer", person) },
    ...{ name: read1.buyers.find(({ id }) => id === person)?.name ?? person, ...strokes(i), ...change },
  }));
  const staff = {
    ...{ ...base(delivery, "nessa"), kind: "sign", role: "staff", name: "Nessa Quill", digest },
    ...{ signsFor: say("staff", null), ...strokes(50) },
  };
  return { made, staff, all: [...read1.entries, ...made, staff] };
}
const closeOf = (delivery: string, all: readonly { readonly id: string }[]) => ({
  ...base(delivery, "nessa"),
  kind: "close",
  covers: all.map(({ id }) => id),
});
const codeOf = ({ status, body }: { status: number; body: { error?: { code: string } } }) => [status, body.error?.code];

describe("a signature", () => {
  it("has no words but those an app composes, and their numbers stand in what is closed", async () => {
    const { delivery } = await plan(["Enid Garrow"]);
    await walkUnsigned(delivery);
    const waived = await signs(delivery, ["b1"], { signsFor: ["I waive every claim."] });
    expect(codeOf(await post(delivery, waived.made))).toEqual([422, "invalid-input"]);
    const inflated = await signs(delivery, ["b1"], {
      signsFor: [
        "99 of 99 planned topics done; 99 of them I did with my own hands.",
        "I received the gear as counted: 99 of 99 kinds in full.",
        "Nothing is owed to me.",
      ],
    });
    const sent = [...inflated.made, inflated.staff, closeOf(delivery, inflated.all)];
    expect((await post(delivery, sent)).status).toBe(200);
    expect((await read(delivery)).seal).toBeNull();
  });

  it("of each buyer says what that one did, and a must stays open for whoever did not do it", async () => {
    const { delivery } = await plan(["Fitz Hallam", "Gil Hallam"]);
    const musts: string[] = [];
    const planned = await read(delivery);
    const isMust = new Set(planned.topics.flatMap(({ id, must, level }) => (must && level === "done" ? [id] : [])));
    await walkUnsigned(delivery, (entry) => {
      if (entry.kind !== "mark" || !isMust.has(entry.topic)) return entry;
      musts.push(entry.topic);
      return { ...entry, person: "b1" };
    });
    expect(musts.length).toBeGreaterThan(3);
    const first = await signs(delivery, ["b1", "b2"]);
    const byHand = first.made.map(({ signsFor }) => Number(/; (\d+) of them/.exec(signsFor[0]!)![1]));
    expect(byHand[0]! - byHand[1]!).toBe(musts.length);
    await post(delivery, [...first.made, first.staff, closeOf(delivery, first.all)]);
    expect((await read(delivery)).seal).toBeNull();
    const reasons = musts.map((topic) => ({
      ...base(delivery, "nessa"),
      kind: "reason",
      topic,
      reason: "Gil did not try",
    }));
    await post(delivery, reasons);
    const again = await signs(delivery, ["b1", "b2"]);
    const redone = again.made.map((sign, i) => ({ ...sign, ...strokes(10 + i) }));
    const staff = { ...again.staff, ...strokes(70) };
    await post(delivery, [...redone, staff, closeOf(delivery, [...again.all.slice(0, -3), ...redone, staff])]);
    expect((await read(delivery)).seal).not.toBeNull();
    const record = await store.readPaper(nessa, `/api/deliveries/${delivery}/record.pdf`);
    for (const { signsFor } of again.made) expect(record).toContain(signsFor[0]);
  });

  it("copied from another, of nobody here, or in an older form is refused", async () => {
    const { delivery } = await plan(["Hob Iveson"]);
    await walkUnsigned(delivery);
    const { made, staff } = await signs(delivery, ["b1"]);
    expect((await post(delivery, made)).status).toBe(200);
    const copied = { ...staff, strokes: made[0]!.strokes };
    expect(codeOf(await post(delivery, [copied]))).toEqual([422, "copied-signature"]);
    const stranger = { ...made[0]!, ...base(delivery, "nessa"), ...strokes(7), person: "b9", name: "Nobody" };
    expect(codeOf(await post(delivery, [stranger]))).toEqual([422, "not-a-buyer"]);
    const { digest: _, ...undigested } = { ...staff, ...base(delivery, "nessa"), ...strokes(8) };
    expect(codeOf(await post(delivery, [undigested]))).toEqual([422, "old-form"]);
    const { covers: __, ...bare } = closeOf(delivery, []);
    expect(codeOf(await post(delivery, [bare]))).toEqual([422, "old-form"]);
  });
});

describe("what another entered", () => {
  it("is taken back with a reason, by whoever may close, and the record prints by whom and why", async () => {
    const { delivery } = await plan(["Ira Jessop"]);
    const walk = await walkUnsigned(delivery);
    const mark = walk.find((entry) => entry.kind === "mark")!;
    const undo = (by: string, more: object = {}) => ({ ...base(delivery, by), kind: "undo", ref: mark.id, ...more });
    const tobin = await store.signIn("tobin");
    expect(codeOf(await post(delivery, [undo("tobin", { reason: "No" })], tobin))).toEqual([409, "not-yours-to-undo"]);
    expect(codeOf(await post(delivery, [undo("odile")], odile))).toEqual([422, "undo-needs-reason"]);
    const leak = { ...base(delivery, "tobin"), kind: "snag", topic: null, note: "Fuel leak", stops: true };
    expect((await post(delivery, [leak], tobin)).status).toBe(200);
    const away = (more: object = {}) => ({ ...base(delivery, "nessa"), kind: "undo", ref: leak.id, ...more });
    expect(codeOf(await post(delivery, [away()]))).toEqual([422, "undo-needs-reason"]);
    expect((await post(delivery, [away({ reason: "It was rain water" })])).status).toBe(200);
    const refusal = {
      ...base(delivery, "nessa"),
      kind: "refuse",
      name: "Ira Jessop",
      person: "b1",
      reason: "Too long",
    };
    expect((await post(delivery, [refusal])).status).toBe(200);
    const back = { ...base(delivery, "odile"), kind: "undo", ref: refusal.id, reason: "Ira read it again at home" };
    expect((await post(delivery, [back], odile)).status).toBe(200);
    const { made, staff, all } = await signs(delivery, ["b1"]);
    expect((await post(delivery, [...made, staff, closeOf(delivery, all)])).status).toBe(200);
    expect((await read(delivery)).seal).not.toBeNull();
    const record = await store.readPaper(nessa, `/api/deliveries/${delivery}/record.pdf`);
    expect(record).toContain("Ira Jessop did not sign: Too long. Taken back by Odile Pellow");
    expect(record).toContain("Ira read it again at home");
    expect(record).toContain("Snag: Fuel leak. Taken back by Nessa Quill");
    expect(record).toContain("It was rain water");
  });
});

describe("a close that leaves out what was here before it", () => {
  const made = (delivery: string, kind: string, more: object, by = "nessa") => ({
    ...base(delivery, by),
    device: "another",
    kind,
    ...more,
  });
  const waitsOf = async (delivery: string) => {
    const { waiting } = (await nessa.get("/api/today")).body as unknown as Today;
    return waiting.find((line) => line.delivery === delivery);
  };

  /** A walk that was signed and closed for all there was, but for what was entered on another tablet before that. */
  async function closeWithout(missed: (delivery: string, walk: readonly Entry[]) => object[]) {
    const { delivery } = await plan(["Jon Kettle"]);
    const walk = await walkUnsigned(delivery);
    // After the last of the walk.
    ms += 4 * 3_600_000;
    const { made: buyers, staff, all } = await signs(delivery, ["b1"]);
    const elsewhere = missed(delivery, walk);
    expect(codeOf(await post(delivery, elsewhere))).toEqual([200, undefined]);
    const close = closeOf(delivery, all);
    expect((await post(delivery, [...buyers, staff, close])).status).toBe(200);
    return { delivery, close, missed: elsewhere as { id: string }[] };
  }

  it.each([
    ["a refusal", "refused", (delivery: string) => [made(delivery, "refuse", refusal)]],
    [
      "a mark taken back",
      "undone",
      (delivery: string, walk: readonly Entry[]) => {
        const mark = walk.find((entry) => entry.kind === "mark" && entry.mark === "did")!;
        return [made(delivery, "undo", { ref: mark.id })];
      },
    ],
    [
      "gear counted anew",
      "corrected",
      (delivery: string, walk: readonly Entry[]) => {
        const gear = walk.find((entry) => entry.kind === "gear")! as Extract<Entry, { kind: "gear" }>;
        return [made(delivery, "gear", { item: gear.item, count: gear.count + 1 })];
      },
    ],
  ])("waits for %s, says so on Today, and is sealed as it was signed", async (_, why, missed) => {
    const { delivery, close, missed: unseen } = await closeWithout(missed);
    expect((await read(delivery)).seal).toBeNull();
    expect((await waitsOf(delivery))?.unseen).toMatchObject([{ why }]);
    const beside = unseen.map(({ id }) => id);
    const asSigned = { ...closeOf(delivery, []), covers: close.covers, beside };
    expect((await post(delivery, [asSigned])).status).toBe(200);
    expect((await read(delivery)).seal).not.toBeNull();
    expect(await waitsOf(delivery)).toBeUndefined();
    const record = await store.readPaper(nessa, `/api/deliveries/${delivery}/record.pdf`);
    expect(record).toContain("Unknown to whoever signed:");
  });

  it("waits for a snag that stops the handover until it is settled, whatever is set aside", async () => {
    const leak = { topic: null, note: "Fuel leak", stops: true, how: "before-leaving" };
    const { delivery, close, missed } = await closeWithout((id) => [made(id, "snag", leak)]);
    const beside = missed.map(({ id }) => id);
    const asSigned = { ...closeOf(delivery, []), covers: close.covers, beside };
    expect((await post(delivery, [asSigned])).status).toBe(200);
    expect((await read(delivery)).seal).toBeNull();
    expect((await waitsOf(delivery))?.unseen).toMatchObject([{ why: "stops" }]);
    await post(delivery, [made(delivery, "settle", { ref: beside[0], note: "Hose replaced" })]);
    const again = { ...closeOf(delivery, []), covers: close.covers };
    expect((await post(delivery, [again])).status).toBe(200);
    expect((await read(delivery)).seal).not.toBeNull();
  });

  it("is sealed where what came from another tablet only adds", async () => {
    const note = { note: "A cap will be sent", isExtra: false };
    const { delivery } = await closeWithout((id) => [made(id, "promise", note)]);
    expect((await read(delivery)).seal).not.toBeNull();
  });

  it("may set aside only what there is", async () => {
    const { delivery } = await plan(["Kit Lorne"]);
    await walkUnsigned(delivery);
    const nothing = { ...closeOf(delivery, []), beside: [base(delivery, "nessa").id] };
    expect(codeOf(await post(delivery, [nothing]))).toEqual([422, "unknown-ref"]);
  });
});
const refusal = { name: "Jon Kettle", person: "b1", reason: "The price is wrong" };

describe("time", () => {
  it("that a device made up stands beside when it came, and no seal is older than the one before it", async () => {
    const { delivery } = await plan(["Lew Marsh"]);
    await walkUnsigned(delivery);
    const dated = (at: string, item: string) => ({
      ...{ ...base(delivery, "nessa"), at, kind: "mark", topic: item, mark: "told", person: null, spentS: 1 },
    });
    const odd = [dated("2024-01-01T09:00:00.000Z", "horn"), dated("2099-01-01T09:00:00.000Z", "compass")];
    expect(
      codeOf(
        await post(
          delivery,
          odd.filter(({ topic }) => topic === "horn"),
        ),
      ),
    ).toEqual([200, undefined]);
    const { made, staff, all } = await signs(delivery, ["b1"]);
    const behind = { deviceMs: store.services.clock.nowMs() - 86_400_000 };
    const sent = { entries: [...made, staff, closeOf(delivery, all)], ...behind };
    expect((await nessa.send("POST", `/api/deliveries/${delivery}/entries`, sent)).status).toBe(200);
    const sealed = await read(delivery);
    expect(sealed.seal).not.toBeNull();
    expect(Math.round(sealed.receipts[staff.id]!.offsetMs! / 86_400_000)).toBe(1);
    const record = await store.readPaper(nessa, `/api/deliveries/${delivery}/record.pdf`);
    expect(record).toMatch(/the device's own time; received/);
    const { chain } = store.services;
    const last = (await chain.findHead())!;
    await store.database.inTransaction(async (t) => {
      const early = toInstant(Date.parse(last.at) - 3_600_000);
      expect(await chain.findNext(early, t)).toBe(last.at);
      const late = toInstant(Date.parse(last.at) + 3_600_000);
      expect(await chain.findNext(late, t)).toBe(late);
    });
  });
});
