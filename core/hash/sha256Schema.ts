import { z } from "zod";

/** Apart from the hashing itself, so that what only hashes need not carry schemas. */
export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/, "must be a SHA-256 in 64 small hex digits");
