import { scrypt } from "@noble/hashes/scrypt.js";
import { bytesToHex, hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import type { Me } from "../../api/index.ts";

/** On a tablet that several share: who has a session here, each behind a PIN, and who is in front. */
export interface Held {
  readonly me: Me;
  /** scrypt of the PIN, in hex; null until one was chosen. */
  readonly pin: { readonly salt: string; readonly hash: string } | null;
  readonly wrongTries: number;
}

/** A PIN keeps colleagues apart on a tablet that is in their hands; the tablet's own lock keeps strangers out. */
export const pinDigits = { least: 4, most: 8 } as const;
export const mostWrongTries = 5;
const cost = { N: 2 ** 14, r: 8, p: 1, dkLen: 32 };

const heldKey = "ravik-held";
const frontKey = "ravik-front";
const listeners = new Set<() => void>();
let held: readonly Held[] = read();
let front: string | null = readFront();
setCookie();

function read(): readonly Held[] {
  try {
    return JSON.parse(localStorage.getItem(heldKey) ?? "[]") as Held[];
  } catch {
    return [];
  }
}

function readFront(): string | null {
  try {
    // Of this tab alone: a tablet that was put away asks for the PIN.
    return sessionStorage.getItem(frontKey);
  } catch {
    return null;
  }
}

/** Pictures and streams carry no headers; the cookie says for them who is in front. */
function setCookie() {
  // A web worker that asks the server has none, and holds nobody.
  if (typeof document === "undefined") return;
  const age = front === null ? "; max-age=0" : "";
  // biome-ignore lint/suspicious/noDocumentCookie: it must be there with the very next picture, and is no secret
  document.cookie = `${frontKey}=${front ?? ""}; path=/; samesite=strict${age}`;
}

function keep(next: readonly Held[]) {
  held = next;
  try {
    localStorage.setItem(heldKey, JSON.stringify(next));
  } catch {
    // Kept for as long as the page is open.
  }
  for (const listener of listeners) listener();
}

export const subscribeHeld = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};
export const listHeld = (): readonly Held[] => held;
export const findHeld = (id: string): Held | undefined => held.find(({ me }) => me.id === id);
/** Who is in front on a shared tablet; null where it is locked, or not shared. */
export const getFront = (): string | null => front;
/** A shared tablet that waits for a PIN. */
export const isLocked = (): boolean => held.length > 0 && front === null;

export function setFront(id: string | null) {
  front = id;
  try {
    if (id === null) sessionStorage.removeItem(frontKey);
    else sessionStorage.setItem(frontKey, id);
  } catch {
    // As above.
  }
  setCookie();
  for (const listener of listeners) listener();
}

/** Somebody has signed in here, or the server has told anew who they are. */
export function hold(me: Me) {
  const before = findHeld(me.id);
  keep([...held.filter((each) => each.me.id !== me.id), { me, pin: before?.pin ?? null, wrongTries: 0 }]);
}

/** Their session here is over. */
export function letGo(id: string) {
  if (front === id) setFront(null);
  keep(held.filter(({ me }) => me.id !== id));
}

const hashPin = (pin: string, salt: string) => bytesToHex(scrypt(utf8ToBytes(pin), hexToBytes(salt), cost));

export function setPin(id: string, pin: string) {
  const salt = bytesToHex(crypto.getRandomValues(new Uint8Array(16)));
  const kept = { salt, hash: hashPin(pin, salt) };
  keep(held.map((each) => (each.me.id === id ? { ...each, pin: kept, wrongTries: 0 } : each)));
}

/** Whether this is their PIN. Wrong tries are counted, also through a reload. */
export function checkPin(id: string, pin: string): boolean {
  const known = findHeld(id);
  if (known?.pin == null) return false;
  const isRight = hashPin(pin, known.pin.salt) === known.pin.hash;
  const wrongTries = isRight ? 0 : known.wrongTries + 1;
  keep(held.map((each) => (each.me.id === id ? { ...each, wrongTries } : each)));
  return isRight;
}
