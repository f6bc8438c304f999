import { createAskWorker, findBuilt } from "../askWorker.ts";
import type { HashRequest } from "./hashWorker.ts";
import type { Hasher } from "./passwords.ts";

/** More than a yard signs in at once. */
const mostWaiting = 40;

/** Hashes in a thread of its own: the threads that read files, pictures and the database are left to them. */
export function createHashWorker(findEntry: () => URL = () => findBuilt("hashWorker")): Hasher {
  const { ask, close } = createAskWorker<Omit<HashRequest, "id">, string>(findEntry, mostWaiting);
  return { scrypt: (password, salt, cost) => ask({ password, salt, cost }), close };
}
