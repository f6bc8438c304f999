import { z } from "zod";
import { launchSchema, rampSheetSchema } from "../../core/ramp/index.ts";
import { towRulesSchema, vehicleSchema } from "../../core/tow/index.ts";
import { recordIdSchema } from "../../core/walk/index.ts";
import { addresses } from "../addresses.ts";
import { endpoint } from "../endpoint.ts";
import { everyone, keepers, walkers } from "../roles.ts";
import { towingSheetSchema } from "../schemas.ts";
import { done, none, oneBoat } from "./shared.ts";

const oneRules = z.strictObject({ rules: recordIdSchema });
const oneRamp = z.strictObject({ ramp: recordIdSchema });

/** What a boat is towed with, and where it is launched. */
export const towingEndpoints = {
  towing: endpoint({
    ...addresses.towing,
    summary: "The buyer's car, the boat's launches as they were seen, and the store's ramps",
    admits: everyone,
    params: oneBoat,
    query: none,
    body: null,
    answer: towingSheetSchema,
  }),
  setVehicle: endpoint({
    ...addresses.setVehicle,
    summary: "The car of those who have the boat now, as far as its plates were read",
    admits: walkers,
    audit: "boats",
    params: oneBoat,
    query: none,
    body: vehicleSchema,
    answer: done,
  }),
  addLaunch: endpoint({
    ...addresses.addLaunch,
    summary: "How far the mark was under when the stern floated",
    admits: everyone,
    params: oneBoat,
    query: none,
    body: launchSchema.omit({ by: true }),
    answer: done,
  }),
  removeLaunch: endpoint({
    ...addresses.removeLaunch,
    summary: "A launch that was seen wrong counts no more",
    admits: walkers,
    audit: "boats",
    params: oneBoat.extend({ launch: z.string().min(1).max(60) }),
    query: none,
    body: null,
    answer: done,
  }),
  setRamp: endpoint({
    ...addresses.setRamp,
    summary: "A ramp by its grade, surface and rules",
    admits: walkers,
    audit: "settings",
    params: oneRamp,
    query: none,
    body: rampSheetSchema.omit({ id: true }),
    answer: done,
  }),
  setTowRules: endpoint({
    ...addresses.setTowRules,
    summary: "What a region asks of whoever tows, as the store has checked it",
    admits: keepers,
    audit: "settings",
    params: none,
    query: none,
    body: towRulesSchema,
    answer: done,
  }),
  removeTowRules: endpoint({
    ...addresses.removeTowRules,
    summary: "Rules of the store's own that nobody goes by any more",
    admits: keepers,
    audit: "settings",
    params: oneRules,
    query: none,
    body: null,
    answer: done,
  }),
  removeRamp: endpoint({
    ...addresses.removeRamp,
    summary: "A ramp that nobody goes to any more",
    admits: walkers,
    audit: "settings",
    params: oneRamp,
    query: none,
    body: null,
    answer: done,
  }),
};
