// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import { findHeld, getFront, hold, letGo, setFront, signAsFront } from "../../app/held.ts";
import { openAtServer } from "../../offline/sharedTablet.ts";
import { makeMe } from "../../testing/makeMe.ts";
import { PinScreen } from "./PinScreen.tsx";

afterEach(() => {
  cleanup();
  letGo("ines");
  vi.unstubAllGlobals();
});

const show = () =>
  render(
    <MemoryRouter initialEntries={["/pin"]}>
      <Routes>
        <Route path="/pin" element={<PinScreen />} />
        <Route path="/" element={<p>Today</p>} />
      </Routes>
    </MemoryRouter>,
  );
const keep = async (pin: string) => {
  const user = userEvent.setup();
  await user.type(screen.getByLabelText("New PIN"), pin);
  await user.click(screen.getByRole("button", { name: "Keep" }));
};

it("a PIN is kept once the yard has heard of its key, and of nothing else of it", async () => {
  const asked: { url: string; headers: Record<string, string>; body: string }[] = [];
  let hasSignal = false;
  vi.stubGlobal("fetch", async (url: string, init: { headers: Record<string, string>; body: string }) => {
    if (!hasSignal) throw new TypeError("no signal");
    asked.push({ url, ...init });
    return new Response(JSON.stringify({ done: true }));
  });
  hold(makeMe({ id: "ines", name: "Ines", isShared: true, open: "1-ab" }));
  setFront("ines", { open: "1-ab" });
  show();
  await keep("2580");
  expect((await screen.findByRole("alert")).textContent).toContain("Try again when there is signal");
  expect(findHeld("ines")!.pin).toBeNull();
  hasSignal = true;
  await keep("2580");
  await screen.findByText("Today");
  const { key, salt } = findHeld("ines")!.pin!;
  expect(asked).toMatchObject([
    {
      url: "/api/pin",
      headers: { "Ravik-Person": "ines", "Ravik-Open": "1-ab" },
      body: JSON.stringify({ key }),
    },
  ]);
  expect(salt).toMatch(/^[0-9a-f]{32}$/);
  // What opened the session is of this tab alone, and the PIN itself is nowhere.
  expect(JSON.stringify(localStorage)).not.toMatch(/1-ab|2580/);
  expect(document.cookie).toContain("ravik-front=ines.1-ab");
});

it("what is written in front bears their word; without a PIN, or of another, nothing does", async () => {
  hold(makeMe({ id: "ines", name: "Ines", isShared: true }));
  setFront("ines");
  expect(signAsFront("ines", () => "x")).toBeNull();
  setFront("ines", { seed: "11".repeat(32) });
  expect(signAsFront("ines", () => "x")).toMatch(/^[0-9a-f]{128}$/);
  expect(signAsFront("nessa", () => "x")).toBeNull();
});

it("a PIN that the server does not know is forgotten here: the name waits for its password", async () => {
  hold(makeMe({ id: "ines", name: "Ines", isShared: true }));
  setFront("ines", { seed: "11".repeat(32) });
  vi.stubGlobal("fetch", async (url: string) =>
    url.endsWith("challenge")
      ? new Response(JSON.stringify({ challenge: "9-ab" }))
      : new Response(JSON.stringify({ error: { code: "wrong-pin" } }), { status: 403 }),
  );
  await openAtServer();
  expect([getFront(), findHeld("ines")!.pin]).toEqual([null, null]);
  expect(document.cookie).not.toContain("ines");
});
