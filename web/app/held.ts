import { bytesToHex } from "@noble/hashes/utils.js";
import type { Me } from "../../api/index.ts";
import { derivePinKey, signSent } from "../../core/pin/index.ts";

/** On a tablet that several share: who has a session here, each behind a PIN, and who is in front. */
export interface Held {
  readonly me: Me;
  /** Its salt and the public half of the key it unlocks, in hex; null until one was chosen. */
  readonly pin: { readonly salt: string; readonly key: string } | null;
  readonly wrongTries: number;
}

/** A PIN keeps colleagues apart on a tablet that is in their hands; the tablet's own lock keeps strangers out. */
export const pinDigits = { least: 4, most: 8 } as const;
export const mostWrongTries = 5;

const heldKey = "ravik-held";
const frontKey = "ravik-front";
const frontCookie = "ravik-front";
const listeners = new Set<() => void>();
let held: readonly Held[] = read();
let front: Front | null = readFront();
setCookie();

/** Who is in front in this tab: what opens their session at the server, and what their PIN unlocked, each null without. */
interface Front {
  readonly id: string;
  readonly open: string | null;
  readonly seed: string | null;
}

function read(): readonly Held[] {
  try {
    const kept = JSON.parse(localStorage.getItem(heldKey) ?? "[]") as Held[];
    // A PIN of an older version proves nothing to the server: its owner signs in once more.
    return kept.map((each) => (each.pin?.key === undefined ? { ...each, pin: null } : each));
  } catch {
    return [];
  }
}

function readFront(): Front | null {
  try {
    // Of this tab alone: a tablet that was put away asks for the PIN.
    const kept = sessionStorage.getItem(frontKey);
    return kept === null ? null : (JSON.parse(kept) as Front);
  } catch {
    return null;
  }
}

/** Who is in front, with the word that opens their session: `nessa.1760000000000-0f…`. */
function nameFront({ id, open }: Front): string {
  return open === null ? id : `${id}.${open}`;
}

/** Pictures and streams carry no headers; the cookie says for them who is in front. */
function setCookie() {
  // A web worker that asks the server has none, and holds nobody.
  if (typeof document === "undefined") return;
  const age = front === null ? "; max-age=0" : "";
  // biome-ignore lint/suspicious/noDocumentCookie: it must be there with the very next picture, and is gone when the tablet is locked
  document.cookie = `${frontCookie}=${front === null ? "" : nameFront(front)}; path=/; samesite=strict${age}`;
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
export const getFront = (): string | null => front?.id ?? null;
/** As whom the server is asked, and the word that opens; of another than who is in front, whom this tablet holds, there is none. */
export function nameAsked(as: string | undefined): Record<string, string> {
  const id = as ?? front?.id;
  if (id === undefined) return {};
  const open = id === front?.id ? front.open : null;
  return { "Ravik-Person": id, ...(open === null ? {} : { "Ravik-Open": open }) };
}
/** What the PIN of whoever is in front unlocked; null where it was not needed yet. */
export const getSeed = (): string | null => front?.seed ?? null;
/** A PIN was given here and the server was not told yet. */
export const isUnproved = (): boolean => front !== null && front.open === null && front.seed !== null;
/** The word of whoever is in front for something they send, to be sent with it once another is; null where nobody needs one. */
export const signAsFront = (by: string, what: () => string): string | null =>
  front === null || front.id !== by || front.seed === null ? null : signSent(front.seed, what());
/** A shared tablet that waits for a PIN. */
export const isLocked = (): boolean => held.length > 0 && front === null;

function keepFront(next: Front | null) {
  front = next;
  try {
    if (next === null) sessionStorage.removeItem(frontKey);
    else sessionStorage.setItem(frontKey, JSON.stringify(next));
  } catch {
    // As above.
  }
  setCookie();
  for (const listener of listeners) listener();
}

/** In front is whoever has proved it here: by a PIN (`seed`), or at the server just now (`open`). Null locks. */
export function setFront(id: string | null, { open = null, seed = null }: Partial<Omit<Front, "id">> = {}) {
  keepFront(id === null ? null : { id, open, seed });
}

/** The server has opened their session for this tab. */
export function setOpen(id: string, open: string | null) {
  if (front?.id === id) keepFront({ ...front, open });
}

/** Somebody has signed in here, or the server has told anew who they are. */
export function hold(me: Me) {
  // Of a session that has just begun the server knows no PIN yet; what opened it was told for this tab alone.
  const pin = me.open === null ? (findHeld(me.id)?.pin ?? null) : null;
  const known = { me: { ...me, open: null }, pin, wrongTries: 0 };
  keep([...held.filter((each) => each.me.id !== me.id), known]);
}

/** Their session here is over. */
export function letGo(id: string) {
  if (front?.id === id) setFront(null);
  keep(held.filter(({ me }) => me.id !== id));
}

/** A PIN of whoever is in front: from now on it opens their name here. Answers the public half of its key, which the server is told. */
export function setPin(id: string, pin: string): string {
  const salt = bytesToHex(crypto.getRandomValues(new Uint8Array(16)));
  const { seed, publicKey } = derivePinKey(pin, salt);
  keep(held.map((each) => (each.me.id === id ? { ...each, pin: { salt, key: publicKey }, wrongTries: 0 } : each)));
  if (front?.id === id) keepFront({ ...front, seed });
  return publicKey;
}

/** The server was not told of it: they have none. */
export function forgetPin(id: string) {
  keep(held.map((each) => (each.me.id === id ? { ...each, pin: null } : each)));
}

/** What their PIN unlocks; null where this is not their PIN. Wrong tries are counted, also through a reload. */
export function tryPin(id: string, pin: string): string | null {
  const known = findHeld(id);
  if (known?.pin == null) return null;
  const { seed, publicKey } = derivePinKey(pin, known.pin.salt);
  const isRight = publicKey === known.pin.key;
  const wrongTries = isRight ? 0 : known.wrongTries + 1;
  keep(held.map((each) => (each.me.id === id ? { ...each, wrongTries } : each)));
  return isRight ? seed : null;
}
