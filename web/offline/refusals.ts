import type { ErrorCode } from "../../api/index.ts";

/**
 * Refusals that are final: what was sent is wrong in itself and will never be taken. Everything else (no signal, signed out,
 * another role, another address, a server that is at a loss) says nothing about what was sent: it stays and is tried again.
 */
export const finalRefusals = {
  /** Of an entry: kept with its reason until somebody looks at it. */
  entry: [
    "invalid-input",
    "entry-differs",
    "wrong-delivery",
    "unknown-topic",
    "no-signature",
    "needs-date",
    "not-yours-to-undo",
    "undo-needs-reason",
    "old-form",
    "copied-signature",
    "not-a-buyer",
  ],
  /** Of a photo: what names it is taken back, so that nothing waits for it. */
  photo: ["not-a-photo", "too-large"],
  /** Of hours, runs and fuel: kept with the question that was asked about them. */
  post: [
    "invalid-input",
    "hours-fall",
    "hours-leap",
    "run-known",
    "before-delivery",
    "date-ahead",
    "not-delivered",
    "not-found",
    "not-allowed",
    "link-ended",
  ],
} as const satisfies Record<string, readonly ErrorCode[]>;

/** Whether a refusal of one of these is final. */
export const isFinal = (what: keyof typeof finalRefusals, code: string): boolean =>
  (finalRefusals[what] as readonly string[]).includes(code);
