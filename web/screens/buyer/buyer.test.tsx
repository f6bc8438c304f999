// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { BuyerSheet, Delivery, RetentionSheet } from "../../../api/index.ts";
import { queryClient } from "../../app/queries.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { TheirData } from "../record/TheirData.tsx";
import { Retention } from "../store/Retention.tsx";
import { BuyerScreen } from "./BuyerScreen.tsx";

afterEach(() => {
  cleanup();
  queryClient.clear();
  vi.unstubAllGlobals();
});

const name = "Bartholomea Quillon-Featherstonehaugh-Vey";
const handover = {
  delivery: "d-1",
  boat: "w1",
  boatName: "Wending 23",
  date: "2026-06-13" as const,
  others: [],
  seal: "salted" as const,
  entries: 3,
  photos: 2,
};
const boat = {
  boat: "w1",
  boatName: "Wending 23",
  isTheirs: true,
  phone: "555 0199",
  email: "",
  hasCar: true,
  launches: 0,
  rows: { readings: 4, services: 0 },
  files: 0,
};
const sheet: BuyerSheet = { name, handovers: [handover], boats: [boat], messages: 1, logLines: 0 };
const show = (held: BuyerSheet = sheet) => {
  const asked = answerWith({
    buyer: () => held,
    forgetBuyer: () => ({
      handovers: 1,
      messages: 1,
      logLines: 0,
      stillNamed: [{ delivery: "d-1", boatName: "Wending 23", text: "Quillon saw a scratch" }],
    }),
  });
  showScreen(
    [{ path: "/deliveries/:delivery/buyers/:person", element: <BuyerScreen /> }],
    "/deliveries/d-1/buyers/b1",
    "owner",
  );
  return { forgotten: () => asked.filter(({ name: each }) => each === "forgetBuyer"), user: userEvent.setup() };
};

describe("what is held of a buyer", () => {
  it("is all on one page, and taken along from there", async () => {
    show();
    expect(await screen.findByRole("heading", { name })).toBeTruthy();
    expect(screen.getByRole("region", { name: "Handovers" }).textContent).toMatch(
      /Wending 23, .*sealed; 3 signatures and notes, 2 photos/,
    );
    expect(screen.getByRole("region", { name: "Boats" }).textContent).toMatch(
      /555 0199, no e-mail, their car.*Stays with the boat: 4 readings of hours/,
    );
    expect(screen.getByRole("link", { name: "Download all of it" }).getAttribute("href")).toBe(
      "/api/deliveries/d-1/buyers/b1/data.zip",
    );
  });

  it("goes only after it was said in full what goes, and is asked again when that changes", async () => {
    const { forgotten, user } = show();
    const button = () => screen.getByRole("button", { name: /^Forget/ });
    await screen.findByRole("heading", { name });
    expect(button()).toHaveProperty("disabled", true);
    await user.type(screen.getByLabelText("Why, without their name"), "  Asked in writing ");
    await user.click(button());
    expect(screen.getByRole("alert").textContent).toMatch(
      /struck for good from one handover .*, with the photos, and how/,
    );
    await user.click(screen.getByLabelText("The photos of these handovers too"));
    expect(screen.queryByRole("alert")).toBeNull();
    await user.click(button());
    expect(screen.getByRole("alert").textContent).not.toContain("with the photos");
    expect(forgotten()).toEqual([]);
    await user.click(screen.getByRole("button", { name: "Forget them for good" }));
    expect(await screen.findByRole("heading", { name: `${name} is forgotten` })).toBeTruthy();
    expect(screen.getByRole("status").textContent).toContain("Wending 23: Quillon saw a scratch");
    expect(forgotten()).toMatchObject([
      {
        params: { delivery: "d-1", person: "b1" },
        body: { deliveries: ["d-1"], photos: false, contact: true, reason: "Asked in writing" },
      },
    ]);
  });

  it("leaves the phone of whoever bought with them, a namesake's handover, and says what the old format means", async () => {
    const other = { ...handover, delivery: "d-2", boat: "w2", boatName: "Pipit 15", seal: "first" as const };
    const { forgotten, user } = show({ ...sheet, handovers: [{ ...handover, others: ["Ana Anselm"] }, other] });
    await screen.findByRole("heading", { name });
    expect(screen.getByText(/Ana Anselm may be reached by the same/)).toBeTruthy();
    expect(screen.getByText(/can no longer be recomputed/)).toBeTruthy();
    await user.click(screen.getByLabelText(/^Pipit 15/));
    expect(screen.queryByText(/can no longer be recomputed/)).toBeNull();
    await user.type(screen.getByLabelText("Why, without their name"), "Asked");
    await user.click(screen.getByRole("button", { name: /^Forget/ }));
    await user.click(screen.getByRole("button", { name: "Forget them for good" }));
    await vi.waitFor(() => expect(forgotten()).toHaveLength(1));
    expect(forgotten()[0]).toMatchObject({ body: { deliveries: ["d-1"], contact: false } });
  });

  it("is the owner's to open, from a record, and of nobody who is struck already", () => {
    const delivery = {
      id: "d-1",
      buyers: [
        { id: "b1", name: "(struck)" },
        { id: "b2", name },
      ],
    } as unknown as Delivery;
    const open = (role: string) => showScreen([{ path: "/", element: <TheirData delivery={delivery} /> }], "/", role);
    open("delivery");
    expect(screen.queryAllByRole("link")).toEqual([]);
    cleanup();
    open("owner");
    expect(screen.getAllByRole("link").map((link) => link.getAttribute("href"))).toEqual(["/deliveries/d-1/buyers/b2"]);
  });
});

it("how long it is kept is the owner's word, saved where it was said; whom it puts before them is a touch away", async () => {
  const rules = { messagesMonths: null, logMonths: null, buyersYears: 2 };
  const quiet = [{ delivery: "d-1", person: "b1", name, boatName: "Wending 23", date: "2020-06-01" as const }];
  let held: RetentionSheet = { rules, quiet };
  const asked = answerWith({
    retention: () => held,
    setRetention: ({ body }) => {
      held = { ...held, rules: body as RetentionSheet["rules"] };
      return { done: true };
    },
  });
  showScreen([{ path: "/store", element: <Retention /> }], "/store", "owner");
  const link = await screen.findByRole("link", { name });
  expect(link.getAttribute("href")).toBe("/deliveries/d-1/buyers/b1");
  const user = userEvent.setup();
  await user.selectOptions(screen.getByLabelText("Words of messages"), "2 years");
  await user.click(screen.getByRole("button", { name: "Save how long" }));
  expect(await screen.findByText("Saved.")).toBeTruthy();
  expect(asked.filter(({ name: each }) => each === "setRetention").map(({ body }) => body)).toEqual([
    { ...rules, messagesMonths: 24 },
  ]);
});
