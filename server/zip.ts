import yauzl from "yauzl";
import yazl from "yazl";
import { Failure } from "./failure.ts";

/** The most a bundle may hold: a walk of a hundred photos is far below all of them. */
export const zipLimits = { mostFiles: 600, mostFileBytes: 25_000_000, mostBytes: 300_000_000 } as const;

/**
 * The files of a zip, by name. Refused with `not-a-bundle`: what is no zip, names that lead out of it, more or larger files
 * than a bundle has, by what they say and by what they turn out to be.
 */
export async function readZip(bytes: Buffer, isWanted: (name: string) => boolean): Promise<Map<string, Buffer>> {
  const refuse = (reason: string) => new Failure("not-a-bundle", { reason });
  const zip = await yauzl
    .fromBufferPromise(bytes, { lazyEntries: true, validateEntrySizes: true, strictFileNames: true })
    .catch((error) => {
      throw refuse(`it cannot be opened as a zip (${(error as Error).message})`);
    });
  if (zip.entryCount > zipLimits.mostFiles) throw refuse(`it holds ${zip.entryCount} files`);
  const files = new Map<string, Buffer>();
  let total = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      if (name.endsWith("/")) continue;
      if (!isWanted(name)) throw refuse(`"${name}" does not belong in a handover bundle`);
      if (files.has(name)) throw refuse(`"${name}" is in it twice`);
      if (entry.uncompressedSize > zipLimits.mostFileBytes) throw refuse(`"${name}" is too large`);
      total += entry.uncompressedSize;
      if (total > zipLimits.mostBytes) throw refuse("unpacked it is too large");
      const chunks: Buffer[] = [];
      // yauzl ends the stream with an error when more comes out than the entry says.
      for await (const chunk of await zip.openReadStreamPromise(entry)) chunks.push(chunk as Buffer);
      files.set(name, Buffer.concat(chunks));
    }
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw refuse((error as Error).message);
  } finally {
    zip.close();
  }
  return files;
}

/** A zip of these files, as bytes. */
export async function writeZip(files: ReadonlyMap<string, Buffer>, modifiedAt: Date): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, bytes] of files) zip.addBuffer(bytes, name, { mtime: modifiedAt });
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}
