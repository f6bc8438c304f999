// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { askEndurance, compareSelectors, type Drain, turnAllOff } from "../../core/power/index.ts";
import { PowerMap } from "./PowerView.tsx";
import { sayVerdict, sayWhen } from "./powerWords.ts";

afterEach(cleanup);
const ferrin = rigTemplates["ferrin-20"];

describe("the power map", () => {
  it("says what drains and by when; a switch turned in the wiring changes it at once", async () => {
    render(<PowerMap rig={ferrin} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole("button", { name: "As it is often left" }));
    expect(screen.getByRole("heading", { level: 1 }).textContent).toMatch(/Starting battery: too low by \d\d:\d\d/);
    const leaving = within(screen.getByRole("region", { name: /^Leaving the boat like this/ }));
    expect(leaving.getByText("Anchor light")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /^Lights: in/ }));
    expect(screen.getByText("Lights, 10 A, tripped; Nav / anchor at Anchor", { exact: false })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "All breakers in, clamps and wires on" }));
    for (;;) {
      const [off] = leaving.queryAllByRole("button");
      if (off === undefined) break;
      await user.click(off);
    }
    expect(leaving.getByText("stays live: leave it")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Everything off" }));
    expect(screen.getByText(/2 of 13 have power/)).toBeTruthy();
  });

  it("is worked by keys alone, and a clamp that is off kills what hangs on it", async () => {
    render(<PowerMap rig={ferrin} />);
    const user = userEvent.setup();
    const clamp = screen.getByRole("button", { name: /^Starting: 100 % charged/ });
    clamp.focus();
    await user.keyboard("{Enter}");
    expect(screen.getByRole("button", { name: /^Starting: a clamp is off/ }).getAttribute("aria-pressed")).toBe("true");
    expect(screen.getAllByText(/a clamp of Starting is off/).length).toBeGreaterThan(0);
  });

  it("says before all else when the float pump has no power, with why, and is quiet when it has", async () => {
    render(<PowerMap rig={ferrin} />);
    const user = userEvent.setup();
    expect(screen.queryByRole("alert")).toBeNull();
    for (const name of [/^House: \d+ % charged/, /^Bilge pump: in/]) {
      const thing = screen.getAllByRole("button", { name })[0]!;
      await user.click(thing);
      const alert = screen.getByRole("alert");
      expect(alert.textContent).toMatch(/^▲ .*has no power: .*(clamp of|tripped).*Do not leave the boat like this\.$/);
      expect(alert.compareDocumentPosition(screen.getByRole("heading", { level: 1 }))).toBe(
        Node.DOCUMENT_POSITION_FOLLOWING,
      );
      await user.click(screen.getByRole("button", { name: "All breakers in, clamps and wires on" }));
      expect(screen.queryByRole("alert")).toBeNull();
    }
  });

  it("says of what size each battery is counted, and that a size nobody has read is a stand-in", () => {
    const [first, ...rest] = ferrin.batteries;
    render(<PowerMap rig={{ ...ferrin, batteries: [{ ...first!, usual: true }, ...rest] }} />);
    const lines = within(screen.getByRole("list", { name: "How long each battery lasts" }));
    expect(lines.getByText(new RegExp(`\\(size not read: ${first!.capacityAh} Ah taken\\)`))).toBeTruthy();
    for (const { capacityAh } of rest) expect(lines.getByText(new RegExp(`, ${capacityAh} Ah`))).toBeTruthy();
  });

  it("volts that were read start the curve, and stay in their field", async () => {
    render(<PowerMap rig={ferrin} />);
    const field = screen.getByLabelText("Starting, at rest") as HTMLInputElement;
    await userEvent.type(field, "12.24");
    expect(field.value).toBe("12.24");
    expect(screen.getByRole("button", { name: /^Starting: 50 % charged/ })).toBeTruthy();
  });

  it("volts that the walk read start it too; mended, batteries are full again", async () => {
    render(<PowerMap rig={ferrin} volts={{ start: 12.24 }} />);
    const field = screen.getByLabelText("Starting, at rest") as HTMLInputElement;
    expect(field.value).toMatch(/^12.24/);
    expect(screen.getByRole("button", { name: /^Starting: 50 % charged/ })).toBeTruthy();
    await userEvent.clear(field);
    expect(screen.getByRole("button", { name: /^Starting: 100 % charged/ })).toBeTruthy();
  });

  it("a bow motor's bank that is low says nothing of starting", () => {
    const sedge = rigTemplates["sedge-18"];
    const lasts = { groups: [{ batteries: ["bow-1", "bow-2"], drawA: 9, hoursToFloor: 3 }], hoursToFloor: {} };
    expect(sayVerdict(sedge, lasts, [], null, 600).says).not.toMatch(/start/);
  });

  it("says what charges, and what nothing charges", async () => {
    render(<PowerMap rig={rigTemplates["sedge-18"]} />);
    await userEvent.click(screen.getByRole("checkbox", { name: /^(Engine|Outboard).* runs$/ }));
    const list = within(screen.getByRole("list", { name: "What is charged" }));
    expect(list.getAllByText(/charged by nothing now/)).toHaveLength(2);
  });

  it("of a boat without batteries says what to do first", () => {
    render(<PowerMap rig={{ ...ferrin, batteries: [], breakers: [], wiring: [] }} />);
    expect(screen.getByText(/Nothing to draw yet/)).toBeTruthy();
  });
});

describe("in words", () => {
  it("a time is today, tomorrow or so many days off", () => {
    expect([sayWhen(2, 600), sayWhen(20, 600), sayWhen(100, 600)]).toEqual([
      "12:00 today",
      "06:00 tomorrow",
      "in 4 days",
    ]);
  });

  it("two banks on Both go down together, and the position that spares one is named", () => {
    const setting = turnAllOff(ferrin, { positions: {}, tripped: [], loose: [], charge: {} });
    const drain: Drain = {
      setting: { ...setting, positions: { ...setting.positions, selector: "Both", "sw-electronics": "On" } },
      buttons: {},
      pumpEveryMin: null,
      airC: 20,
      years: 0,
    };
    const { says, next, isBad } = sayVerdict(
      ferrin,
      askEndurance(ferrin, drain),
      compareSelectors(ferrin, drain),
      "Stereo",
      1080,
    );
    expect(says).toMatch(/^Starting battery and House battery: too low/);
    expect(isBad).toBe(true);
    expect(next).toMatch(
      /^Stereo draws the most: turn it off. With Battery selector at [12], the \w+ battery lasts\.$/,
    );
  });
});
