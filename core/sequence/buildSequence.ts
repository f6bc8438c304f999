import { listMeasures } from "../measure/index.ts";
import type { Idiom } from "../region/index.ts";
import { tellText } from "../region/index.ts";
import { isMet, type Rig } from "../rig/index.ts";
import { fillText } from "../topic/index.ts";
import type { WheelRead } from "./judgeWheels.ts";
import type { Sequence, StepRole, StepSetup } from "./sequence.ts";

/** One step of this boat, filled. Its id is unique in the sequence. */
export interface BuiltStep {
  readonly id: string;
  readonly by: StepRole;
  readonly say: string;
  readonly other: string | null;
  readonly proof: string | null;
  readonly caution: string | null;
  readonly topic: string | null;
  readonly teaches: string | null;
  readonly minutes: number | null;
  /** What is read at each wheel; empty for a step without. */
  readonly reads: readonly WheelRead[];
}
export interface BuiltSequence {
  readonly id: string;
  readonly title: string;
  readonly lead: string;
  readonly cautions: readonly string[];
  readonly isTogether: boolean;
  readonly called: Readonly<Record<StepRole, string>>;
  readonly phases: readonly BuiltPhase[];
}

export interface BuiltPhase {
  readonly id: string;
  readonly title: string;
  readonly isFree: boolean;
  readonly steps: readonly BuiltStep[];
}

/** How it is done this time. */
export interface StepWay {
  readonly way: "alone" | "partner";
  readonly method: "winch" | "drive";
}

/**
 * A sequence for one boat and one way of doing it: steps that do not apply are left out, words in braces are what the rig says.
 * Alone, every step is the skipper's, and the boat comes on by its winch: nobody hooks a strap and drives. Null where the boat has nothing to do it with (no trailer).
 */
export function buildSequence(sequence: Sequence, rig: Rig, way: StepWay, idiom: Idiom): BuiltSequence | null {
  if (sequence.when !== undefined && !isMet(sequence.when, rig)) return null;
  const fill = (text: string) => fillText(text, rig, idiom);
  const fillOr = (text: string | undefined) => (text === undefined ? null : fill(text));
  const isAlone = way.way === "alone";
  const setups: ReadonlySet<StepSetup> = new Set([way.way, isAlone ? "winch" : way.method]);
  return {
    id: sequence.id,
    title: fill(sequence.title),
    lead: fill(sequence.lead),
    cautions: sequence.cautions.map(fill),
    isTogether: sequence.isTogether ?? false,
    called: { skipper: fill(sequence.called?.skipper ?? "skipper"), helper: fill(sequence.called?.helper ?? "helper") },
    phases: sequence.phases
      .map(({ id, title, isFree = false, steps }) => ({
        id,
        title: fill(title),
        isFree,
        steps: steps
          .filter(
            ({ when, setup }) => (when === undefined || isMet(when, rig)) && (setup ?? []).every((s) => setups.has(s)),
          )
          .map(
            (step): BuiltStep => ({
              id: step.id,
              by: isAlone ? "skipper" : step.by,
              say: fill(step.say),
              other: isAlone ? null : fillOr(step.other),
              proof: fillOr(step.proof),
              caution: fillOr(step.caution),
              topic: step.topic ?? step.teaches ?? null,
              teaches: step.teaches ?? null,
              minutes: step.minutes ?? null,
              reads: step.asks === undefined ? [] : listReads(step.id, step.asks, rig, idiom),
            }),
          ),
      }))
      .filter(({ steps }) => steps.length > 0),
  };
}

/** What is read at each wheel of the trailer; hubs and warm tires of the wheels on the road, not of the spare. */
function listReads(step: string, asks: "tyres" | "hubs" | "warm-tyres", rig: Rig, idiom: Idiom): WheelRead[] {
  return listMeasures(rig)
    .filter(({ kind, id }) => kind === "tyre" && (asks === "tyres" || id !== "tyre-spare"))
    .map(({ id, label, wanted }) => {
      const wheel = id.replace("tyre-", "");
      const place = label.replace(/^Tire, /, "");
      return {
        id: `${step}-${wheel}`,
        wheel,
        label: tellText(asks === "hubs" ? `Hub, ${place}` : label, idiom),
        asks,
        plateKpa: asks === "hubs" ? null : wanted,
      };
    });
}
