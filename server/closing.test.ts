import { createHash } from "node:crypto";
import fc from "fast-check";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { verifyBundle } from "../core/record/index.ts";
import { createPhotoId, type Entry } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";
import { readPhoto } from "./photos.ts";
import { hashText } from "./repositories/chain.ts";

/**
 * Closing, with whatever may happen around it: entries in any batches, sent again, out of order; another device's entries
 * before and after, dated as they like; photos that arrive early, late, twice, or whose arrival nobody noted; a server that
 * starts anew at any moment. In the end the handover is sealed once, with just what its close lists, and nothing is lost.
 */
let store: TestStore;
let odile: { id: string; name: string; role: "owner" };
interface Picture {
  readonly id: string;
  readonly sha256: string;
  readonly bytes: Buffer;
}
let jpeg: Buffer;
beforeAll(async () => {
  store = await openTestStore();
  odile = (await store.services.people.findByLogin("odile")) as typeof odile;
  jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#112233" } })
    .jpeg()
    .toBuffer();
});
afterAll(() => store.stop());

let made = 0;
let ms = Date.now() - 3_600_000;
async function createClosing() {
  const pictures = [0, 1].map((i): Picture => {
    // What follows the end of a JPEG makes another file of it, and the same picture.
    const bytes = Buffer.concat([jpeg, Buffer.from(`${made} ${i}`)]);
    const sha256 = createHash("sha256").update(bytes).digest("hex");
    return { id: createPhotoId(sha256, "staff"), sha256, bytes };
  });
  const { handoverService, boats, clock } = store.services;
  const template = (await boats.find("w118"))!;
  const id = `c${++made}`;
  const rig = store.services.rigService.read(template.rigText);
  await boats.add({
    id,
    name: "Wending 23",
    hull: `SLW3${String(made).padStart(4, "0")}K526`,
    rig,
    template: "wending-23",
  });
  const delivery = await handoverService.add({
    boat: id,
    date: clock.today(),
    time: "10:00",
    buyers: ["Dov Anselm"],
    phone: "",
    email: "",
    note: "",
  });
  const base = (device: string) => {
    ms += 7;
    return { id: ulid(ms), delivery, at: toInstant(ms), by: odile.id, device };
  };
  const before = [
    { ...base("demo"), kind: "allow", reason: "Made ready at the dock" },
    ...pictures.map(({ id: photo, sha256 }) => ({
      ...base("demo"),
      kind: "photo",
      photo,
      sha256,
      topic: null,
      ref: null,
    })),
  ] as Entry[];
  // What the closing device knew; it reaches the server only in the course of what follows.
  const described = { ...(await handoverService.describe(delivery)), entries: before };
  ms += 60_000;
  const tale = tellWalk(described, {
    by: odile.id,
    startMs: ms - 3_500_000,
    seed: made,
    hours: { port: 1, starboard: 1 },
    isSigned: true,
  });
  const foreign = ["2019-01-01T00:00:00.000Z", toInstant(ms), "2031-01-01T00:00:00.000Z"].map(
    (at, i) => ({ ...base("tablet-2"), at, kind: "promise", note: `Promise ${i}`, isExtra: false }) as Entry,
  );
  return { delivery, pictures, mine: [...before, ...tale], foreign };
}

const send = (delivery: string, entries: readonly Entry[]) =>
  store.services.handoverService.addEntries(delivery, odile, entries);
async function keepPhoto({ id, sha256, bytes }: Picture, isNoted: boolean) {
  const { photos, handoverService } = store.services;
  if ((await photos.listFacts([id])).length === 0)
    await photos.add({ ...(await readPhoto(bytes)), id, sent: sha256, at: toInstant(0), by: odile.id });
  if (isNoted) await handoverService.noteArrived(id);
}

type Step =
  | { readonly do: "mine" | "foreign"; readonly from: number; readonly count: number }
  | { readonly do: "photo" | "photo-killed"; readonly which: number }
  | { readonly do: "restart" };
const steps = fc.array(
  fc.oneof(
    fc.record({
      do: fc.constantFrom("mine" as const, "foreign" as const),
      from: fc.double({ min: 0, max: 1, noNaN: true }),
      count: fc.integer({ min: 1, max: 40 }),
    }),
    fc.record({ do: fc.constantFrom("photo" as const, "photo-killed" as const), which: fc.nat(1) }),
    fc.record({ do: fc.constant("restart" as const) }),
  ),
  { minLength: 3, maxLength: 9 },
);

it("seals once, with what its close lists, whatever comes between", async () => {
  await fc.assert(
    fc.asyncProperty(steps, async (order: readonly Step[]) => {
      const { delivery, pictures, mine, foreign } = await createClosing();
      const { handoverService, chain, bundleService } = store.services;
      for (const step of order) {
        if (step.do === "restart") await handoverService.resume();
        else if ("which" in step) await keepPhoto(pictures[step.which]!, step.do === "photo");
        else {
          const list = step.do === "mine" ? mine : foreign;
          const from = Math.floor(step.from * (list.length - 1));
          // Refused as a whole where one of it refers to what has not come yet; a tablet sends it again later.
          await send(delivery, list.slice(from, from + step.count)).catch(() => undefined);
        }
      }
      for (const picture of pictures) await keepPhoto(picture, false);
      await send(delivery, mine);
      await send(delivery, foreign);
      await handoverService.resume();

      const close = mine.at(-1) as Extract<Entry, { kind: "close" }>;
      const links = (await chain.listAll()).filter(({ deliveryId }) => deliveryId === delivery);
      expect(links.filter(({ kind }) => kind === "handover")).toHaveLength(1);
      const sealed = JSON.parse(links.find(({ kind }) => kind === "handover")!.canonical);
      const ids = sealed.entries.map(({ id }: { id: string }) => id);
      expect(new Set(ids)).toEqual(new Set([...close.covers!, close.id]));
      const { entries, added } = await handoverService.describe(delivery);
      expect(new Set(entries.map(({ id }) => id))).toEqual(new Set([...mine, ...foreign].map(({ id }) => id)));
      expect(new Set(added)).toEqual(new Set(foreign.map(({ id }) => id)));
      const bundle = await bundleService.writeBundle(delivery);
      expect(verifyBundle(bundle, hashText)).toMatchObject({ isIntact: true, differences: [] });
    }),
    { seed: 21, numRuns: 14 },
  );
}, 120_000);
