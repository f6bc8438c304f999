import { Failure } from "./failure.ts";

export const fileLimits = { mostBytes: 10_000_000 } as const;
export type FileType = "application/pdf" | "text/plain";

/** A PDF may begin within its first kilobyte (ISO 32000-1, annex H 3.4.1). */
const pdfWithin = 1024;

/** What a file is, told by its content, not its name: a PDF or plain text in UTF-8. Failure: `not-a-document`. */
export function tellFile(bytes: Buffer): FileType {
  if (bytes.subarray(0, pdfWithin).includes("%PDF-")) return "application/pdf";
  if (bytes.length === 0 || bytes.includes(0)) throw new Failure("not-a-document");
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Failure("not-a-document");
  }
  return "text/plain";
}
