import type { AuditLine } from "../repositories/audit.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import { nameBoats } from "./nameBoat.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
}

const thing = /\b(boat|delivery) ([0-9A-Za-z-]+)(?=,|$)/g;

/** Lines of the log with boats and handovers by name: the log itself keeps their ids, which stay. */
export async function nameThings(parts: Parts, lines: readonly AuditLine[]): Promise<AuditLine[]> {
  const idsOf = (kind: string) => [
    ...new Set(lines.flatMap(({ about }) => [...about.matchAll(thing)].flatMap((m) => (m[1] === kind ? [m[2]!] : [])))),
  ];
  const handovers = await parts.deliveries.findMany(idsOf("delivery"));
  const heads = await parts.boats.listHeads(idsOf("boat"));
  const known = new Set([...heads.map(({ id }) => id), ...[...handovers.values()].map(({ boatId }) => boatId)]);
  const nameOf = await nameBoats(parts, [...known]);
  const say = (id: string) => {
    const { boatName, serial } = nameOf(id);
    return `${boatName} ${serial}`;
  };
  const name = (text: string, kind: string, id: string): string => {
    const handover = kind === "delivery" ? handovers.get(id) : undefined;
    if (handover !== undefined) return `handover of ${say(handover.boatId)} on ${handover.date}`;
    return kind === "boat" && known.has(id) ? `boat ${say(id)}` : text;
  };
  return lines.map((line) => ({ ...line, about: line.about.replace(thing, name) }));
}
