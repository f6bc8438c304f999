// @vitest-environment jsdom
import "../testing/fileText.ts";
import { readFileSync } from "node:fs";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { BundlePreview, Delivery, VerifiedSheet } from "../../api/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import { meQuery, queryClient } from "../app/queries.ts";
import { OwnerLink } from "../handover/OwnerLink.tsx";
import { answerWith, refuse, showScreen } from "../testing/answerWith.tsx";
import { makeMe } from "../testing/makeMe.ts";
import { BundleScreen } from "./bundle/BundleScreen.tsx";
import { VerifyScreen } from "./verify/VerifyScreen.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const user = userEvent.setup();
const chooseFile = async (content: string | Uint8Array, name: string, type: string) => {
  const input = document.querySelector<HTMLInputElement>('input[type="file"]')!;
  await user.upload(input, new File([content as BlobPart], name, { type }));
};
const intact: VerifiedSheet = {
  verdict: "unsigned",
  signedBy: null,
  isIntact: true,
  differences: [],
  sha256: "a".repeat(64),
  entries: 12,
  amendments: 1,
  known: { number: 7, delivery: "d-1", sealedAt: "2026-06-01T12:00:00.000Z" },
  origin: null,
};
/** A bundle that an earlier build sealed, as zip and as the JSON in it. */
const golden = readFileSync("server/golden/handover-1.zip");
const goldenText = () => strFromU8(unzipSync(new Uint8Array(golden))["handover.json"]!);
const changed: VerifiedSheet = {
  ...intact,
  verdict: "differs",
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

  it("works it out in the browser, and says where it stands in this store to whoever is signed in", async () => {
    const asked = answerWith({ verify: () => intact });
    show();
    await chooseFile(goldenText(), "handover.json", "application/json");
    const answer = await screen.findByRole("status", { name: "Answer" });
    expect(answer.textContent).toContain("Intact, but nobody's signature says whose it is.");
    expect(answer.textContent).toContain("2e066f2edb7941f20399779ac38cd50645d48ce4192e157fd74d97211a82fafd");
    const record = await within(answer).findByRole("link", { name: "Open the record" });
    expect(record.getAttribute("href")).toBe("/deliveries/d-1/record");
    expect(asked.map(({ name }) => name)).toEqual(["verify"]);
  });

  it("takes the zip with its photos, and needs nobody to be signed in", async () => {
    answerWith({ verify: () => refuse("sign-in-needed", {}, 401) });
    show();
    await chooseFile(golden, "handover.zip", "application/zip");
    const answer = await screen.findByRole("status", { name: "Answer" });
    expect(answer.textContent).toContain("Intact");
    expect(answer.textContent).not.toContain("In this store");
  });

  it("names the entry that differs, and says when only the file's own seal could be asked", async () => {
    answerWith({ verify: () => changed });
    show();
    const value = JSON.parse(goldenText());
    const entry = value.handover.entries.find(({ kind }: { kind: string }) => kind === "snag");
    entry.note = "All was well";
    await chooseFile(JSON.stringify(value), "handover.json", "application/json");
    const answer = await screen.findByRole("status", { name: "Answer" });
    expect(answer.textContent).toContain("This is not what was sealed");
    expect(answer.textContent).toContain(`${entry.id} (snag)`);
    await waitFor(() => expect(answer.textContent).toContain("compared with its own seal only"));
  });

  it.each<[string, string | Uint8Array, RegExp]>([
    ["no JSON", "not json", /It is not JSON/],
    ["nothing", "", /empty/],
    ["a false gzip", new Uint8Array([0x1f, 0x8b, 1, 2, 3]), /gzip/],
    ["a zip cut off", golden.subarray(0, 900), /damaged|cut off/],
    ["a zip of something else", zipSync({ "a.txt": strToU8("x") }), /does not belong/],
  ])("says of %s in words why it cannot be read, and asks nothing", async (_, content, says) => {
    const asked = answerWith({ verify: () => intact });
    show();
    await chooseFile(content, "notes.json", "application/json");
    expect((await screen.findByRole("alert")).textContent).toMatch(says);
    expect(asked).toEqual([]);
  });
});

