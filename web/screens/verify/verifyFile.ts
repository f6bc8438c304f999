import { strFromU8, unzipSync } from "fflate";
import { hashBytes } from "../../../core/hash/index.ts";
import { bundleFile, findPhotoId, formatDifference, type Verified, verifyBundle } from "../../../core/record/index.ts";

/** What was found of a file: whether it is what was sealed, or in words why it cannot be read. */
export type FileVerdict =
  | { readonly verified: Verified & { readonly says: readonly string[] }; readonly value: unknown }
  | { readonly fault: string };

const mostFileBytes = 25_000_000;
const mostFiles = 600;
const mostBytes = 300_000_000;
const fault = (words: string): FileVerdict => ({ fault: words });

/**
 * Whether a handover file (JSON, or zip with its photos) is what was sealed, worked out on this device alone: no server is
 * asked, so that anybody may do it who has the file.
 */
export function verifyFile(bytes: Uint8Array): FileVerdict {
  if (bytes.length === 0) return fault("The file is empty.");
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return verifyZip(bytes);
  if (bytes[0] === 0x1f && bytes[1] === 0x8b)
    return fault("It is packed with gzip. Unpack it first: a handover file is JSON or zip.");
  return verifyText(bytes);
}

function verifyText(bytes: Uint8Array, photos?: ReadonlyMap<string, string>): FileVerdict {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    return fault("It is not JSON. A handover file is exported from its record: Bundle, JSON or zip.");
  }
  if (!isOfRavik(value)) return fault("It is JSON, but not a handover: nothing in it says that it is one.");
  if (!isOfKnownNumber(value))
    return fault("It is of a format that this version does not know. Update Ravik and try again.");
  const verified = verifyBundle(value, undefined, photos === undefined ? {} : { photos });
  return { value, verified: { ...verified, says: verified.differences.map(formatDifference) } };
}

/** Whether it says of itself that it is a record or a bundle, of whatever number: one that does may have been altered. */
const isOfRavik = (value: unknown): boolean =>
  /^ravik\.(bundle|handover)\//.test(String((value as { format?: unknown } | null)?.format));

const isOfKnownNumber = (value: unknown): boolean => /\/[123]$/.test(String((value as { format: unknown }).format));

function verifyZip(bytes: Uint8Array): FileVerdict {
  const files = new Map<string, Uint8Array>();
  let total = 0;
  let count = 0;
  let refusal: string | null = null;
  try {
    const unpacked = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        count++;
        total += originalSize;
        if (count > mostFiles || total > mostBytes || originalSize > mostFileBytes)
          refusal ??= "It holds more, or larger files, than a handover has.";
        else if (name !== bundleFile && findPhotoId(name) === null)
          refusal ??= `"${name}" in it does not belong to a handover.`;
        return refusal === null;
      },
    });
    for (const [name, content] of Object.entries(unpacked)) files.set(name, content);
  } catch {
    return fault("It cannot be opened as a zip: it is damaged, or was cut off on its way.");
  }
  if (refusal !== null) return fault(refusal);
  const text = files.get(bundleFile);
  if (text === undefined) return fault(`There is no ${bundleFile} in it, so it is not an exported handover.`);
  if (strFromU8(text.subarray(0, 1)) !== "{") return fault(`${bundleFile} in it is not JSON.`);
  const photos = new Map(
    [...files].flatMap(([name, content]) => {
      const id = findPhotoId(name);
      return id === null ? [] : [[id, hashBytes(content)] as const];
    }),
  );
  return verifyText(text, photos);
}
