import { useEffect, useState } from "react";
import { ulid } from "ulid";
import type { EngineCare } from "../../api/index.ts";
import { addDays, type LocalDate } from "../../core/dates/index.ts";
import type { GearPack } from "../../core/gear/index.ts";
import type { Language, Tell } from "../../core/language/index.ts";
import { type Rig, sumTankL } from "../../core/rig/index.ts";
import { type TripPlan, tripPlanSchema } from "../../core/trip/index.ts";
import type { WalkState } from "../../core/walk/index.ts";
import { draftKeys } from "../offline/saved.ts";
import { useTell } from "../ui/tell.ts";

export interface TripPort {
  /** What the page is about, for what is not saved yet. */
  readonly key: string;
  readonly rig: Rig;
  readonly boatName: string;
  readonly hull: string;
  readonly buyers: readonly string[];
  readonly trips: WalkState["trips"];
  readonly counted: WalkState["gear"];
  readonly packs: readonly GearPack[];
  /** Empty where the care of the boat is not at hand. */
  readonly care: readonly EngineCare[];
  readonly today: LocalDate;
  readonly timeZone: string;
  readonly hasForecast: boolean;
  readonly onSave: (trip: string, plan: TripPlan | null) => void;
  /** Whether the yard has it as it was saved last: only then can it be printed. */
  readonly isAtYard: (trip: string) => boolean;
  /** Where the float plan of a trip that was saved is printed. */
  readonly pdfOf: (trip: string) => string;
  /** What the buyer reads: the float plan is offered in it too. */
  readonly language: Language;
}

/** What somebody is still writing: as the plan, but for figures nobody has entered yet. */
export type TripDraft = Omit<TripPlan, "cruiseKn" | "burnLph" | "fuelL"> & {
  readonly cruiseKn: number | undefined;
  readonly burnLph: number | undefined;
  readonly fuelL: number | undefined;
};

/** Ours: what a first-time skipper in an open boat should not go beyond; theirs to change. Knots. */
const usualWindKn = 15;

/** A first plan: the buyers aboard, the tanks full, the burn of the boat sheet; what nobody knows is left open. */
export function createDraft({ rig, buyers, counted, packs, today }: TripPort, tell: Tell): TripDraft {
  const tankL = sumTankL(rig, ["petrol", "diesel"]);
  const burns = rig.engines.filter(({ kind }) => kind !== "kicker").map(({ burnLph }) => burnLph);
  const isBurnKnown = burns.length > 0 && burns.every((burn) => burn !== undefined);
  return {
    name: tell("First day out"),
    date: addDays(today, 1),
    departAt: "10:00",
    from: null,
    legs: [],
    cruiseKn: undefined,
    burnLph: isBurnKnown ? burns.reduce((sum, burn) => sum + burn!, 0) : undefined,
    fuelL: tankL > 0 ? tankL : undefined,
    stayH: 2,
    wind: [],
    windSource: "typed",
    windOn: null,
    windLimitKn: usualWindKn,
    // No rode is said before somebody has entered how deep it is.
    anchor: null,
    people: buyers.map((name) => ({ name, isChild: false })),
    gearPack: packs[0]!.id,
    offshoreNm: 0,
    aboard: rig.gear.flatMap(({ id }) => {
      const entry = counted.get(id);
      if (entry === undefined) return [];
      return [{ item: id, qty: entry.count, ...(entry.dated === undefined ? {} : { expires: entry.dated }) }];
    }),
    ashore: null,
  };
}

/** A draft that can be reckoned with; null while a figure is missing or something is not as it can be kept. */
export function readDraft(draft: TripDraft): TripPlan | null {
  const read = tripPlanSchema.safeParse({ ...draft, ashore: isHalfAshore(draft) ? null : draft.ashore });
  return read.success ? read.data : null;
}

/** Somebody ashore by name alone, or by a phone alone, is nobody yet who can be rung. */
export const isHalfAshore = ({ ashore }: Pick<TripDraft, "ashore">): boolean =>
  ashore !== null && (ashore.name.trim() === "" || ashore.phone.trim() === "");

const keyOf = (key: string) => `${draftKeys[0]}${key}`;
function readKept(key: string): { trip: string; draft: TripDraft } | null {
  try {
    const kept = sessionStorage.getItem(keyOf(key));
    return kept === null ? null : JSON.parse(kept);
  } catch {
    return null;
  }
}

/** The trip that is being planned: the last that was saved, or a first plan; what is not saved yet outlives a look elsewhere. */
export function useTrip(port: TripPort) {
  const tell = useTell();
  const saved = [...port.trips.values()].filter(({ plan }) => plan !== null).at(-1);
  const [now, setNow] = useState<{ trip: string; draft: TripDraft }>(
    () =>
      readKept(port.key) ??
      (saved === undefined
        ? { trip: `t-${ulid().toLowerCase()}`, draft: createDraft(port, tell) }
        : { trip: saved.trip, draft: saved.plan! }),
  );
  const kept = port.trips.get(now.trip)?.plan ?? null;
  const plan = readDraft(now.draft);
  const isSaved = kept !== null && !isHalfAshore(now.draft) && JSON.stringify(kept) === JSON.stringify(plan);
  useEffect(() => {
    try {
      if (isSaved) sessionStorage.removeItem(keyOf(port.key));
      else sessionStorage.setItem(keyOf(port.key), JSON.stringify(now));
    } catch {
      // A private window may refuse it; the draft lives as long as the page.
    }
  }, [now, isSaved, port.key]);
  return {
    ...now,
    plan,
    isSaved,
    isKept: kept !== null,
    change: (change: Partial<TripDraft>) => setNow(({ trip, draft }) => ({ trip, draft: { ...draft, ...change } })),
    save: () => plan !== null && port.onSave(now.trip, plan),
    begin: () => setNow({ trip: `t-${ulid().toLowerCase()}`, draft: createDraft(port, tell) }),
    callOff: () => {
      port.onSave(now.trip, null);
      setNow({ trip: `t-${ulid().toLowerCase()}`, draft: createDraft(port, tell) });
    },
  };
}
export type Trip = ReturnType<typeof useTrip>;
