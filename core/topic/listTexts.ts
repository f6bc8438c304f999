import type { Topic } from "./topic.ts";

/** All that a topic says, as it is written, each text once: what is translated of it. */
export function listTexts({ title, why, say, show, does, wrong, cautions, schools = [] }: Topic): string[] {
  const taught = schools.flatMap((school) => [
    school.name,
    school.say,
    school.show ?? "",
    school.does ?? "",
    school.tradeOff,
  ]);
  return [...new Set([title, say, show, does, ...cautions, wrong, why, ...taught])].filter((text) => text !== "");
}
