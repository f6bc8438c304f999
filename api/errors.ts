import { z } from "zod";

/** Every code the server may answer with, and its HTTP status. The web has words for each (a test checks that). */
export const errorStatus = {
  "invalid-input": 422,
  "malformed-json": 400,
  "too-large": 413,
  "not-a-photo": 415,
  "not-a-document": 415,
  "not-json": 415,
  "not-found": 404,
  "sign-in-needed": 401,
  "wrong-sign-in": 401,
  "too-many-tries": 429,
  "not-allowed": 403,
  "wrong-origin": 403,
  sealed: 409,
  "hours-fall": 409,
  "hours-leap": 409,
  "run-known": 409,
  "before-delivery": 409,
  "pack-used": 409,
  "slot-closed": 409,
  "opted-out": 409,
  "no-owner-page": 409,
  "no-address": 409,
  "message-differs": 409,
  "date-ahead": 409,
  "not-delivered": 409,
  "entry-differs": 409,
  "not-your-entry": 403,
  "wrong-delivery": 422,
  "unknown-topic": 422,
  "unknown-ref": 422,
  "unknown-snapshot": 422,
  "not-yours-to-undo": 409,
  "no-signature": 422,
  "needs-date": 422,
  "photo-differs": 422,
  "unknown-store": 409,
  busy: 503,
  cycle: 409,
  "topic-needed": 409,
  "not-empty": 409,
  "rig-changed": 409,
  "template-shipped": 409,
  "link-ended": 410,
  "not-sealed": 409,
  "first-format": 409,
  "not-a-bundle": 422,
  "already-here": 409,
  unexpected: 500,
} as const;

export type ErrorCode = keyof typeof errorStatus;

export const errorBodySchema = z.object({
  error: z.looseObject({
    code: z.string(),
    message: z.string().optional(),
    issues: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  }),
});
export type ErrorBody = z.infer<typeof errorBodySchema>;
