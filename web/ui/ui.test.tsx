// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { LocalDate } from "../../core/dates/index.ts";
import { Caution, ErrorNotice } from "./Notice.tsx";
import { parseHours } from "./parseHours.ts";
import { type KeyAction, useKeys } from "./useKeys.ts";
import { formatDistance, formatMinutes } from "./words.ts";

afterEach(cleanup);

function Keys({ actions }: { actions: readonly KeyAction[] }) {
  useKeys(actions);
  return <input aria-label="Note" />;
}

describe("useKeys", () => {
  it("acts on its keys in either case, but not while typing nor with a modifier held", async () => {
    const act = vi.fn();
    const { unmount } = render(<Keys actions={[{ key: "s", says: "Snag", act }]} />);
    const user = userEvent.setup();
    await user.keyboard("sS");
    expect(act).toHaveBeenCalledTimes(2);
    await user.keyboard("{Control>}s{/Control}x");
    await user.type(screen.getByLabelText("Note"), "stern lines");
    expect(act).toHaveBeenCalledTimes(2);
    unmount();
    await user.keyboard("s");
    expect(act).toHaveBeenCalledTimes(2);
  });
});

describe("notices", () => {
  it("a caution says every sentence, and takes no room without one", () => {
    const { rerender } = render(<Caution texts={["Fingers away from the drum.", "One person has the button."]} />);
    expect(screen.getByRole("note", { name: "Caution" }).textContent).toBe(
      "Fingers away from the drum.One person has the button.",
    );
    rerender(<Caution texts={[]} />);
    expect(screen.queryByRole("note")).toBeNull();
  });

  it("an error of our own making is put in words too", () => {
    render(<ErrorNotice error={new Error("x is not a function")}>Try again.</ErrorNotice>);
    const alert = screen.getByRole("alert");
    expect(alert.textContent).toContain("Try again.");
    expect(alert.textContent).not.toContain("is not a function");
  });
});

describe("words", () => {
  it.each([
    [0.4, "0 min"],
    [59.4, "59 min"],
    [59.6, "1 h"],
    [118, "1 h 58 min"],
  ])("%s minutes are said as %s", (minutes, said) => expect(formatMinutes(minutes)).toBe(said));

  it.each([
    ["2026-03-01", "today"],
    ["2026-03-02", "tomorrow"],
    ["2026-02-28", "yesterday"],
    ["2026-03-21", "in 20 days"],
    ["2025-12-01", "3 months ago"],
    ["2029-03-01", "in 3.0 years"],
  ])("%s is %s seen from 1 March 2026", (date, said) =>
    expect(formatDistance(date as LocalDate, "2026-03-01")).toBe(said),
  );

  it.each([
    ["12.4", 12.4],
    [" 12,4 ", 12.4],
    ["7", 7],
    ["12.345", null],
    ["-3", null],
    ["1e3", null],
    ["", null],
  ])("hours typed as '%s' are %s", (typed, hours) => expect(parseHours(typed)).toBe(hours));
});
