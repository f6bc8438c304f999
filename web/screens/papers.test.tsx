// @vitest-environment jsdom
import "../testing/fileText.ts";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { BundlePreview, Delivery, VerifiedSheet } from "../../api/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import { meQuery, queryClient } from "../app/queries.ts";
import { OwnerLink } from "../handover/OwnerLink.tsx";
import { answerWith, refuse, showScreen } from "../testing/answerWith.tsx";
import { BundleScreen } from "./bundle/BundleScreen.tsx";
import { VerifyScreen } from "./verify/VerifyScreen.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const user = userEvent.setup();
const chooseFile = async (content: string, name: string, type: string) => {
  const input = document.querySelector<HTMLInputElement>('input[type="file"]')!;
  await user.upload(input, new File([content], name, { type }));
};
const intact: VerifiedSheet = {
  isIntact: true,
  differences: [],
  sha256: "a".repeat(64),
  entries: 12,
  amendments: 1,
  known: { number: 7, delivery: "d-1", sealedAt: "2026-06-01T12:00:00.000Z" },
};
const changed: VerifiedSheet = {
  ...intact,
  isIntact: false,
  known: null,
  differences: [
    {
      code: "entry-changed",
      entry: "01HZZZZZZZZZZZZZZZZZZZZZ01",
      kind: "snag",
      in: "the sealed record",
      says: "entry 01HZZZZZZZZZZZZZZZZZZZZZ01 (snag) in the sealed record is not the one that was sealed",
    },
  ],
};

describe("Verify", () => {
  const show = () => showScreen([{ path: "/verify", element: <VerifyScreen /> }], "/verify");

  it("sends what the file holds, says intact, and where it stands in this store", async () => {
    const asked = answerWith({ verify: () => intact });
    show();
    await chooseFile('{"format":"ravik.bundle/1"}', "handover.json", "application/json");
    const answer = await screen.findByRole("status", { name: "Answer" });
    expect(answer.textContent).toContain("Intact.");
    expect(answer.textContent).toContain("12, and 1 addition");
    expect(within(answer).getByRole("link", { name: "Open the record" }).getAttribute("href")).toBe(
      "/deliveries/d-1/record",
    );
    expect(asked).toEqual([{ name: "verify", params: {}, body: { format: "ravik.bundle/1" } }]);
  });

  it("names the entry that differs, and says when only the file's own seal could be asked", async () => {
    answerWith({ verify: () => changed });
    show();
    await chooseFile("{}", "handover.json", "application/json");
    const answer = await screen.findByRole("status", { name: "Answer" });
    expect(answer.textContent).toContain("Not what was sealed");
    expect(answer.textContent).toContain("01HZZZZZZZZZZZZZZZZZZZZZ01 (snag)");
    expect(answer.textContent).toContain("compared with its own seal only");
  });

  it("says of a file that is not JSON where to get one, and asks nothing", async () => {
    const asked = answerWith({ verify: () => intact });
    show();
    await chooseFile("not json", "notes.json", "application/json");
    expect((await screen.findByRole("alert")).textContent).toContain("taken from its record, under Bundle");
    expect(asked).toEqual([]);
  });
});

