// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Boat } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import { queryClient } from "../../app/queries.ts";
import { HoursForm } from "./HoursForm.tsx";

const rig = rigTemplates["wending-23"];
const boat = {
  id: "w097",
  rig,
  today: "2026-06-20",
  inService: "2026-05-01",
  care: [],
  driftH: null,
  withdrawn: [],
  readings: [
    {
      id: "01",
      engine: rig.engines[0]!.id,
      date: "2026-05-01",
      hours: 1.1,
      reason: null,
      by: "Nessa",
      source: "walk",
      answer: null,
      photo: null,
    },
    {
      id: "02",
      engine: rig.engines[0]!.id,
      date: "2026-06-01",
      hours: 0.4,
      reason: null,
      by: "Odile",
      source: "phone",
      answer: "meter-changed",
      photo: null,
    },
  ],
} as unknown as Boat;

/** A yard that answers as told, and remembers what it was sent. */
function start(answers: { status: number; body: object }[], shown = boat) {
  const posts: Record<string, unknown>[] = [];
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
    posts.push(JSON.parse(body));
    const { status, body: answer } = answers.shift()!;
    return new Response(JSON.stringify(answer), { status });
  });
  render(
    <QueryClientProvider client={queryClient}>
      <HoursForm boat={shown} />
    </QueryClientProvider>,
  );
  return { posts, user: userEvent.setup() };
}
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const hours = () => screen.getByLabelText("Hours on the meter");
const keep = () => screen.getByRole("button", { name: "Save" });

describe("HoursForm", () => {
  it("says what hours look like, and sends nothing, when they are not", async () => {
    const { posts, user } = start([]);
    await user.type(hours(), "about ten");
    await user.click(keep());
    expect((await screen.findByRole("alert")).textContent).toContain("Type hours such as 12.4");
    expect(hours().getAttribute("aria-invalid")).toBe("true");
    expect(posts).toEqual([]);
  });

  it("sends engine, day and hours, and is ready for the next", async () => {
    const { posts, user } = start([{ status: 200, body: {} }]);
    await user.selectOptions(screen.getByLabelText("Engine"), rig.engines[1]!.label);
    await user.type(hours(), "12,4");
    await user.click(keep());
    await vi.waitFor(() => expect((hours() as HTMLInputElement).value).toBe(""));
    expect(posts).toEqual([
      {
        id: expect.stringMatching(/^[0-9A-Z]{26}$/),
        engine: rig.engines[1]!.id,
        date: "2026-06-20",
        hours: 12.4,
        source: "phone",
      },
    ]);
  });

  it("asks why hours fall, keeps what was typed, and sends the answer with it", async () => {
    const { posts, user } = start([
      { status: 409, body: { error: { code: "hours-fall", got: 0.2, before: 0.4, on: "2026-06-01" } } },
      { status: 200, body: {} },
    ]);
    await user.type(hours(), "0.2");
    await user.click(keep());
    const question = await screen.findByRole("alert");
    expect(question.textContent).toContain("0.2 h does not fit: 0.4 h was read on 1 Jun 2026");
    expect((hours() as HTMLInputElement).value).toBe("0.2");
    await user.click(screen.getByRole("button", { name: "The meter was changed" }));
    await vi.waitFor(() => expect(posts).toHaveLength(2));
    expect(posts[1]).toMatchObject({ hours: 0.2, answer: "meter-changed" });
    await vi.waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
  });

  it("asks about hours that leap, and lets a slip be typed again", async () => {
    const { posts, user } = start([
      { status: 409, body: { error: { code: "hours-leap", got: 412, before: 41.2, on: "2026-06-01", perDay: 19 } } },
    ]);
    await user.type(hours(), "412");
    await user.click(keep());
    expect((await screen.findByRole("alert")).textContent).toContain("is a lot");
    expect(screen.queryByRole("button", { name: "The key was left on" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "Wrong entry" }));
    expect(screen.queryByRole("alert")).toBeNull();
    expect((hours() as HTMLInputElement).value).toBe("412");
    expect(posts).toHaveLength(1);
  });

  it("says what the meter counts, and asks of one that counts with the key on whether it was left", async () => {
    const [port, starboard] = rig.engines;
    const keyed = { ...boat, rig: { ...rig, engines: [port!, { ...starboard!, meter: "key-on" as const }] } };
    const { posts, user } = start(
      [
        { status: 409, body: { error: { code: "hours-leap", got: 30, before: 12, on: "2026-06-01", perDay: 9 } } },
        { status: 200, body: {} },
      ],
      keyed,
    );
    expect(screen.getByText(/counts only while the engine runs/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText("Engine"), starboard!.label);
    expect(screen.getByText(/counts whenever the key is on/)).toBeTruthy();
    await user.type(hours(), "30");
    await user.click(keep());
    await user.click(await screen.findByRole("button", { name: "The key was left on" }));
    await vi.waitFor(() => expect(posts[1]).toMatchObject({ engine: starboard!.id, answer: "key-left-on" }));
  });

  it("lists readings newest first, with who reported them and why they fell", () => {
    start([]);
    const rows = screen.getAllByRole("row").slice(1);
    expect(rows.map((row) => row.textContent)).toEqual([
      `1 Jun 2026${rig.engines[0]!.label}0.4 hOdile, by phone: the meter was changedCorrect`,
      `1 May 2026${rig.engines[0]!.label}1.1 hNessa, at the handoverCorrect`,
    ]);
  });

  it("pressed twice, keeps one reading", async () => {
    const { posts, user } = start([
      { status: 200, body: { done: true } },
      { status: 200, body: { done: true } },
    ]);
    await user.type(hours(), "12.4");
    await user.dblClick(keep());
    await vi.waitFor(() => expect((hours() as HTMLInputElement).value).toBe(""));
    expect(new Set(posts.map(({ id }) => id)).size).toBe(1);
  });

  it("puts a wrong one right with a reason, asks like the form does, or takes it out", async () => {
    const fall = { error: { code: "hours-fall", path: "hours", got: 0.5, before: 1.1, on: "2026-05-01" } };
    const { posts, user } = start([
      { status: 409, body: fall },
      { status: 200, body: { done: true } },
    ]);
    await user.click(screen.getByRole("button", { name: /^Correct 0\.4 h of 1 Jun 2026/ }));
    const pad = screen.getByRole("form", { name: "Correct 0.4 h of 1 Jun 2026" });
    const field = (name: string) => within(pad).getByLabelText(name);
    expect(within(pad).getByRole<HTMLButtonElement>("button", { name: "Put it right" }).disabled).toBe(true);
    await user.clear(field("Hours on the meter"));
    await user.type(field("Hours on the meter"), "0,5");
    await user.type(field("What was wrong"), "Misheard");
    await user.click(within(pad).getByRole("button", { name: "Put it right" }));
    await user.click(await within(pad).findByRole("button", { name: "The meter was changed" }));
    await vi.waitFor(() => expect(posts).toHaveLength(2));
    expect(posts[1]).toMatchObject({
      kind: "reading",
      id: "02",
      reason: "Misheard",
      right: { amount: 0.5, date: "2026-06-01", answer: "meter-changed" },
    });
    expect((posts[0] as { right: { id: string } }).right.id).toBe((posts[1] as { right: { id: string } }).right.id);
  });
});
