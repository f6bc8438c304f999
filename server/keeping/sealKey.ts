import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from "node:crypto";
import { z } from "zod";

const cost = { N: 32_768, r: 8, p: 3, maxmem: 256 * 32_768 * 8 } as const;
const cipher = "aes-256-gcm";

const lockedSchema = z.strictObject({
  format: z.literal("ravik.key/1"),
  salt: z.string(),
  iv: z.string(),
  tag: z.string(),
  body: z.string(),
});

/** A key file that a passphrase opens: scrypt (N 32768, r 8, p 3) makes the key for AES-256-GCM; all of it in base64. */
export function lockKey(pem: string, passphrase: string): string {
  const [salt, iv] = [randomBytes(16), randomBytes(12)];
  const locked = createCipheriv(cipher, scryptSync(passphrase.normalize("NFKC"), salt, 32, cost), iv);
  const body = Buffer.concat([locked.update(pem, "utf8"), locked.final()]);
  const inText = (bytes: Buffer) => bytes.toString("base64");
  return JSON.stringify({
    format: "ravik.key/1",
    salt: inText(salt),
    iv: inText(iv),
    tag: inText(locked.getAuthTag()),
    body: inText(body),
  });
}

/** The key again; null for another passphrase, or a file that was changed. */
export function unlockKey(text: string, passphrase: string): string | null {
  try {
    const { salt, iv, tag, body } = lockedSchema.parse(JSON.parse(text));
    const bytes = (part: string) => Buffer.from(part, "base64");
    const key = scryptSync(passphrase.normalize("NFKC"), bytes(salt), 32, cost);
    const open = createDecipheriv(cipher, key, bytes(iv));
    open.setAuthTag(bytes(tag));
    return Buffer.concat([open.update(bytes(body)), open.final()]).toString("utf8");
  } catch {
    return null;
  }
}
