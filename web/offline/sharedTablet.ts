import { useEffect, useSyncExternalStore } from "react";
import { ask, proveFront, Refused } from "../app/client.ts";
import {
  findHeld,
  type Held,
  hold,
  isLocked,
  isUnproved,
  letGo,
  listHeld,
  mostWrongTries,
  setFront,
  subscribeHeld,
  tryPin,
} from "../app/held.ts";
import { meQuery, queryClient, settle } from "../app/queries.ts";
import { syncQueue } from "./useSync.ts";

/** A tablet that lies about for so long asks for the PIN again. */
const idleMs = 10 * 60_000;

export const useHeld = (): readonly Held[] => useSyncExternalStore(subscribeHeld, listHeld);
export const useIsLocked = (): boolean => useSyncExternalStore(subscribeHeld, isLocked);

const tellQueue = () => syncQueue.setHeld(listHeld().map(({ me }) => me.id));
subscribeHeld(tellQueue);
tellQueue();

/** Puts somebody in front whose session this tablet holds, with signal or without; `by` what they have proved it. */
export function putInFront(id: string, by: Parameters<typeof setFront>[1]) {
  const known = findHeld(id);
  if (known === undefined) return;
  setFront(id, by);
  queryClient.setQueryData(meQuery.queryKey, settle(known.me));
  syncQueue.setUser(known.me);
}

/** The tablet is handed on: what is unsent goes on being sent, each mark under its author's name. */
export function lock() {
  setFront(null);
  syncQueue.setUser(null);
  queryClient.removeQueries({ queryKey: meQuery.queryKey });
}

export type Unlocked = { readonly ok: true } | { readonly ok: false; readonly left: number };

/** Opens with a PIN. After too many wrong ones their session here ends, and only their password opens it. */
export function unlock(id: string, pin: string): Unlocked {
  const seed = tryPin(id, pin);
  if (seed !== null) {
    putInFront(id, { seed });
    return { ok: true };
  }
  const left = mostWrongTries - (findHeld(id)?.wrongTries ?? mostWrongTries);
  if (left <= 0) endHeld(id);
  return { ok: false, left: Math.max(0, left) };
}

/** How long whoever has given their PIN waits for the server: without signal, or with a weak one, they go on without it. */
const mostWaitMs = 1500;

/** Opens at the server what a PIN has opened here; pictures and news, which cannot ask twice, come then at once. */
export async function openAtServer(): Promise<void> {
  if (!isUnproved() || !navigator.onLine) return;
  const proved = proveFront().catch(() => false);
  await Promise.race([proved, new Promise((resolve) => setTimeout(resolve, mostWaitMs))]);
}
window.addEventListener("online", () => void openAtServer());
void openAtServer();

/** Their session here ends: at once on the tablet, at the server as soon as it is reached. */
export function endHeld(id: string) {
  letGo(id);
  setLeaving([...listLeaving().filter((each) => each !== id), id]);
  void endLeaving();
}

const leavingKey = "ravik-leaving";
/** Whose sessions are to be ended at the server, which was not reached yet. */
function listLeaving(): string[] {
  try {
    return JSON.parse(localStorage.getItem(leavingKey) ?? "[]") as string[];
  } catch {
    return [];
  }
}
function setLeaving(ids: readonly string[]) {
  try {
    localStorage.setItem(leavingKey, JSON.stringify(ids));
  } catch {
    // A browser that keeps nothing ends its sessions with its page.
  }
}
async function endLeaving(): Promise<void> {
  for (const id of listLeaving()) {
    // Signed in here again meanwhile, it is another session.
    if (findHeld(id) === undefined)
      try {
        await ask("signOut", { as: id });
      } catch (error) {
        // Without signal it is ended when there is some; a session that is over already is what was wanted.
        if (error instanceof Refused && error.code === "no-signal") return;
      }
    setLeaving(listLeaving().filter((each) => each !== id));
  }
}
window.addEventListener("online", () => void endLeaving());
void endLeaving();

/** What the server says this tablet holds is what it holds; `sharedAs` null: it is shared no more. */
export function reconcile({ sharedAs, held }: { sharedAs: string | null; held: readonly string[] }) {
  for (const { me } of listHeld()) if (sharedAs === null || !held.includes(me.id)) letGo(me.id);
}

/** Whoever is in front is known anew. */
export function refreshHeld(me: Parameters<typeof hold>[0]) {
  const known = findHeld(me.id);
  if (known !== undefined && JSON.stringify(known.me) !== JSON.stringify(me)) hold(me);
}

/** On a shared tablet: locks by itself when nobody touches it. */
export function useIdleLock(isShared: boolean) {
  useEffect(() => {
    if (!isShared) return;
    let timer = setTimeout(lock, idleMs);
    const wake = () => {
      clearTimeout(timer);
      timer = setTimeout(lock, idleMs);
    };
    const signs = ["pointerdown", "keydown", "scroll"] as const;
    for (const sign of signs) window.addEventListener(sign, wake, { passive: true, capture: true });
    return () => {
      clearTimeout(timer);
      for (const sign of signs) window.removeEventListener(sign, wake, { capture: true });
    };
  }, [isShared]);
}
