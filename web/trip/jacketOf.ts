import type { TripPlan } from "../../core/trip/index.ts";

/** Jackets go by weight: children and adults apart, as makers size them. */
export const jacketOf = ({ isChild, kg }: TripPlan["people"][number]): string | null =>
  kg === undefined
    ? null
    : kg < 15
      ? "infant jacket"
      : kg < 25
        ? "child jacket"
        : kg < 40
          ? "youth jacket"
          : isChild
            ? "youth or small adult jacket"
            : kg < 100
              ? "adult jacket"
              : "large adult jacket";
