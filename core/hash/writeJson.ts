import canonicalize from "canonicalize";
import { hashText } from "./sha256.ts";

/** A value in the one form of RFC 8785. */
export function writeJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new Error(`writeJson: expected a JSON value, got ${typeof value}`);
  return text;
}

/** SHA-256 of a value in the one form of RFC 8785. */
export const hashJson = (value: unknown): string => hashText(writeJson(value));
