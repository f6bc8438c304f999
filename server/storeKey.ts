import { createPrivateKey, createPublicKey, generateKeyPairSync, type KeyObject, sign } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";

/** The store's own key (Ed25519): what it seals, it signs. */
export interface StoreKey {
  /** 32 bytes in 64 small hex digits: printed on every record, carried by every bundle. */
  readonly publicKey: string;
  /** The signature of a text as UTF-8, 64 bytes in 128 small hex digits. */
  sign(text: string): string;
}

export const storeKeyFile = "store-key.pem";
const rawLength = 32;

const toStoreKey = (privateKey: KeyObject): StoreKey => ({
  // The end of its SPKI form is the key itself.
  publicKey: createPublicKey(privateKey).export({ type: "spki", format: "der" }).subarray(-rawLength).toString("hex"),
  sign: (text) => sign(null, Buffer.from(text, "utf8"), privateKey).toString("hex"),
});

/** A key that lasts as long as the program: for tests, and for what reads without sealing. */
export const createStoreKey = (): StoreKey => toStoreKey(generateKeyPairSync("ed25519").privateKey);

/**
 * The store's key from its file beside the database, made at the first start: readable by whoever runs the server and by
 * nobody else. It is no part of the database, so that a copy of that cannot sign. Lost, a new one is made, and the chain
 * says so.
 */
export function openStoreKey(folder: string): StoreKey {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, storeKeyFile);
  try {
    const { privateKey } = generateKeyPairSync("ed25519");
    // "wx" fails where there is one: two servers that start at once must not make two.
    writeFileSync(path, privateKey.export({ type: "pkcs8", format: "pem" }), { mode: 0o600, flag: "wx" });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
  }
  const key = toStoreKey(createPrivateKey(readFileSync(path)));
  if (readPublicKey(folder) !== key.publicKey) writeFileSync(join(folder, publicKeyFile), `${key.publicKey}\n`);
  return key;
}

/** The public half, for whoever verifies: they need never open the other. */
export const publicKeyFile = "store-key.pub";

/** The public key that lies in a store's folder; null where none does. */
export function readPublicKey(folder: string): string | null {
  const path = join(folder, publicKeyFile);
  if (!existsSync(path)) return null;
  const text = readFileSync(path, "utf8").trim();
  return /^[0-9a-f]{64}$/.test(text) ? text : null;
}
