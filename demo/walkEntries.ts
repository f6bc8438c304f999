import { ulid } from "ulid";
import type { Delivery } from "../api/index.ts";
import { faultContent } from "../content/index.ts";
import { toInstant } from "../core/dates/index.ts";
import { buildFaultModel, describeCall, findTaught } from "../core/faults/index.ts";
import { listMeasures, type Measure, type Reading } from "../core/measure/index.ts";
import { createRandom } from "../core/random.ts";
import { regions } from "../core/region/index.ts";
import { fromCore, toCore } from "../core/units/index.ts";
import { type Entry, type EntryOf, foldWalk, hashShown, type Mark, type WalkContent } from "../core/walk/index.ts";

/** What an entry of a kind says, without what every entry has. */
export type TaleOf<K extends Entry["kind"]> = Omit<EntryOf<K>, "id" | "delivery" | "at" | "by" | "device" | "kind">;

export interface WalkTale {
  readonly by: string;
  readonly startMs: number;
  readonly seed: number;
  /** Marks other than the wanted level, by topic. */
  readonly marks?: Readonly<Record<string, { mark: Mark; note?: string }>>;
  /** Topics that were never reached. */
  readonly skipped?: ReadonlySet<string>;
  /** Why a must that was skipped was left undone, by topic. */
  readonly reasons?: Readonly<Record<string, string>>;
  readonly snags?: readonly TaleOf<"snag">[];
  readonly promises?: readonly TaleOf<"promise">[];
  readonly short?: Readonly<Record<string, number>>;
  readonly hours: Readonly<Record<string, number>>;
  readonly isSigned: boolean;
}

/** What a walk is told from. */
export type ToldOf = Pick<Delivery, "id" | "snapshot" | "entries" | "plan"> & WalkContent;

/** Quicker than what `ulid` draws by itself, for a store of a million. */
export const createId = (ms: number) => ulid(ms, Math.random);

const level = { told: "told", shown: "shown", done: "did" } as const;

/** The entries of a whole handover as it might have gone, in plan order, taking about the minutes planned. */
export function tellWalk(delivery: ToldOf, tale: WalkTale): Entry[] {
  const random = createRandom(tale.seed);
  const entries: Entry[] = [];
  let ms = tale.startMs;
  const base = () => {
    ms += 1000;
    const at = toInstant(ms);
    const named = delivery.snapshot === null ? {} : { snapshot: delivery.snapshot };
    return { id: createId(ms), delivery: delivery.id, at, by: tale.by, device: "demo", ...named };
  };
  entries.push({ ...base(), kind: "start" });
  const byId = new Map(delivery.topics.map((topic) => [topic.id, topic]));
  for (const visit of delivery.plan.visits) {
    ms += 25_000;
    for (const id of visit.topics) {
      if (tale.skipped?.has(id)) continue;
      const topic = byId.get(id)!;
      const spentS = Math.round(topic.minutes * 60 * (0.6 + random() * 0.5));
      ms += spentS * 1000;
      const other = tale.marks?.[id];
      const mark = other?.mark ?? level[topic.level];
      const note = other?.note === undefined ? {} : { note: other.note };
      entries.push({ ...base(), kind: "mark", topic: id, mark, person: null, spentS, ...note });
    }
  }
  // A mark the tale insists on, though the topic was not on the plan.
  const planned = new Set(delivery.plan.visits.flatMap(({ topics }) => topics));
  for (const [topic, { mark, note }] of Object.entries(tale.marks ?? {})) {
    if (planned.has(topic) || !byId.has(topic)) continue;
    entries.push({
      ...base(),
      kind: "mark",
      topic,
      mark,
      person: null,
      spentS: 20,
      ...(note === undefined ? {} : { note }),
    });
  }
  for (const [topic, reason] of Object.entries(tale.reasons ?? {}))
    entries.push({ ...base(), kind: "reason", topic, reason });
  for (const snag of tale.snags ?? []) entries.push({ ...base(), kind: "snag", ...snag });
  for (const promise of tale.promises ?? []) entries.push({ ...base(), kind: "promise", ...promise });
  for (const item of delivery.rig.gear)
    entries.push({ ...base(), kind: "gear", item: item.id, count: tale.short?.[item.id] ?? item.count });
  for (const [engine, hours] of Object.entries(tale.hours)) entries.push({ ...base(), kind: "hours", engine, hours });
  if (tale.isSigned) {
    ms += 60_000;
    const digest = hashShown(delivery, foldWalk([...delivery.entries, ...entries]));
    const signs = { kind: "sign", digest } as const;
    for (const [i, { id, name }] of delivery.buyers.entries())
      entries.push({ ...base(), ...signs, role: "buyer", person: id, name, ...drawSignature(tale.seed + 2 * i) });
    entries.push({ ...base(), ...signs, role: "staff", name: "Nessa Quill", ...drawSignature(tale.seed + 1) });
    entries.push({ ...base(), kind: "close", covers: [...delivery.entries, ...entries].map(({ id }) => id) });
  }
  return entries;
}