describe("Import a handover", () => {
  const preview: BundlePreview = {
    store: "Another Yard",
    boatName: "Wending 23",
    hull: "SLW23118K526",
    date: "2026-06-01",
    buyers: ["Ilse Warrender-Featherstonehaugh-Okonkwo", "Piet Marram"],
    topics: 90,
    entries: 140,
    photos: 3,
    photosLeft: 0,
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

  it("shows what is in it before anything is kept, imports it on wish, and opens its record", async () => {
    const asked = answerWith({ previewBundle: () => preview, importBundle: () => ({ delivery: "d-9", boat: "b-9" }) });
    const router = show();
    await chooseFile("PK", "handover.zip", "application/zip");
    const inside = await screen.findByRole("region", { name: "What is in it" });
    expect(inside.textContent).toContain("90 topics, 140 entries, 3 photos, 0 additions");
    expect(inside.textContent).toContain("a new boat with its handover");
    expect(asked.map(({ name }) => name)).toEqual(["previewBundle"]);
    await user.click(screen.getByRole("button", { name: "Import" }));
    await screen.findByText("The record");
    expect(router.state.location.pathname).toBe("/deliveries/d-9/record");
  });

  it("takes the record alone as JSON, and says which photos it lacks before it is too late", async () => {
    const asked = answerWith({ previewBundle: () => ({ ...preview, photos: 0, photosLeft: 3 }) });
    show();
    await chooseFile("{}", "handover.json", "application/json");
    expect((await screen.findByText(/The record names 3 photos that are not in this file/)).textContent).toContain(
      "zip",
    );
    expect(asked.map(({ name }) => name)).toEqual(["previewBundle"]);
  });

  it("asks whose it is where the store is not known here", async () => {
    const key = "c".repeat(64);
    const origin = { store: "Another Yard", key, is: "unknown" as const, since: null };
    const asked = answerWith({
      previewBundle: () => ({ ...preview, verified: { ...intact, origin } }),
      importBundle: () => ({ delivery: "d-9", boat: "b-9" }),
    });
    show();
    await chooseFile("PK", "handover.zip", "application/zip");
    const button = await screen.findByRole("button", { name: "Import" });
    expect(button.hasAttribute("disabled")).toBe(true);
    await user.click(screen.getByRole("checkbox", { name: new RegExp(key) }));
    await user.click(button);
    await screen.findByText("The record");
    expect(asked.at(-1)!.name).toBe("importBundle");
  });

  it.each([
    ["one that is here already", { isKnown: true }, "in the store already"],
    ["one that was changed", { verified: changed }, "01HZZZZZZZZZZZZZZZZZZZZZ01"],
  ])("does not offer to import %s", async (_, change, says) => {
    answerWith({ previewBundle: () => ({ ...preview, ...change }) });
    show();
    await chooseFile("PK", "handover.zip", "application/zip");
    expect((await screen.findByRole("region", { name: "What is in it" })).textContent).toContain(says);
    expect(screen.getByRole("button", { name: "Import" }).hasAttribute("disabled")).toBe(true);
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
    queryClient.setQueryData(meQuery.queryKey, makeMe({ role: role as "owner" }));
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter>
          <OwnerLink delivery={{ ...delivery, ...change }} state={foldWalk([])} />
        </MemoryRouter>
      </QueryClientProvider>,
    );
  };

  it("is made with the walk and sent, its address shown once", async () => {
    const asked = answerWith({
      setOwnerLink: () => ({ token: "A".repeat(22), address: `https://yard.test/o/${"A".repeat(22)}` }),
    });
    show();
    await user.click(screen.getByRole("button", { name: "Make it with the walk" }));
    expect((await screen.findByTestId("owner-address")).textContent).toBe(`https://yard.test/o/${"A".repeat(22)}`);
    expect(screen.getByText("Sent to Piet Marram.")).toBeTruthy();
    expect(asked[0]).toMatchObject({
      name: "setOwnerLink",
      params: { delivery: "d-1" },
      body: { isRemote: true, send: true },
    });
  });

  it("is not sent where that was unticked", async () => {
    const asked = answerWith({
      setOwnerLink: () => ({ token: "B".repeat(22), address: `https://yard.test/o/${"B".repeat(22)}` }),
    });
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
      seal: { sha256: "a".repeat(64), sealedAt: "2026-06-01T12:00:00.000Z", number: 1, key: null, from: null },
    });
    expect(screen.queryByRole("button", { name: /walk/ })).toBeNull();
    expect(screen.getByRole("button", { name: "A new address" })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "End it" }));
    expect(asked).toEqual([]);
    await user.click(screen.getByRole("button", { name: "End it for Piet Marram" }));
    expect(asked[0]?.name).toBe("endOwnerLink");
  });

  it("is not for a technician to make", () => {
    show("technician");
    expect(screen.queryByRole("region", { name: "Owner's page" })).toBeNull();
  });
});
