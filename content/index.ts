import { z } from "zod";
import { breakInPackSchema } from "../core/breakin/index.ts";
import { cardTextSchema } from "../core/card/index.ts";
import { faultContentSchema } from "../core/faults/index.ts";
import { gearPackSchema } from "../core/gear/index.ts";
import { readyTopicSchema } from "../core/ready/index.ts";
import { plainText, rigSchema } from "../core/rig/index.ts";
import { synonymsSchema } from "../core/search/index.ts";
import { sequenceSchema } from "../core/sequence/index.ts";
import { servicePackSchema } from "../core/service/index.ts";
import { glossaryListSchema, librarySchema, topicIdSchema } from "../core/topic/index.ts";
import { towRulesSchema } from "../core/tow/index.ts";
import arrivalJson from "./arrival.json" with { type: "json" };
import cardsJson from "./cards.json" with { type: "json" };
import faultsJson from "./faults.json" with { type: "json" };
import forgottenJson from "./forgotten.json" with { type: "json" };
import gearRulesJson from "./gear-rules.json" with { type: "json" };
import glossaryJson from "./glossary.json" with { type: "json" };
import makeReadyJson from "./make-ready.json" with { type: "json" };
import messagesJson from "./messages.json" with { type: "json" };
import boatCareJson from "./packs/boat-care.json" with { type: "json" };
import breakInJson from "./packs/break-in.json" with { type: "json" };
import serviceJson from "./packs/service.json" with { type: "json" };
import ferrin20 from "./rigs/ferrin-20.json" with { type: "json" };
import haldern25 from "./rigs/haldern-25.json" with { type: "json" };
import millrace24 from "./rigs/millrace-24.json" with { type: "json" };
import pipit15 from "./rigs/pipit-15.json" with { type: "json" };
import pluma22 from "./rigs/pluma-22.json" with { type: "json" };
import sedge18 from "./rigs/sedge-18.json" with { type: "json" };
import wending23 from "./rigs/wending-23.json" with { type: "json" };
import sequencesJson from "./sequences.json" with { type: "json" };
import synonymsJson from "./synonyms.json" with { type: "json" };
import deck from "./topics/deck.json" with { type: "json" };
import electrical from "./topics/electrical.json" with { type: "json" };
import engine from "./topics/engine.json" with { type: "json" };
import helm from "./topics/helm.json" with { type: "json" };
import safety from "./topics/safety.json" with { type: "json" };
import trailer from "./topics/trailer.json" with { type: "json" };
import water from "./topics/water.json" with { type: "json" };
import towRulesJson from "./tow-rules.json" with { type: "json" };

/** What ships with Ravik, checked by core's schemas when it is loaded. */
export const topics = librarySchema.parse([
  ...safety,
  ...electrical,
  ...helm,
  ...engine,
  ...water,
  ...deck,
  ...trailer,
]);

/** Trade words, each explained once. */
export const glossary = glossaryListSchema.parse(glossaryJson);

/** What people say for what the library calls otherwise. */
export const synonyms = synonymsSchema.parse(synonymsJson);

/** One good template a family, by id. */
export const rigTemplates = {
  "wending-23": rigSchema.parse(wending23),
  "millrace-24": rigSchema.parse(millrace24),
  "ferrin-20": rigSchema.parse(ferrin20),
  "sedge-18": rigSchema.parse(sedge18),
  "pluma-22": rigSchema.parse(pluma22),
  "haldern-25": rigSchema.parse(haldern25),
  "pipit-15": rigSchema.parse(pipit15),
} as const;

export const breakInPacks = z.array(breakInPackSchema).parse(breakInJson);

export const servicePacks = z.array(servicePackSchema).parse(serviceJson);

/** What ages on every boat by the calendar alone, its engines aside. */
export const boatCarePack = servicePackSchema.parse(boatCareJson);

/** What the workshop checks before the buyer comes. */
export const makeReady = z.array(readyTopicSchema).parse(makeReadyJson);

/** What is done step by step by one or two people: hitching up, launching, loading, putting away. */
export const sequences = z.array(sequenceSchema).parse(sequencesJson);

/** What must be aboard, by water. */
export const gearPacks = z.array(gearPackSchema).parse(gearRulesJson);

/** What is looked at when a boat was trucked to its buyer. */
export const arrivalChecks = z
  .array(z.strictObject({ id: topicIdSchema, title: plainText(80), why: plainText(160) }))
  .parse(arrivalJson);

/** What is most often left out of a walk, the likeliest first, until a store has figures of its own. */
export const usuallyForgotten = z.array(topicIdSchema).parse(forgottenJson);

/** The cards of the owner pack, for every boat. */
export const cards = z.array(cardTextSchema).parse(cardsJson);

/** What is written to a boat's people, with places for names, dates and the address of their page. */
export const messageTemplates = z
  .array(z.strictObject({ id: z.string(), title: z.string(), text: z.string() }))
  .parse(messagesJson);

/** What fails on a boat, what needs it, and what comes before any finding out. */
export const faultContent = faultContentSchema.parse(faultsJson);

/** What regions ask of whoever tows: a neutral pack, and two made to show how others look. */
export const towRules = z.array(towRulesSchema).min(3).parse(towRulesJson);
