import { dayOf, type Instant } from "../../core/dates/index.ts";
import type { Receipt } from "../../core/record/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { type Entry, formatBuyers, keepWalk, type WalkState } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import type { Messages } from "../messages.ts";
import type { NewsService } from "../news.ts";
import type { createBoats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { People } from "../repositories/people.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import { addToLog } from "../repositories/walkLogs.ts";
import { listPhotos, type Sealing } from "./sealing.ts";
import { summarizeContext } from "./summarizeContext.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";
import type { WalksInHand, WalkTaken } from "./walksInHand.ts";

interface Parts {
  readonly database: Database;
  readonly deliveries: Deliveries;
  readonly snapshots: Snapshots;
  readonly boats: ReturnType<typeof createBoats>;
  readonly people: People;
  readonly messages: Messages;
  readonly news: NewsService;
  readonly walkReader: WalkReader;
  readonly walksInHand: WalksInHand;
  readonly sealing: Sealing;
  readonly clock: Clock;
}

/** How entries came. `receivedAtOf`: of what is told afterwards as if it had come as it happened, which only a demo does. */
export interface EntryArrival extends Pick<Receipt, "via" | "offsetMs"> {
  readonly receivedAtOf?: ((entry: Entry) => Instant) | undefined;
}

/** Puts entries down and does what follows from them: what the walk goes by, messages, the seal, the summary. */
export function createEntryStore(parts: Parts) {
  const { database, deliveries, snapshots, news, walkReader, walksInHand, sealing, clock } = parts;

  /** Within the transaction: stores what is new and does what follows from it. */
  const store = async (
    { context, fold: before, stamps, ...known }: WalkTaken,
    { receivedAtOf, ...arrival }: EntryArrival,
    fresh: readonly Entry[],
    ready: string | null,
    t: Transaction,
  ) => {
    const { delivery, log, walk } = context;
    const receivedAt = receivedAtOf ?? clock.now();
    const receipts = await deliveries.addEntries(delivery.id, fresh, { receivedAt, ...arrival }, t, known);
    walksInHand.drop(delivery.id, t);
    const all = addToLog(
      log,
      fresh.map((entry) => ({ entry, receipt: receipts.get(entry.id)! })),
    );
    await snapshots.markUsed(
      fresh.flatMap(({ snapshot }) => snapshot ?? []),
      t,
    );
    const sequenceOf = (id: string) => all.receipts.get(id)?.number;
    const fold = before?.add(fresh, all.entries, sequenceOf) ?? keepWalk(all.entries, sequenceOf);
    const now = await settleSnapshot(parts, { ...context, log: all }, fold.state, ready, t);
    await sendMessages(parts, now, fresh, t);
    await noteWiring(parts, now, fresh, t);
    if (walk.sealed !== null) await sealing.amend(now, fresh, listPhotos(fresh), "added", t);
    const isSealed = walk.sealed === null && (await sealing.sealIfReady(now, t)) !== null;
    if (isSealed) return { receipts, isSealed };
    const summary = summarizeContext(now, walk.sealed === null ? fold.state : undefined);
    const isChanged = await deliveries.changeSummary(delivery.id, delivery.summary, summary, t);
    // One that goes by another snapshot from now on is read anew the next time.
    if (before !== null && walk.sealed === null && now.delivery.snapshot === delivery.snapshot) {
      const last = Math.max(known.lastNumber, ...[...receipts.values()].map(({ number }) => number));
      const left = { ...now, delivery: { ...now.delivery, summary } };
      await walksInHand.leave(
        delivery.id,
        { context: left, fold, stamps: { ...stamps, last }, isRowWritten: isChanged },
        t,
      );
    }
    return { receipts, isSealed };
  };

  /** Asks once more whether a handover can be sealed; a sealed one is given the photo that has just arrived. */
  const carryOn = async (id: string, photoIds: readonly string[]) => {
    const isSealed = await database.inTransaction(async (t) => {
      const context = await walkReader.get(id, t);
      if (context.walk.sealed === null) {
        if ((await sealing.sealIfReady(context, t)) !== null) return true;
        const summary = summarizeContext(context);
        // Closed by an older version, which did not say what it waits for.
        if (summary.waits !== undefined && context.delivery.summary.waits === undefined)
          await deliveries.setSummary(id, summary, t);
        return false;
      }
      await sealing.amend(context, [], photoIds, "added", t);
      return false;
    });
    if (isSealed) news.tell(id, { entries: [], receipts: {}, isSealed });
  };

  return { store, carryOn };
}

export type EntryStore = ReturnType<typeof createEntryStore>;

/** After entries were stored: what the walk goes by from now on. Old tablets name nothing: then what was made ready for it. */
async function settleSnapshot(
  parts: Parts,
  context: HandoverContext,
  state: WalkState,
  ready: string | null,
  t: Transaction,
) {
  const { deliveries, snapshots, walkReader } = parts;
  const { delivery } = context;
  const isBegun = state.startedAt !== null || state.closedAt !== null;
  if (!isBegun) return context;
  const named = state.snapshot === null ? null : await snapshots.find(state.snapshot, t);
  const sha256 = named === null ? (delivery.snapshot ?? ready) : state.snapshot;
  if (sha256 === null || sha256 === delivery.snapshot) return context;
  await deliveries.setSnapshot(delivery.id, sha256, t);
  await snapshots.markUsed([sha256], t);
  const begun = { ...delivery, snapshot: sha256 };
  const { walk } = await walkReader.read(begun, context.boat, t);
  return { ...context, delivery: begun, walk };
}

/** The make-ready check whose answer is of the boat, not of one handover alone. */
const wiringCheck = "wiring";

/** Whoever looked at the wiring before a handover stands on the boat's sheet from then on; found otherwise, nobody does. */
async function noteWiring(
  { boats, people, clock }: Parts,
  { boat }: HandoverContext,
  stored: readonly Entry[],
  t: Transaction,
) {
  const last = stored.findLast((entry) => entry.kind === "ready" && entry.check === wiringCheck);
  if (last?.kind !== "ready") return;
  const now = (await boats.find(boat.id, t))!;
  const { wiringChecked: _, ...bare } = JSON.parse(now.rigText) as Rig;
  const by = (await people.find(last.by, t))?.name ?? last.by;
  const rig = last.ok ? { ...bare, wiringChecked: { by, on: dayOf(last.at, clock.timeZone) } } : bare;
  await boats.setRig(boat.id, { name: now.name, hull: now.hull, rig, version: now.version + 1 }, t);
}

/** Messages to the buyer that stand among these entries. */
async function sendMessages(
  { messages }: Parts,
  { delivery, boat }: HandoverContext,
  stored: readonly Entry[],
  t: Transaction,
) {
  const recipient = formatBuyers(delivery.buyers);
  for (const entry of stored)
    if (entry.kind === "tell") {
      const { id, text, at } = entry;
      await messages.send({ id, deliveryId: delivery.id, boatId: boat.id, kind: "note", recipient, text, at }, t);
    }
}
