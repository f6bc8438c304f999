// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { PlacePlan } from "./PlacePlan.tsx";
import { partSigns } from "./partSigns.ts";

afterEach(cleanup);

const rig = rigTemplates["wending-23"];
const [first, second] = rig.parts;

function open(parts = rig.parts) {
  const [move, pick] = [vi.fn(), vi.fn()];
  render(<PlacePlan rig={{ ...rig, parts }} picked={null} armed={null} onPick={pick} onPut={() => {}} onMove={move} />);
  return { move, pick };
}

/** Where the sign of a thing is drawn, and how large. */
function signOf(label: string) {
  const ring = screen.getByRole("button", { name: label }).querySelector("circle[stroke='var(--ink)']")!;
  const read = (name: string) => Number(ring.getAttribute(name));
  return { x: read("cx"), y: read("cy"), r: read("r") };
}

const zoomOf = () => Number(/scale\((.+?)\)/.exec(document.querySelector("svg > g")!.getAttribute("transform")!)![1]);

describe("the plan of the boat sheet", () => {
  it("has a sign of its own for each kind of thing", () => {
    const signs = Object.values(partSigns);
    expect(new Set(signs).size).toBe(signs.length);
  });

  it("fans out things that lie at one place, each with a line to it, and moves the thing, not its sign", async () => {
    const at = { xM: 3, yM: 0.2 };
    const { move } = open([
      { ...first!, at },
      { ...second!, at },
    ]);
    const [a, b] = [signOf(first!.label), signOf(second!.label)];
    expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(a.r + b.r);
    expect(document.querySelectorAll("path[stroke='var(--ink)']").length).toBeGreaterThan(1);
    screen.getByRole("button", { name: first!.label }).focus();
    await userEvent.keyboard("{ArrowUp}");
    expect(move).toHaveBeenLastCalledWith(first!.id, { xM: 3.05, yM: 0.2 });
  });

  it("is looked at closer by keys and buttons; signs stay as large on the screen", async () => {
    open();
    const before = signOf(first!.label);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Further away" }).disabled).toBe(true);
    await userEvent.click(screen.getByRole("button", { name: "Closer" }));
    fireEvent.keyDown(screen.getByRole("button", { name: first!.label }), { key: "+" });
    expect(zoomOf()).toBeCloseTo(2.56, 5);
    expect(signOf(first!.label).r * zoomOf()).toBeCloseTo(before.r, 5);
    fireEvent.keyDown(screen.getByRole("button", { name: first!.label }), { key: "-" });
    expect(zoomOf()).toBeCloseTo(1.6, 5);
    await userEvent.click(screen.getByRole("button", { name: "The whole boat" }));
    expect(zoomOf()).toBe(1);
  });

  it("leaves the wheel to the page at the whole boat, and turns it into nearness from there", () => {
    open();
    const plan = screen.getByRole("group", { name: /Deck plan/ });
    const isLeft = (deltaY: number) => fireEvent.wheel(plan, { deltaY });
    expect(isLeft(200)).toBe(true);
    expect(isLeft(-200)).toBe(false);
    expect(zoomOf()).toBeGreaterThan(1);
  });
});
