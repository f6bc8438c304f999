import type { Delivery } from "../../../api/index.ts";
import { foldAfterSeal, foldWalk } from "../../../core/walk/index.ts";

const mostPhotos = 60;

/** The state of a handover as its record tells it: what was sealed, what came after in the order of its coming, and both. */
export function readRecord(delivery: Delivery) {
  const { entries } = delivery;
  const isAdded = new Set(delivery.added);
  // What came after the seal changes nothing of it: it stands below, in the order of its coming.
  const sealed = entries.filter(({ id }) => !isAdded.has(id));
  const orderOf = (id: string) => delivery.receipts[id]?.number ?? Number.POSITIVE_INFINITY;
  const later = entries.filter(({ id }) => isAdded.has(id)).sort((a, b) => orderOf(a.id) - orderOf(b.id));
  const state = foldWalk(sealed);
  return { state, later, now: delivery.seal === null ? state : foldAfterSeal(sealed, later) };
}

/** The photos a record is printed with. */
export const listPrintedPhotos = (delivery: Delivery): string[] =>
  readRecord(delivery)
    .now.photos.slice(0, mostPhotos)
    .map(({ photo }) => photo);
