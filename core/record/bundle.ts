import { z } from "zod";
import { sha256Schema } from "../hash/index.ts";
import { amendmentSchema, handoverSchema } from "./handover.ts";

/** A sealed handover with all that was added since, to be carried elsewhere (`ravik.bundle/1`). Photos lie beside it. */
export const bundleSchema = z.strictObject({
  format: z.literal("ravik.bundle/1"),
  sha256: sha256Schema,
  handover: handoverSchema,
  amendments: z.array(z.strictObject({ sha256: sha256Schema, amendment: amendmentSchema })).max(2000),
  /** Where it stands in the store's seal chain. */
  chain: z.strictObject({ number: z.int().min(1), previous: sha256Schema, link: sha256Schema }).optional(),
});
export type Bundle = z.infer<typeof bundleSchema>;

/** The name of the bundle inside a zip, and where its photos lie. */
export const bundleFile = "handover.json";
export const photoFile = (id: string) => `photos/${id}.jpg`;
const photoName = /^photos\/([a-z0-9][a-z0-9-]{0,59})\.jpg$/;
/** The id of the photo that lies under this name; null for any other file. */
export const findPhotoId = (name: string): string | null => photoName.exec(name)?.[1] ?? null;
