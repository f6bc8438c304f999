import type { Rig } from "./rig.ts";

/** A battery as it is said: "Starting" → "Starting battery"; "Battery", "Bow motor 1" as they are. */
export const nameBattery = ({ label }: Pick<Rig["batteries"][number], "label">): string =>
  /batter|motor/i.test(label) ? label : `${label} battery`;
