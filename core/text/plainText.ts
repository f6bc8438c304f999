import { z } from "zod";
import { findTextFault } from "./findUnfit.ts";

/** As `plainText`, of a string that was looked at already. */
export const plainTextOf = (start: z.ZodString, most: number) =>
  start
    .trim()
    .min(1, "must not be empty")
    .max(most, `must be at most ${most} characters`)
    .regex(/^[^<>\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]*$/, "must not hold markup or control characters")
    .refine((text) => findTextFault(text) === null, "must be well-formed Unicode");

/** Text a person typed: no control characters, no markup, at most `most` characters, not blank. */
export const plainText = (most: number) => plainTextOf(z.string(), most);
