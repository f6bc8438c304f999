// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { hold, isLocked, listHeld, mostWrongTries, setPin } from "../app/held.ts";
import { makeMe } from "../testing/makeMe.ts";
import { lock, unlock } from "./sharedTablet.ts";

beforeEach(() => {
  hold(makeMe({ id: "ines", name: "Ines", isShared: true }));
  setPin("ines", "2580");
  lock();
});
afterEach(() => vi.unstubAllGlobals());

it("opens with the PIN; after too many wrong ones the session ends here at once, and at the server when it is reached", async () => {
  const asked: [string, string | undefined][] = [];
  let hasSignal = false;
  vi.stubGlobal("fetch", async (url: string, init: { headers?: Record<string, string> }) => {
    if (!hasSignal) throw new TypeError("no signal");
    asked.push([url, init.headers?.["Ravik-Person"]]);
    return new Response(JSON.stringify({ done: true }));
  });
  expect(isLocked()).toBe(true);
  expect(unlock("ines", "2580")).toEqual({ ok: true });
  expect(isLocked()).toBe(false);
  lock();
  for (let left = mostWrongTries - 1; left >= 0; left--) expect(unlock("ines", "0000")).toEqual({ ok: false, left });
  expect(listHeld()).toEqual([]);
  expect(unlock("ines", "2580")).toMatchObject({ ok: false });
  await vi.waitFor(() => expect(localStorage.getItem("ravik-leaving")).toBe('["ines"]'));
  hasSignal = true;
  window.dispatchEvent(new Event("online"));
  await vi.waitFor(() => expect(localStorage.getItem("ravik-leaving")).toBe("[]"));
  expect(asked).toContainEqual(["/api/sign-out", "ines"]);
});
