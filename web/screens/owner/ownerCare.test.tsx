// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { OwnerPage } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import { queryClient } from "../../app/queries.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { OwnerCare } from "./OwnerCare.tsx";
import { OwnerHours } from "./OwnerHours.tsx";

const rig = rigTemplates["ferrin-20"];
const [engine] = rig.engines;
const token = "o".repeat(22);
const care = {
  engine: engine!.id,
  label: engine!.label,
  meterH: 8.5,
  reportedH: 8.5,
  reportedOn: "2026-06-01",
  items: [],
};
const page = {
  today: "2026-06-20",
  delivery: { rig },
  care: [care],
  services: [],
  visits: [
    {
      date: "2026-08-02",
      labourH: 2.5,
      priceCents: 31240,
      items: [
        {
          scope: engine!.id,
          item: "first-service",
          label: engine!.label,
          title: "First service, 20 h",
          work: ["oil", "filter"],
          parts: [],
          by: "hours",
          dueDate: "2026-08-02",
          range: { from: "2026-07-10", to: "2026-09-30" },
          isAnyDay: false,
          isOverdue: false,
        },
        {
          scope: "boat",
          item: "bearing-grease",
          label: "The boat",
          title: "Trailer bearings",
          work: ["grease"],
          parts: [],
          by: "calendar",
          dueDate: "2026-06-01",
          range: null,
          isAnyDay: false,
          isOverdue: true,
        },
      ],
    },
  ],
} as unknown as OwnerPage;

/** The yard at the other end: out of reach, asking, or taking it. */
const yard = { mood: "takes" as "takes" | "silent" | "asks", posts: [] as Record<string, unknown>[] };
beforeEach(() => {
  Object.assign(yard, { mood: "takes", posts: [] });
  vi.stubGlobal("fetch", async (_: string, { body }: { body: string }) => {
    if (yard.mood === "silent") throw new TypeError("failed to fetch");
    const sent = JSON.parse(body);
    if (yard.mood === "asks" && sent.answer === undefined) {
      const error = { code: "hours-leap", got: sent.hours, before: 8.5, on: "2026-06-01", perDay: 20 };
      return new Response(JSON.stringify({ error }), { status: 409 });
    }
    yard.posts.push(sent);
    return new Response(JSON.stringify({ done: true }));
  });
});
afterEach(async () => {
  cleanup();
  for (const { id } of syncQueue.listPosts(token)) await syncQueue.discardPost(id);
  vi.unstubAllGlobals();
});
const user = userEvent.setup();
const show = () =>
  render(
    <QueryClientProvider client={queryClient}>
      <OwnerHours token={token} page={page} />
    </QueryClientProvider>,
  );
const tell = async (hours: string) => {
  await user.type(screen.getByLabelText(`Hours, ${engine!.label}`), hours);
  await user.click(screen.getByRole("button", { name: "Report the hours" }));
};
const here = () => within(screen.getByRole("list", { name: "Kept on this device" }));

describe("an owner's hours", () => {
  it("are reported in two taps, and say what was reported before and what the meter counts", async () => {
    show();
    expect(screen.getByText(/Last reported 8.5 h on/)).toBeTruthy();
    expect(screen.getByText(/counts whenever the key is on/)).toBeTruthy();
    await tell("12,5");
    expect(await screen.findByText(/Saved, thank you/)).toBeTruthy();
    expect(yard.posts).toEqual([
      { id: expect.stringMatching(/^\w{26}$/), engine: engine!.id, date: "2026-06-20", hours: 12.5 },
    ]);
    expect(screen.queryByRole("list", { name: "Kept on this device" })).toBeNull();
  });

  it("that are none are said at once", async () => {
    show();
    await tell("twelve");
    expect(screen.getByRole("alert").textContent).toContain("Type hours such as 12.4");
    expect(yard.posts).toEqual([]);
  });

  it("that leap are asked about, by what this meter counts", async () => {
    yard.mood = "asks";
    show();
    await tell("400");
    const buttons = within(await screen.findByRole("alert")).getAllByRole("button");
    expect(buttons.map(({ textContent }) => textContent)).toEqual([
      "The key was left on",
      "It is right, much was run",
      "The meter was changed",
      "Wrong entry",
    ]);
    await user.click(buttons[0]!);
    await waitFor(() => expect(yard.posts).toHaveLength(1));
    expect(yard.posts[0]).toMatchObject({ hours: 400, answer: "key-left-on" });
  });

  it("are kept without signal and go when there is one", async () => {
    yard.mood = "silent";
    show();
    await tell("12.5");
    expect((await screen.findByText(/is kept on this device and goes to the yard/)).textContent).toContain("12.5 h");
    expect(screen.queryByText(/Saved, thank you/)).toBeNull();
    yard.mood = "takes";
    window.dispatchEvent(new Event("online"));
    await waitFor(() => expect(screen.queryByRole("list", { name: "Kept on this device" })).toBeNull());
    expect(yard.posts).toHaveLength(1);
  });

  it("kept without signal are asked about when they come, and can be taken back", async () => {
    yard.mood = "silent";
    show();
    await tell("400");
    await screen.findByRole("list", { name: "Kept on this device" });
    yard.mood = "asks";
    window.dispatchEvent(new Event("online"));
    expect(await here().findByText(/was not taken by the yard/)).toBeTruthy();
    expect(here().getByRole("button", { name: "The key was left on" })).toBeTruthy();
    await user.click(here().getByRole("button", { name: /^Take back: 400 h/ }));
    await waitFor(() => expect(screen.queryByRole("list", { name: "Kept on this device" })).toBeNull());
    expect(yard.posts).toEqual([]);
  });
});

describe("what an owner is told of the service", () => {
  it("is the next visits with their work and why, the calendar, and what was done", () => {
    const done: OwnerPage["services"][number] = {
      id: "1",
      date: "2026-06-10",
      engine: engine!.id,
      item: "first-service",
      hours: 14,
      outcome: "elsewhere",
      note: "north shore",
      by: "Ines Marr",
      photo: null,
      file: null,
      fileName: null,
      priceCents: null,
      parts: "",
      labourH: null,
      mechanic: "",
    };
    const { rerender } = render(<OwnerCare token={token} page={page} />);
    expect(screen.getByTestId("owner-visit").textContent).toBe("2 Aug 2026");
    expect(screen.getByText(/about €312.40 by the yard's list/)).toBeTruthy();
    expect(screen.getByText("by its hours, likely 2 Aug 2026, between 10 Jul 2026 and 30 Sept 2026")).toBeTruthy();
    expect(screen.getByText(/^▲ past due, 1 Jun 2026/)).toBeTruthy();
    expect(screen.getByText("oil; filter")).toBeTruthy();
    expect(screen.getByText(/Nothing yet/)).toBeTruthy();
    expect(screen.getByRole("link", { name: /calendar/ }).getAttribute("href")).toContain(
      `/owner/${token}/calendar.ics`,
    );
    rerender(<OwnerCare token={token} page={{ ...page, services: [done] }} />);
    expect(screen.getByText(/10 Jun 2026, at 14.0 h, elsewhere. north shore/)).toBeTruthy();
  });
});
