import type { Delivery, WorkshopSheet } from "../api/index.ts";
import { addDays, type LocalDate, toInstant } from "../core/dates/index.ts";
import { capacityOfDay } from "../core/workshop/index.ts";
import { createId, tellMakeReady, tellWalk } from "./walkEntries.ts";

/** How a store is asked over HTTP by somebody who is signed in; answers the body. Throws where it is refused. */
export interface Asker {
  get(path: string): Promise<unknown>;
  send(method: "POST" | "PUT", path: string, body: unknown): Promise<unknown>;
  /** Takes in a bundle that carries no key. */
  importBundle(bytes: Uint8Array): Promise<unknown>;
}

interface Stages {
  readonly owner: Asker;
  readonly specialist: Asker;
  readonly today: LocalDate;
  readonly nowMs: number;
  /** The bundle of another store's handover. */
  readonly bundle: Uint8Array;
}

export interface StagedBoat {
  readonly boat: string;
  readonly delivery: string;
}

const dayMs = 86_400_000;
const labour = { labourH: 1.5, note: "" };
const firstService = [{ scope: "boat", item: "wash", title: "Wash and wax" }];

/**
 * Adds boats of every stage to a store: in stock, planned, made ready, walking, sealed, resold before and after its second
 * handover, imported, with its buyer's names struck; each with a slot in the workshop and, where it was sold, a message.
 */
export async function makeEveryStage({ owner, specialist, today, nowMs, bundle }: Stages) {
  let number = 700;
  let ms = nowMs - 2 * dayMs;
  const addBoat = async (): Promise<string> => {
    const made = { name: "Wending 23", hull: `SLW24${++number}K526`, template: "wending-23" };
    return ((await owner.send("POST", "/api/boats", made)) as { boat: string }).boat;
  };
  const read = async (delivery: string) => (await specialist.get(`/api/deliveries/${delivery}`)) as Delivery;
  const { workshop } = (await owner.get("/api/workshop")) as WorkshopSheet;
  // The workshop is closed on some days, and this may be one of them.
  let openDay = today;
  while (capacityOfDay(workshop, openDay) === 0) openDay = addDays(openDay, 1);
  const book = (boat: string, items: object[] = firstService) =>
    owner.send("PUT", `/api/bookings/${createId(ms)}`, {
      boat,
      date: openDay,
      startMin: 600,
      ...labour,
      items,
      state: "booked",
    });
  const plan = async (boat: string, buyers: string[], date: LocalDate = today): Promise<StagedBoat> => {
    const { delivery } = (await owner.send("POST", "/api/deliveries", {
      ...{ boat, date, time: "16:00", buyers, note: "" },
    })) as { delivery: string };
    return { boat, delivery };
  };
  const enter = async (who: Asker, by: string, delivery: string, entries: object[]) =>
    who.send("POST", `/api/deliveries/${delivery}/entries`, {
      entries: entries.map((entry) => ({ ...entry, by, device: "every-stage" })),
    });
  const base = (delivery: string) => {
    ms += 1000;
    return { id: createId(ms), delivery, at: toInstant(ms) };
  };
  const allow = ({ delivery }: StagedBoat) =>
    enter(owner, "odile", delivery, [{ ...base(delivery), kind: "allow", reason: "Made ready at the dock" }]);
  const seal = async (staged: StagedBoat, hours: number) => {
    await allow(staged);
    const delivery = await read(staged.delivery);
    const meters = Object.fromEntries(delivery.rig.engines.map(({ id }) => [id, hours]));
    ms += 3_600_000;
    await enter(
      specialist,
      "nessa",
      staged.delivery,
      tellWalk(delivery, { by: "nessa", startMs: ms, seed: number, hours: meters, isSigned: true }),
    );
    ms += 5 * 3_600_000;
    return staged;
  };
  const write = (boat: string) =>
    owner.send("POST", `/api/boats/${boat}/messages`, {
      ...{ id: createId(ms), kind: "note", text: "Your part has come", withLink: false },
    });

  const inStock = await addBoat();
  await book(inStock, []);
  const planned = await plan(await addBoat(), ["Ada Lunt"], addDays(today, 3));
  const madeReady = await plan(await addBoat(), ["Bo Thwaite", "Cleo Thwaite"], addDays(today, 2));
  const toCheck = await read(madeReady.delivery);
  await enter(
    specialist,
    "nessa",
    madeReady.delivery,
    tellMakeReady(toCheck, "nessa", ms, toCheck.makeReady.slice(0, 3)),
  );
  const walking = await plan(await addBoat(), ["Dell Arrow"]);
  await allow(walking);
  const begun = await read(walking.delivery);
  const walk = tellWalk(begun, { by: "nessa", startMs: ms, seed: 4, hours: {}, isSigned: false });
  await enter(specialist, "nessa", walking.delivery, walk.slice(0, 6));
  const sealed = await seal(await plan(await addBoat(), ["Enid Fell"]), 1);
  const resoldBoat = (await seal(await plan(await addBoat(), ["Fitz Garrow"]), 1)).boat;
  const resold = await seal(await plan(resoldBoat, ["Gil Hallam"]), 4);
  const comingBackBoat = (await seal(await plan(await addBoat(), ["Hob Iveson"]), 1)).boat;
  const comingBack = await plan(comingBackBoat, ["Ira Jessop"], addDays(today, 1));
  const struck = await seal(await plan(await addBoat(), ["Kay Lister"]), 1);
  await write(struck.boat);
  await owner.send("POST", `/api/deliveries/${struck.delivery}/buyers/b1/forget`, {
    ...{ deliveries: [struck.delivery], photos: true, contact: true, reason: "Asked in writing" },
  });
  await owner.importBundle(bundle);
  const all = [planned, madeReady, walking, sealed, resold, comingBack, struck];
  for (const { boat } of all) await book(boat);
  for (const { boat } of [sealed, resold, comingBack]) await write(boat);
  return { inStock, planned, madeReady, walking, sealed, resold, comingBack, struck };
}
