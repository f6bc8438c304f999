import type { Delivery } from "../../api/index.ts";
import type { Language } from "../../core/language/index.ts";
import type { Services } from "../createServices.ts";
import { readLetterhead } from "../pdf/letterhead.ts";
import { listPrintedPhotos } from "../pdf/record/printedPhotos.ts";

/** The record of a handover as a PDF, with those of its photos that are here. */
export async function printRecord(
  { photos, press, settings, languageService, clock }: Services,
  delivery: Delivery,
  { paper, language }: { readonly paper: "a4" | "letter"; readonly language: Language },
): Promise<Buffer> {
  const pictures = new Map<string, Uint8Array>();
  for (const id of listPrintedPhotos(delivery)) {
    const bytes = await photos.find(id, "small");
    if (bytes !== null) pictures.set(id, bytes);
  }
  const store = await readLetterhead(settings, photos);
  const reader = await languageService.findReader(language);
  return press.print({ kind: "record", delivery, store, paper, reader, timeZone: clock.timeZone, pictures });
}
