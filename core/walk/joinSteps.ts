import { createTell, type Tell } from "../language/index.ts";
import { capitalize } from "../text/index.ts";
import type { Entry } from "./entry.ts";

/** An entry that is listed, and for how many steps of one launch (or hitching up) it stands: 0 for any other entry. */
export interface Listed {
  readonly entry: Entry;
  readonly steps: number;
}

/** Entries as they are listed for people: the thirty steps of a launch are one line, where its last step stands. */
export function joinSteps(entries: readonly Entry[]): Listed[] {
  const counts = new Map<string, number>();
  const lasts = new Map<string, string>();
  for (const entry of entries) {
    if (entry.kind !== "step") continue;
    counts.set(entry.run, (counts.get(entry.run) ?? 0) + 1);
    lasts.set(entry.run, entry.id);
  }
  return entries.flatMap((entry): Listed[] => {
    if (entry.kind !== "step") return [{ entry, steps: 0 }];
    return lasts.get(entry.run) === entry.id ? [{ entry, steps: counts.get(entry.run)! }] : [];
  });
}

/** (launch, 24) → "Launch: 24 steps entered"; null for an entry that is said by itself. */
export function sayJoined({ entry, steps }: Listed, tell: Tell = createTell(null)): string | null {
  if (entry.kind !== "step" || steps < 2) return null;
  return tell("{0}: {1} steps entered", capitalize(entry.sequence.replaceAll("-", " ")), steps);
}