describe("Take in a handover", () => {
  const preview: BundlePreview = {
    store: "Another Yard",
    boatName: "Wending 23",
    hull: "SLW23118K526",
    date: "2026-06-01",
    buyers: ["Ilse Warrender-Featherstonehaugh-Okonkwo", "Piet Marram"],
    topics: 90,
    entries: 140,
    photos: 3,
    amendments: 0,
    verified: intact,
    isBoatKnown: false,
    isKnown: false,
  };
  const show = () =>
    showScreen(
      [
        { path: "/bundles", element: <BundleScreen /> },
        { path: "/deliveries/:delivery/record", element: <p>The record</p> },
      ],
      "/bundles",
    );

  it("shows what is in it before anything is kept, takes it in on wish, and opens its record", async () => {
    const asked = answerWith({ previewBundle: () => preview, importBundle: () => ({ delivery: "d-9", boat: "b-9" }) });
    const router = show();
    await chooseFile("PK", "handover.zip", "application/zip");
    const inside = await screen.findByRole("region", { name: "What is in it" });
    expect(inside.textContent).toContain("90 topics, 140 entries, 3 photos, 0 additions");
    expect(inside.textContent).toContain("a new boat with its handover");
    expect(asked.map(({ name }) => name)).toEqual(["previewBundle"]);
    await user.click(screen.getByRole("button", { name: "Take it in" }));
    await screen.findByText("The record");
    expect(router.state.location.pathname).toBe("/deliveries/d-9/record");
  });

  it.each([
    ["one that is here already", { isKnown: true }, "in the store already"],
    ["one that was changed", { verified: changed }, "01HZZZZZZZZZZZZZZZZZZZZZ01"],
  ])("does not offer to take in %s", async (_, change, says) => {
    answerWith({ previewBundle: () => ({ ...preview, ...change }) });
    show();
    await chooseFile("PK", "handover.zip", "application/zip");
    expect((await screen.findByRole("region", { name: "What is in it" })).textContent).toContain(says);
    expect(screen.getByRole("button", { name: "Take it in" }).hasAttribute("disabled")).toBe(true);
  });

  it("says why a file is refused, and keeps saying it", async () => {
    answerWith({ previewBundle: () => refuse("not-a-bundle", { reason: "there is no handover.json in it" }, 422) });
    show();
    await chooseFile("PK", "holiday.zip", "application/zip");
    expect((await screen.findByRole("alert")).textContent).toContain("there is no handover.json in it");
  });
});

describe("Owner's page", () => {
  const delivery = {
    id: "d-1",
    buyers: [{ id: "b1", name: "Piet Marram" }],
    link: null,
    seal: null,
  } as unknown as Delivery;
  const show = (role = "delivery", change: Partial<Delivery> = {}) => {
    queryClient.clear();
    queryClient.setQueryData(meQuery.queryKey, { id: "nessa", name: "Nessa", role: role as "owner", store: "A yard" });
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter>
          <OwnerLink delivery={{ ...delivery, ...change }} state={foldWalk([])} />
        </MemoryRouter>
      </QueryClientProvider>,
    );
  };

  it("is made with the walk and sent, its address shown once", async () => {
    const asked = answerWith({ setOwnerLink: () => ({ token: "A".repeat(22) }) });
    show();
    await user.click(screen.getByRole("button", { name: "Make it with the walk" }));
    expect((await screen.findByTestId("owner-address")).getAttribute("href")).toContain(`/o/${"A".repeat(22)}`);
    expect(screen.getByText("Sent to Piet Marram.")).toBeTruthy();
    expect(asked[0]).toEqual({
      name: "setOwnerLink",
      params: { delivery: "d-1" },
      body: { isRemote: true, send: true },
    });
  });

  it("is not sent where that was unticked", async () => {
    const asked = answerWith({ setOwnerLink: () => ({ token: "B".repeat(22) }) });
    show();
    await user.click(screen.getByRole("checkbox", { name: "Send the address to Piet Marram" }));
    await user.click(screen.getByRole("button", { name: "Make their page" }));
    await screen.findByTestId("owner-address");
    expect(screen.queryByText("Sent to Piet Marram.")).toBeNull();
    expect(asked[0]?.body).toEqual({ isRemote: false, send: false });
  });

  it("can be ended or replaced when there is one, and has no walk to send once it is sealed", async () => {
    const asked = answerWith({ endOwnerLink: () => ({ done: true as const }) });
    show("delivery", {
      link: { madeAt: "2026-06-01T10:00:00.000Z", isRemote: false },
      seal: { sha256: "a".repeat(64), sealedAt: "2026-06-01T12:00:00.000Z", number: 1 },
    });
    expect(screen.queryByRole("button", { name: /walk/ })).toBeNull();
    expect(screen.getByRole("button", { name: "A new address" })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "End it" }));
    expect(asked[0]?.name).toBe("endOwnerLink");
  });

  it("is not for a technician to make", () => {
    show("technician");
    expect(screen.queryByRole("region", { name: "Owner's page" })).toBeNull();
  });
});
