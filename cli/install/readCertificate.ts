import { X509Certificate } from "node:crypto";
import { readFile } from "node:fs/promises";

/** SHA-256 of a certificate, as tablets show it: "A1:B2:…". */
export async function readFingerprint(path: string): Promise<string> {
  return new X509Certificate(await readFile(path)).fingerprint256;
}
