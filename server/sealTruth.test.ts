import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery } from "../api/index.ts";
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
