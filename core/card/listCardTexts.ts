import type { CardText } from "./cardText.ts";

/** All that a card says, as it is written, each text once; what its tables say comes from the boat. */
export function listCardTexts({ title, lead = "", sections }: CardText): string[] {
  const said = sections.flatMap((section) => {
    const head = "title" in section ? [section.title ?? ""] : [];
    if (section.kind === "table") return head;
    if (section.kind === "pairs") return [...head, ...section.items.flatMap((pair) => [pair.if, pair.do])];
    return [...head, ...section.items.map(({ say }) => say)];
  });
  return [...new Set([title, lead, ...said])].filter((text) => text !== "");
}
