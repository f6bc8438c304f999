import { rigTemplates, topics } from "../../content/index.ts";
import { regions } from "../../core/region/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import {
  adaptTopics,
  defaultPlanOptions,
  findStyle,
  listTopicsFor,
  type Plan,
  planWalk,
  type RouteStyle,
  routeStyles,
} from "../../core/route/index.ts";
import { fillTopic, type Topic } from "../../core/topic/index.ts";
import type { Figure } from "./figures.ts";

const goals = { inHour: 40, inHourAndHalf: 60, coupleInHourAndHalf: 50, coupleMustsMin: 45 } as const;
/** What a walk of an hour and a half never leaves out. */
const always = ["transom-straps", "lights-plug", "tilt-and-travel", "gauges", "nav-lights"];

interface Hour {
  readonly inHour: number;
  readonly inHourAndHalf: number;
  readonly coupleInHourAndHalf: number;
  readonly coupleMustsMin: number;
  readonly leftOut: readonly string[];
}

/** What each template's walk holds: first-time buyers on the trailer with a hose, in the first style and in any. */
export function benchHour(): Figure[] {
  return Object.values(rigTemplates).map((rig) => {
    const [first, ...others] = routeStyles.map((style) => measureHour(rig, style));
    const { inHour, inHourAndHalf, coupleInHourAndHalf, coupleMustsMin, leftOut } = first!;
    const worst = (of: (hour: Hour) => number, pick: (...counts: number[]) => number) => pick(...others.map(of));
    const isMet =
      inHour >= goals.inHour &&
      inHourAndHalf >= goals.inHourAndHalf &&
      coupleInHourAndHalf >= goals.coupleInHourAndHalf &&
      coupleMustsMin <= goals.coupleMustsMin &&
      leftOut.length === 0 &&
      others.every((hour) => hour.leftOut.length === 0);
    return {
      what: `topics of ${rig.model} in 60 min, in 90 min, for a couple in 90 min; musts of a couple (other styles)`,
      value:
        `${inHour} (${worst((hour) => hour.inHour, Math.min)}), ` +
        `${inHourAndHalf} (${worst((hour) => hour.inHourAndHalf, Math.min)}), ` +
        `${coupleInHourAndHalf} (${worst((hour) => hour.coupleInHourAndHalf, Math.min)}); ` +
        `${coupleMustsMin.toFixed(1)} (${worst((hour) => hour.coupleMustsMin, Math.max).toFixed(1)}) min` +
        (leftOut.length === 0 ? "" : `; left out: ${leftOut.join(", ")}`),
      goal: `${goals.inHour}, ${goals.inHourAndHalf}, ${goals.coupleInHourAndHalf}; ${goals.coupleMustsMin} min`,
      isMet,
    };
  });
}

function measureHour(rig: Rig, style: RouteStyle): Hour {
  const prepare = (people: number) =>
    adaptTopics(
      listTopicsFor(rig, topics).map((topic) => fillTopic(topic, rig, regions.us)),
      { ...defaultPlanOptions, people },
    ).topics;
  const plan = (told: readonly Topic[], budgetMin: number | null): Plan => {
    const planned = planWalk(rig, told, findStyle(style.id), { budgetMin });
    if (!planned.ok) throw new Error(`${rig.model}: ${planned.error.message}`);
    return planned.value;
  };
  const count = ({ visits }: Plan) => visits.reduce((sum, visit) => sum + visit.topics.length, 0);
  const hourAndHalf = plan(prepare(1), 90);
  const couple = prepare(2);
  return {
    inHour: count(plan(prepare(1), 60)),
    inHourAndHalf: count(hourAndHalf),
    coupleInHourAndHalf: count(plan(couple, 90)),
    // With no time at all, the musts and what they need are what is left.
    coupleMustsMin: plan(couple, 1).totalMin,
    leftOut: always.filter((id) => hourAndHalf.deferred.includes(id)),
  };
}
