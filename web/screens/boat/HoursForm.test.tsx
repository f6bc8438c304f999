// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
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
  readings: [
    { id: "01", engine: rig.engines[0]!.id, date: "2026-05-01", hours: 1.1, reason: null, by: "Nessa" },
    { id: "02", engine: rig.engines[0]!.id, date: "2026-06-01", hours: 0.4, reason: "meter changed", by: "Odile" },
  ],
} as unknown as Boat;

/** A yard that answers as told, and remembers what it was sent. */
function start(answers: { status: number; body: object }[]) {
  const posts: Record<string, unknown>[] = [];
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
    posts.push(JSON.parse(body));
    const { status, body: answer } = answers.shift()!;
    return new Response(JSON.stringify(answer), { status });
  });
  render(
    <QueryClientProvider client={queryClient}>
      <HoursForm boat={boat} />
    </QueryClientProvider>,
  );
  return { posts, user: userEvent.setup() };
}
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const hours = () => screen.getByLabelText("Hours on the meter");
const keep = () => screen.getByRole("button", { name: "Keep the reading" });

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
      { id: expect.stringMatching(/^[0-9A-Z]{26}$/), engine: rig.engines[1]!.id, date: "2026-06-20", hours: 12.4 },
    ]);
  });

  it("asks why hours fall, keeps what was typed, and sends the answer with it", async () => {
    const { posts, user } = start([
      { status: 409, body: { error: { code: "hours-fall", lastHours: 0.4, lastDate: "2026-06-01" } } },
      { status: 200, body: {} },
    ]);
    await user.type(hours(), "0.2");
    await user.click(keep());
    await user.type(await screen.findByLabelText("Why fewer hours than before"), " typing slip ");
    expect((hours() as HTMLInputElement).value).toBe("0.2");
    await user.click(keep());
    await vi.waitFor(() => expect(posts).toHaveLength(2));
    expect(posts[1]).toMatchObject({ hours: 0.2, reason: "typing slip" });
    await vi.waitFor(() => expect(screen.queryByLabelText("Why fewer hours than before")).toBeNull());
  });

  it("lists readings newest first, with who told them and why they fell", () => {
    start([]);
    const rows = screen.getAllByRole("row").slice(1);
    expect(rows.map((row) => row.textContent)).toEqual([
      `1 Jun 2026${rig.engines[0]!.label}0.4 hOdile: meter changed`,
      `1 May 2026${rig.engines[0]!.label}1.1 hNessa`,
    ]);
  });
});
