import type { Rig } from "../rig/index.ts";
import { createWiring } from "./wireRig.ts";

/** Loads that no position of any switch can bring power to: everything that could conduct taken as closed. */
export function listUnreachable(rig: Rig): string[] {
  const near = new Map<string, string[]>();
  const join = (a: string, b: string) => near.set(a, [...(near.get(a) ?? []), b]);
  for (const { a, b, kind, closedIn } of rig.wiring ?? createWiring(rig)) {
    if (kind === "switch" && (closedIn ?? []).length === 0) continue;
    join(a, b);
    join(b, a);
  }
  const reached = new Set(rig.batteries.map(({ id }) => `battery:${id}`));
  const next = [...reached];
  for (let node = next.pop(); node !== undefined; node = next.pop())
    for (const other of near.get(node) ?? [])
      if (!reached.has(other)) {
        reached.add(other);
        next.push(other);
      }
  return rig.loads.filter(({ id }) => !reached.has(`load:${id}`)).map(({ id }) => id);
}
