import { topics as library } from "../../content/index.ts";
import { type Rig, rigSchema } from "../../core/rig/index.ts";
import { listTopicsFor, type Plan, planWalk, type StyleId } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { Failure } from "../failure.ts";

export interface RigAtHand {
  readonly rig: Rig;
  /** The topics this boat has, in library order. */
  readonly topics: readonly Topic[];
  plan(style: StyleId): Plan;
}

const mostRemembered = 300;

/** Rigs read from the store, with their topics and plans, worked out once for as long as the text is the same. */
export function createRigDesk() {
  const remembered = new Map<string, RigAtHand>();
  return {
    read(rigText: string): RigAtHand {
      const seen = remembered.get(rigText);
      if (seen !== undefined) return seen;
      const rig = rigSchema.parse(JSON.parse(rigText));
      const plans = new Map<StyleId, Plan>();
      const atHand: RigAtHand = {
        rig,
        topics: listTopicsFor(rig, library),
        plan(style) {
          const known = plans.get(style);
          if (known !== undefined) return known;
          const planned = planWalk(rig, library, style);
          if (!planned.ok) throw new Failure("cycle", planned.error);
          plans.set(style, planned.value);
          return planned.value;
        },
      };
      if (remembered.size >= mostRemembered) remembered.delete(remembered.keys().next().value!);
      remembered.set(rigText, atHand);
      return atHand;
    },
  };
}

export type RigDesk = ReturnType<typeof createRigDesk>;
