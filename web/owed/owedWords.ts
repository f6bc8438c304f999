import type { OwedKind, Severity } from "../../core/walk/index.ts";

/** What is owed, as a sign and a word. */
export const owedSigns: Record<OwedKind, string> = {
  later: "▷",
  snag: "▲",
  gear: "–",
  must: "▲",
  promise: "◇",
  extra: "◇",
  question: "?",
};
export const owedWords: Record<OwedKind, string> = {
  later: "put off",
  snag: "snag",
  gear: "gear short",
  must: "must, not done",
  promise: "promised",
  extra: "sold, not fitted",
  question: "question",
};
export const severityWords: Record<Severity, string> = {
  stop: "stops the handover",
  "before-leaving": "fix before leaving",
  "by-date": "fix by a date",
  cosmetic: "cosmetic",
  note: "only a note",
};
/** Whether it needs a person now. */
export const isPressing = (what: OwedKind, severity: Severity | null) =>
  what === "must" || severity === "stop" || severity === "before-leaving";
