// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Delivery } from "../../../api/index.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { StrikePerson } from "./StrikePerson.tsx";

const longName = "Bartholomea Quillon-Featherstonehaugh-Vey";
const sealed = {
  id: "d-1",
  seal: { sha256: "0", key: "k" },
  buyers: [
    { id: "b1", name: longName },
    { id: "b2", name: "Dov Anselm" },
  ],
  entries: [{ kind: "photo", photo: "p1" }, { kind: "photo", photo: "p1" }, { kind: "mark" }],
} as unknown as Delivery;

const strike = (delivery: Delivery, role = "owner") => {
  const asked = answerWith({ strike: () => new Response("{}") });
  showScreen([{ path: "/", element: <StrikePerson delivery={delivery} /> }], "/", role);
  return { asked, user: userEvent.setup() };
};

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe("striking a buyer's data from a record", () => {
  it("sends nothing before it was said what goes for good, and asks again when that changes", async () => {
    const { asked, user } = strike(sealed);
    await user.type(screen.getByLabelText("Why"), "  Asked in writing ");
    await user.click(screen.getByRole("button", { name: "Strike" }));
    expect(screen.getByRole("alert").textContent).toContain(`${longName} is struck`);
    await user.click(screen.getByLabelText("All photos too"));
    expect(screen.queryByRole("alert")).toBeNull();
    await user.selectOptions(screen.getByLabelText("Whose"), "Dov Anselm");
    await user.click(screen.getByRole("button", { name: "Strike" }));
    expect(screen.getByRole("alert").textContent).toContain("Dov Anselm and all photos are struck");
    expect(asked).toEqual([]);
    await user.click(screen.getByRole("button", { name: "Strike Dov Anselm for good" }));
    await vi.waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({
      params: { delivery: "d-1" },
      body: { person: "b2", photos: ["p1"], reason: "Asked in writing" },
    });
  });

  it("cannot be done without a reason", async () => {
    const { asked, user } = strike(sealed);
    await user.type(screen.getByLabelText("Why"), "   ");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Strike" }).disabled).toBe(true);
    await user.type(screen.getByLabelText("Why"), "{Enter}");
    expect(asked).toEqual([]);
  });

  it("offers nobody who is struck already", () => {
    const [first, second] = sealed.buyers;
    strike({ ...sealed, buyers: [{ ...first!, name: "(struck)" }, second!] });
    const names = screen.getAllByRole("option").map((option) => option.textContent);
    expect(names).toEqual(["Dov Anselm"]);
  });

  it.each([
    ["to anybody but the dealer's owner", sealed, "manager"],
    ["before the seal", { ...sealed, seal: null }, "owner"],
    [
      "of a record whose seal is over the names themselves",
      { ...sealed, seal: { ...sealed.seal, key: null } },
      "owner",
    ],
  ])("is not offered %s", (_, delivery, role) => {
    strike(delivery as Delivery, role);
    expect(screen.queryByText("Strike personal data")).toBeNull();
  });
});
