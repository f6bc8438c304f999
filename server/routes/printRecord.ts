import type { Delivery } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { readLetterhead } from "../pdf/letterhead.ts";
import { listPrintedPhotos } from "../pdf/record/printedPhotos.ts";

/** The record of a handover as a PDF, with those of its photos that are here. */
export async function printRecord(
  { photos, press, settings, clock }: Services,
  delivery: Delivery,
  paper: "a4" | "letter",
): Promise<Buffer> {
  const pictures = new Map<string, Uint8Array>();
  for (const id of listPrintedPhotos(delivery)) {
    const bytes = await photos.find(id, "small");
    if (bytes !== null) pictures.set(id, bytes);
  }
  const store = await readLetterhead(settings, photos);
  return press.print({ kind: "record", delivery, store, paper, timeZone: clock.timeZone, pictures });
}
