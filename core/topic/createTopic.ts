import { toPlainLetters } from "../text/index.ts";
import type { System } from "./systems.ts";
import type { Topic } from "./topic.ts";

const longestId = 50;

/** An id made of a title that no topic has yet: "Ice box: drain it" → "ice-box-drain-it", or "ice-box-drain-it-2". */
export function createTopicId(title: string, taken: ReadonlySet<string>): string {
  const words = toPlainLetters(title)
    .replace(/[^a-z0-9]+/g, "-")
    .slice(0, longestId)
    .replace(/^-+|-+$/g, "");
  const base = words === "" ? "topic" : words;
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(id)) return id;
  }
}

/** A topic with nothing said yet, to be written: told on every boat at its helm until somebody chooses otherwise. */
export const blankTopic = (system: System): Topic => ({
  id: "new",
  title: "",
  system,
  where: ["helm"],
  when: { all: [] },
  must: false,
  level: "shown",
  minutes: 0.25,
  after: [],
  moment: "run",
  storage: false,
  value: 5,
  why: "",
  say: "",
  show: "",
  does: "",
  cautions: [],
  wrong: "",
});
