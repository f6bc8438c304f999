import { isMet } from "../rig/index.ts";
import { capitalize } from "../text/index.ts";
import { fillText } from "../topic/index.ts";
import type { CardBoat } from "./cardBoat.ts";
import type { CardText } from "./cardText.ts";
import { type CardBlock, createTable } from "./createTable.ts";

/** A card for this very boat: what a person reads aboard, on paper or on a phone. */
export interface Card {
  readonly id: string;
  readonly title: string;
  readonly lead: string | null;
  readonly blocks: readonly CardBlock[];
}

/**
 * The owner's cards for one boat: lines that do not apply are left out, words in braces are what the rig says, tables are
 * made from it. A card with nothing on it but cautions is no card.
 */
export function createCards(texts: readonly CardText[], boat: CardBoat): Card[] {
  const { rig, idiom, emergency } = boat;
  const fill = (words: string) => fillText(words, rig, idiom).replaceAll("{emergency}", emergency);
  return texts.flatMap((text): Card[] => {
    if (text.when !== undefined && !isMet(text.when, rig)) return [];
    const keep = <L extends { when?: Parameters<typeof isMet>[0] | undefined }>(items: readonly L[]) =>
      items.filter(({ when }) => when === undefined || isMet(when, rig));
    const blocks = text.sections.flatMap((section): CardBlock[] => {
      const title = "title" in section && section.title !== undefined ? { title: fill(section.title) } : {};
      switch (section.kind) {
        case "cautions":
        case "steps":
        case "lines": {
          const items = keep(section.items).map(({ say }) => capitalize(fill(say)));
          return items.length === 0 ? [] : [{ kind: section.kind, ...title, items }];
        }
        case "pairs": {
          const rows = keep(section.items).map((pair) => [fill(pair.if), capitalize(fill(pair.do))] as const);
          return rows.length === 0 ? [] : [{ kind: "pairs", ...title, rows }];
        }
        case "table": {
          const table = createTable(section.table, boat);
          return table === null ? [] : [{ ...table, ...title }];
        }
        default:
          throw new Error(`createCards: expected a known section, got ${JSON.stringify(section satisfies never)}`);
      }
    });
    if (blocks.every(({ kind }) => kind === "cautions")) return [];
    return [{ id: text.id, title: fill(text.title), lead: text.lead === undefined ? null : fill(text.lead), blocks }];
  });
}
