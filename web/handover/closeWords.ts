import type { Obstacle, Unseen } from "../../core/walk/index.ts";

/** What is in the way of closing, in words. */
export const obstacleWords: Record<Obstacle["code"], (count: number) => string> = {
  "must-open": (count) => `${count} must-do ${count === 1 ? "topic needs" : "topics need"} doing or a reason`,
  "gear-uncounted": (count) => `${count} ${count === 1 ? "thing is" : "things are"} not counted yet`,
  "hours-unread": (count) => `hours of ${count} ${count === 1 ? "engine" : "engines"} not read yet`,
  "hours-asked": (count) => `hours of ${count} ${count === 1 ? "engine" : "engines"} do not follow: say why`,
  unsigned: (count) => (count === 1 ? "one signature is missing" : `${count} signatures are missing`),
  "signature-stale": (count) =>
    `${count === 1 ? "one signature is" : `${count} signatures are`} for what stood before a change: sign again`,
  "stopping-snag": (count) => `${count} ${count === 1 ? "snag stops" : "snags stop"} the handover`,
  "not-allowed-to-start": (count) => `make-ready was left open (${count}) and nobody of the owners has allowed it`,
};

/** What an entry, in words, is to those who signed without knowing of it. */
export const unseenWords: Record<Unseen["why"], (text: string) => string> = {
  undone: (text) => text,
  refused: (text) => text,
  corrected: (text) => `entered otherwise since: ${text}`,
  stops: (text) => `this stops the handover until it is settled: ${text}`,
};
