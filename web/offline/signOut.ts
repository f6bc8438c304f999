import { useSyncExternalStore } from "react";
import type { Me } from "../../api/index.ts";
import { ask, Refused } from "../app/client.ts";
import { hold, listHeld } from "../app/held.ts";
import { meQuery, queryClient, settle } from "../app/queries.ts";
import { forgetSaved } from "./saved.ts";
import { endHeld, lock, putInFront } from "./sharedTablet.ts";
import { syncQueue } from "./useSync.ts";

const signedOutKey = "ravik-signed-out";
const lastPersonKey = "ravik-person";
const listeners = new Set<() => void>();
let isSignedOut = read(signedOutKey) !== null;

function read(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}
function write(key: string, value: string | null) {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // A browser that keeps nothing has nothing to forget either.
  }
}
function setSignedOut(is: boolean) {
  isSignedOut = is;
  write(signedOutKey, is ? "1" : null);
  for (const listener of listeners) listener();
}

/** Whether somebody has signed out here: also without signal, when the server cannot know of it yet. */
export const useSignOut = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    () => isSignedOut,
  );

/** Ends the session at the server as soon as it can be reached. */
async function endSession(): Promise<void> {
  if (!isSignedOut) return;
  try {
    await ask("signOut");
  } catch (error) {
    // Without signal it is ended when there is some; a session that is over already is what was wanted.
    if (error instanceof Refused && error.code === "no-signal") return;
  }
}
window.addEventListener("online", () => void endSession());
void endSession();

/**
 * Signs out on this device at once, with signal or without: what was read is gone, what is unsent stays for its author. On a
 * shared tablet it is one person's session that ends; the others stay.
 */
export async function signOut(me: Me): Promise<void> {
  if (me.isShared) {
    lock();
    endHeld(me.id);
    if (listHeld().length === 0) await forgetSaved();
    return;
  }
  setSignedOut(true);
  syncQueue.setUser(null);
  queryClient.clear();
  await forgetSaved();
  await endSession();
}

/** Somebody has signed in: what another person had read here is gone, but on a tablet that they share. */
export async function signedIn(me: Me): Promise<void> {
  if (me.isShared) hold(me);
  else if (read(lastPersonKey) !== me.id) {
    queryClient.clear();
    await forgetSaved();
  }
  write(lastPersonKey, me.id);
  setSignedOut(false);
  if (me.isShared) putInFront(me.id, { open: me.open });
  else queryClient.setQueryData(meQuery.queryKey, settle(me));
}
