import type { TowOutput } from "./tow.ts";

type CheckId = TowOutput["checks"][number]["id"];

/** Each limit: what it is, and where its figure stands. */
export const towWords: Readonly<Record<CheckId, readonly [says: string, where: string]>> = {
  "trailer-gross": ["Trailer, loaded", "plate on the trailer's tongue: gross weight"],
  axles: ["Trailer axles", "plate on the trailer's tongue: axles"],
  tyres: ["Trailer tires", "sidewall of one tire: most load, times the tires"],
  coupler: ["Coupler", "stamped on the coupler"],
  ball: ["Ball", "stamped on top of the ball"],
  hitch: ["Hitch receiver", "plate under the car's rear bumper"],
  "vehicle-tow": ["What the car may tow", "car's papers or plate in the door"],
  combined: [
    "Car and trailer together",
    "car's papers or plate in the door; the car's own weight from its papers or a scale",
  ],
  payload: ["What the car may carry", "plate in the driver's door: people, luggage and tongue together"],
  "tongue-vehicle": ["Tongue on the car", "car's papers or plate at the hitch"],
  "tongue-trailer": ["Tongue on the trailer", "stamped on the coupler or jack"],
  "tongue-share": ["Tongue weight as a share", "measured: see below"],
  "ball-size": ["Ball and coupler", "stamped on top of the ball"],
  brakes: ["Trailer brakes", "the boat sheet"],
  plug: ["Plug", "count the pins of the car's socket"],
};
