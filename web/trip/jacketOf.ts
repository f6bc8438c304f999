import type { TripPlan } from "../../core/trip/index.ts";

export const jackets = [
  "infant jacket",
  "child jacket",
  "youth jacket",
  "youth or small adult jacket",
  "adult jacket",
  "large adult jacket",
] as const;

/** Jackets go by weight: children and adults apart, as makers size them. */
export function jacketOf({ isChild, kg }: TripPlan["people"][number]): (typeof jackets)[number] | null {
  if (kg === undefined) return null;
  const [infant, child, youth, small, adult, large] = jackets;
  if (kg < 15) return infant;
  if (kg < 25) return child;
  if (kg < 40) return youth;
  if (isChild) return small;
  return kg < 100 ? adult : large;
}
