import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";

const require = createRequire(import.meta.url);
const pdfmake = require("pdfmake") as {
  setFonts(fonts: Record<string, Record<string, string>>): void;
  setLocalAccessPolicy(isAllowed: (path: string) => boolean): void;
  setUrlAccessPolicy(isAllowed: (url: string) => boolean): void;
  createPdf(document: TDocumentDefinitions): { getBuffer(): Promise<Buffer> };
};
const { toSfnt } = require("woff2sfnt-sfnt2woff") as { toSfnt(woff: Buffer): Buffer };

const folderOf = (name: string) => join(dirname(require.resolve(`${name}/package.json`)), "files");
const archivo = folderOf("@fontsource/archivo");
const noto = folderOf("@fontsource/noto-sans");
const atkinson = folderOf("@fontsource/atkinson-hyperlegible-next");
/** Where the faces lie unpacked while this server runs: the printer would unpack a packed one again for every letter. */
const unpacked = mkdtempSync(join(tmpdir(), "ravik-faces-"));
process.once("exit", () => rmSync(unpacked, { recursive: true, force: true }));
const unpack = (folder: string, name: string) => {
  const file = join(unpacked, `${name}.ttf`);
  writeFileSync(file, toSfnt(readFileSync(join(folder, `${name}.woff`))));
  return file;
};
const faces = (folder: string, name: string, subset: string) => ({
  normal: unpack(folder, `${name}-${subset}-400-normal`),
  bold: unpack(folder, `${name}-${subset}-700-normal`),
});

pdfmake.setFonts({
  Archivo: faces(archivo, "archivo", "latin"),
  ArchivoExt: faces(archivo, "archivo", "latin-ext"),
  Atkinson: faces(atkinson, "atkinson-hyperlegible-next", "latin"),
  AtkinsonExt: faces(atkinson, "atkinson-hyperlegible-next", "latin-ext"),
  Vietnamese: faces(noto, "noto-sans", "vietnamese"),
  Greek: faces(noto, "noto-sans", "greek"),
  GreekExt: faces(noto, "noto-sans", "greek-ext"),
  Cyrillic: faces(noto, "noto-sans", "cyrillic"),
  CyrillicExt: faces(noto, "noto-sans", "cyrillic-ext"),
});
pdfmake.setLocalAccessPolicy((path) => path.startsWith(unpacked));
pdfmake.setUrlAccessPolicy(() => false);

/** What the basic Latin font file holds; the rest of the Latin letters are in its extended file. */
const basicLatin =
  /[\u0000-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215]/;

/** Letters of names that the two faces have not: those of a third, by its files. */
const otherScripts = [
  ["Vietnamese", /[\u1ea0-\u1ef9]/],
  ["Greek", /[\u0370-\u0377\u037a-\u03ff]/],
  ["GreekExt", /[\u1f00-\u1fff]/],
  ["Cyrillic", /[\u0400-\u045f\u0490\u0491\u04b0\u04b1\u2116]/],
  ["CyrillicExt", /[\u0460-\u052f]/],
] as const;

export interface RunStyle {
  readonly font?: "Archivo" | "Atkinson";
  readonly bold?: boolean;
  readonly fontSize?: number;
  readonly color?: string;
}

/**
 * Text as runs of one font each, so that a name with a letter beyond basic Latin is not printed as a box. Runs carry their
 * own style, for the printer does not hand it down to nested text.
 */
export function write(text: string, { font = "Atkinson", ...style }: RunStyle = {}): ({ text: string } & RunStyle)[] {
  const runs: { text: string; font: string }[] = [];
  for (const letter of text) {
    const other = otherScripts.find(([, letters]) => letters.test(letter))?.[0];
    // The text face has a zero with a slash alone, which reads as an eight on a wet page: its zero is that of the heads.
    const wanted = letter === "0" ? "Archivo" : (other ?? (basicLatin.test(letter) ? font : `${font}Ext`));
    const last = runs.at(-1);
    if (last?.font === wanted) last.text += letter;
    else runs.push({ text: letter, font: wanted });
  }
  return runs.map((run) => ({ ...style, ...run })) as ({ text: string } & RunStyle)[];
}

export function printPdf(document: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(writeAll(document)).getBuffer();
}

/** All texts of a document that nobody has written yet, in the faces that draw their letters. */
export function writeAll<T>(part: T): T {
  if (typeof part === "function") return ((...given: unknown[]) => writeAll(part(...given))) as T;
  if (Array.isArray(part)) return part.map((each) => writeAll(each)) as T;
  if (part === null || typeof part !== "object") return part;
  const node = part as { text?: unknown; font?: string; bold?: boolean; fontSize?: number; color?: string };
  const { bold, fontSize, color } = node;
  const style = { bold, fontSize, color };
  const given = Object.fromEntries(Object.entries(style).filter(([, value]) => value !== undefined));
  if (typeof node.text === "string" && node.font === undefined) return { ...node, text: write(node.text, given) } as T;
  if (Array.isArray(node.text)) {
    const text = node.text.flatMap((each) => (typeof each === "string" ? write(each, given) : [writeAll(each)]));
    return { ...node, text } as T;
  }
  return Object.fromEntries(Object.entries(part).map(([name, value]) => [name, writeAll(value)])) as T;
}

export type { Content };