/** A made-up hand: a few loops that differ by seed. */
function drawSignature(seed: number): { width: number; height: number; strokes: number[][] } {
  const random = createRandom(seed * 101);
  const stroke: number[] = [];
  const loops = 4 + Math.floor(random() * 4);
  for (let i = 0; i <= 90; i++) {
    const t = i / 90;
    const wave = Math.sin(t * loops * Math.PI * 2 + seed);
    stroke.push(Math.round(40 + t * 300 + Math.cos(t * loops * 6.3) * 14), Math.round(80 + wave * (34 - 20 * t)));
  }
  return { width: 400, height: 150, strokes: [stroke, [60, 118, 360, 108]] };
}

const testRunMin = 35;
const checkMs = 90_000;

/** Make-ready as the workshop left it: these checks done, the rest open; and what was read off the boat meanwhile. */
export function tellMakeReady(delivery: Delivery, by: string, startMs: number, done: Delivery["makeReady"]): Entry[] {
  const random = createRandom(delivery.id.length + done.length);
  let ms = startMs;
  const base = () => {
    ms += checkMs;
    return { id: createId(ms), delivery: delivery.id, at: toInstant(ms), by, device: "demo" };
  };
  const checks = done.map(
    ({ id, asksMinutes }): Entry => ({
      ...base(),
      kind: "ready",
      check: id,
      ok: true,
      ...(asksMinutes ? { minutes: testRunMin } : {}),
    }),
  );
  if (done.length === 0) return checks;
  const readings = listMeasures(delivery.rig).map(
    (measure): Entry => ({ ...base(), kind: "measure", item: measure.id, ...readOff(measure, random) }),
  );
  return [...checks, ...readings];
}

/** A reading as it would be on a boat that was looked after. */
function readOff({ kind, wanted }: Measure, random: () => number): Reading {
  const spread = random() - 0.5;
  if (kind === "tyre") {
    const psi = Math.round(fromCore((wanted ?? 400) * (1 + spread * 0.06), "pressure", "psi"));
    const typed = { value: psi, unit: "psi" } as const;
    return { value: toCore(typed, "pressure"), typed };
  }
  if (kind === "battery") return { value: Math.round((12.72 + spread * 0.16) * 100) / 100 };
  if (kind === "fuel") return { value: 98 };
  return { value: kind === "oil" ? 1 : 0 };
}

interface Call {
  readonly fails: string;
  readonly looked: Readonly<Record<string, boolean>>;
  readonly minutes: number;
  readonly isAsked?: boolean;
}

/** A call, or a question from the owner's page, with what the finder came to. */
export function tellCall(
  delivery: Delivery,
  { fails, looked, minutes, isAsked = false }: Call,
  ms: number,
  by: string,
): Entry {
  const model = buildFaultModel(delivery.rig, faultContent, regions.us);
  const fault = describeCall(model, { functions: { [fails]: false }, components: looked }, { minutes, goesOn: null });
  const here = new Set(delivery.topics.map(({ id }) => id));
  const topic = fault.cause === null ? null : findTaught(faultContent, fault.cause.kind, here);
  const note = `${fault.fails}: no. ${fault.cause === null ? "Cause open" : `At fault: ${fault.cause.label}`}.`;
  const base = { id: createId(ms), delivery: delivery.id, at: toInstant(ms), by, device: "demo", note, fault };
  return isAsked ? { ...base, kind: "ask", topic: null } : { ...base, kind: "call", topic };
}

/** What is told here afterwards came to the store as it happened. */
export const asItHappened = { receivedAtOf: ({ at }: Entry) => at };
