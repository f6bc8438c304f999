import { dictionary } from "@zxcvbn-ts/language-common";

/** Shorter is guessed; longer than anybody types is only work for this machine. */
export const passwordLength = { least: 10, most: 200 } as const;

let common: ReadonlySet<string> | null = null;

/**
 * Why a password is not taken: "short", "common" (it is among the fifty thousand that are tried first, or is one of them
 * with a few characters round it), "own" (it holds the person's own name); null where it is. No rules of composition, as
 * NIST SP 800-63B advises.
 */
export function findWeakness(password: string, own: readonly string[]): "short" | "common" | "own" | null {
  if ([...password].length < passwordLength.least) return "short";
  const plain = password.toLowerCase();
  const parts = own.flatMap((text) => text.toLowerCase().split(/[^\p{L}\p{N}]+/u)).filter((part) => part.length >= 4);
  const without = parts.reduce((rest, part) => rest.replaceAll(part, ""), plain);
  if (without.length < plain.length && without.replace(/[^\p{L}\p{N}]/gu, "").length < 6) return "own";
  common ??= new Set(dictionary["passwords-common"]);
  const core = plain.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, "");
  const isOneCharacter = new Set(plain).size <= 2;
  return common.has(plain) || common.has(core) || isOneCharacter ? "common" : null;
}
