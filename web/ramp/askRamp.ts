import type { RampInput } from "../../core/ramp/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Vehicle } from "../../core/tow/index.ts";

/** Where nobody has measured yet: middling figures of trailers and cars, said to be assumed wherever they are used. Ours. */
const assumed = {
  hitchToTransomM: 7,
  bunkHeightM: 0.55,
  fenderFromTransomM: 2,
  fenderHeightM: 0.85,
  sternDraftM: 0.45,
  hitchToRearAxleM: 1.1,
  wadeLimitM: 0.25,
} as const;

const says: Readonly<Record<keyof typeof assumed, string>> = {
  hitchToTransomM: "hitch to transom",
  bunkHeightM: "height of the bunks",
  fenderFromTransomM: "fender to transom",
  fenderHeightM: "height of the fender",
  sternDraftM: "draft at the stern",
  hitchToRearAxleM: "hitch to rear axle",
  wadeLimitM: "how deep the car may wade",
};

/** What the contract `ramp` is asked of this boat, trailer and car, and which figures nobody has measured. */
export function askRamp(rig: Rig, vehicle: Vehicle | null, gradePct: number): { ask: RampInput; guessed: string[] } {
  const { trailer, weights } = rig;
  const known = {
    hitchToTransomM: trailer?.hitchToTransomM,
    bunkHeightM: trailer?.bunkHeightM,
    fenderFromTransomM: trailer?.fenderFromTransomM,
    fenderHeightM: trailer?.fenderHeightM,
    sternDraftM: weights?.sternDraftM,
    hitchToRearAxleM: vehicle?.hitchToRearAxleM,
    wadeLimitM: vehicle?.wadeLimitM,
  };
  const names = Object.keys(assumed) as (keyof typeof assumed)[];
  const of = (name: keyof typeof assumed) => known[name] ?? assumed[name];
  return {
    ask: {
      gradePct,
      trailer: {
        hitchToTransomM: of("hitchToTransomM"),
        bunkHeightM: of("bunkHeightM"),
        fenderFromTransomM: of("fenderFromTransomM"),
        fenderHeightM: of("fenderHeightM"),
      },
      boat: { sternDraftM: of("sternDraftM") },
      vehicle: { hitchToRearAxleM: of("hitchToRearAxleM"), wadeLimitM: of("wadeLimitM") },
    },
    guessed: names.filter((name) => known[name] === undefined).map((name) => says[name]),
  };
}
