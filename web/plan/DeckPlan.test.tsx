// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { rigTemplates, topics } from "../../content/index.ts";
import { findStyle, planWalk } from "../../core/route/index.ts";
import { DeckPlan, type StationSign } from "./DeckPlan.tsx";

const rig = rigTemplates["wending-23"];
const [first, second] = rig.stations;
afterEach(cleanup);

describe("DeckPlan", () => {
  it("is one picture with a name where nothing can be picked", () => {
    render(<DeckPlan rig={rig} />);
    expect(screen.getByRole("img", { name: `Deck plan of the ${rig.model}, bow up` })).toBeDefined();
    expect(screen.queryAllByRole("button")).toEqual([]);
  });

  it("lets every place be reached by Tab and taken by Enter or space", async () => {
    const pick = vi.fn();
    render(<DeckPlan rig={rig} onPick={pick} />);
    const user = userEvent.setup();
    for (const { id } of rig.stations) {
      await user.tab();
      await user.keyboard(id === first!.id ? " " : "{Enter}");
      expect(pick).toHaveBeenLastCalledWith(id);
    }
    await user.click(screen.getByRole("button", { name: second!.label }));
    expect(pick).toHaveBeenCalledTimes(rig.stations.length + 1);
  });

  it("says in words what the rings show", () => {
    const signs = new Map<string, StationSign>([
      [first!.id, { number: 1, look: "done", hasSnag: true }],
      [second!.id, { number: 2, look: "current" }],
    ]);
    render(<DeckPlan rig={rig} signs={signs} onPick={() => {}} picked={second!.id} />);
    expect(screen.getByRole("button", { name: `${first!.label}, stop 1, done, snag` })).toBeDefined();
    const here = screen.getByRole("button", { name: `${second!.label}, stop 2, you are here` });
    expect(here.getAttribute("aria-pressed")).toBe("true");
  });

  it("draws a leg for each move of the plan, on paper that holds every place", () => {
    const plan = planWalk(rig, topics, findStyle("trailer-first"));
    if (!plan.ok) throw new Error(plan.error.message);
    const { container } = render(<DeckPlan rig={rig} plan={plan.value} stop={2} />);
    expect(container.querySelectorAll(".deck-course, .deck-course-next")).toHaveLength(plan.value.moves);
    expect(container.querySelectorAll(".deck-course-next")).toHaveLength(1);
    const [x, y, width, height] = container.querySelector("svg")!.getAttribute("viewBox")!.split(" ").map(Number) as [
      number,
      number,
      number,
      number,
    ];
    for (const { at } of rig.stations) {
      expect(at.yM).toBeGreaterThan(x);
      expect(at.yM).toBeLessThan(x + width);
      expect(-at.xM).toBeGreaterThan(y);
      expect(-at.xM).toBeLessThan(y + height);
    }
  });
});
