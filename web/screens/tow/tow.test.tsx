// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { Boat } from "../../../api/index.ts";
import { rigTemplates, towRules } from "../../../content/index.ts";
import type { TowRules, Vehicle } from "../../../core/tow/index.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { TowScreen } from "./TowScreen.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const boat = { id: "w1", name: "Wending 23", hull: "SLW23001A626", buyers: "Ada", rig: rigTemplates["wending-23"] };

it("a wrong ball stops the tow check before all else", async () => {
  const vehicle: Vehicle = { name: "Estate", towLimitKg: 3500, ballMm: 50 };
  answerWith({
    boat: () => boat as unknown as Boat,
    towing: () => ({ vehicle, launches: [], ramps: [], rules: [...towRules], ownRules: [] }),
  });
  showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "sales");
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toMatch(
    /^▲ Not with Estate: ball and coupler/,
  );
  const bars = within(screen.getByRole("list", { name: "Limits, the weakest first" }));
  expect(bars.getAllByRole("listitem")[0]!.textContent).toContain("stop, it comes off");
  expect(within(screen.getByRole("region", { name: "Not read yet" })).getByText("Hitch receiver")).toBeTruthy();
});

it("what the trailer itself does not carry is said before any car is known, and beside what a car does not take", async () => {
  const rig = { ...boat.rig, trailer: { ...boat.rig.trailer!, grossLimitKg: 900 } };
  const show = (vehicle: Vehicle | null) => {
    answerWith({
      boat: () => ({ ...boat, rig }) as unknown as Boat,
      towing: () => ({ vehicle, launches: [], ramps: [], rules: [...towRules], ownRules: [] }),
    });
    showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "sales");
  };
  show(null);
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toMatch(/^▲ Not with this trailer: [^.]+\.$/);
  cleanup();
  show({ name: "Estate", towLimitKg: 3500, ballMm: 50 });
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toMatch(
    /^▲ Not with this trailer: .*▲ Not with Estate: ball and coupler/,
  );
});

it("the right ball is saved in place, said to be saved, and the stop is gone", async () => {
  const user = userEvent.setup();
  let vehicle: Vehicle | null = null;
  answerWith({
    boat: () => boat as unknown as Boat,
    towing: () => ({ vehicle, launches: [], ramps: [], rules: [...towRules], ownRules: [] }),
    setVehicle: ({ body }) => {
      vehicle = body as Vehicle;
      return { done: true };
    },
  });
  showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "sales");
  await user.type(await screen.findByLabelText("Car"), "Estate");
  const ball = screen.getByLabelText("Ball, across");
  await user.type(ball, "50");
  await user.click(screen.getByRole("button", { name: "Save the car" }));
  await screen.findByRole("heading", { name: /^▲ Not with Estate: ball and coupler/ });
  expect(ball.closest("details")!.open).toBe(true);
  expect(screen.getByText("Saved.")).toBeTruthy();
  await user.clear(ball);
  await user.type(ball, "58.7");
  await user.click(screen.getByRole("button", { name: "Save the car" }));
  await screen.findByRole("heading", { name: /^No limit is passed so far/ });
});

it("an owner of the store writes the rules of the region, which nobody of the others may", async () => {
  const user = userEvent.setup();
  const own: TowRules[] = [];
  const answers = {
    boat: () => boat as unknown as Boat,
    towing: () => ({
      vehicle: null,
      launches: [],
      ramps: [],
      rules: [...own, ...towRules],
      ownRules: own.map(({ id }) => id),
    }),
    setTowRules: ({ body }: { body: unknown }) => {
      own.push(body as TowRules);
      return { done: true as const };
    },
    removeTowRules: () => {
      own.length = 0;
      return { done: true as const };
    },
  };
  answerWith(answers);
  showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "owner");
  await user.click(await screen.findByText("Write our own rules from these"));
  const name = screen.getByLabelText("Name of the rules");
  await user.clear(name);
  await user.type(name, "Lake country");
  const most = screen.getByLabelText("Tongue weight, most %");
  await user.clear(most);
  await user.type(most, "3");
  expect(screen.getByText("▲ The most must be above the least.")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Save the rules" })).toHaveProperty("disabled", true);
  await user.clear(most);
  await user.type(most, "12");
  await user.click(screen.getByRole("button", { name: "Save the rules" }));
  expect(await screen.findByRole("option", { name: "Lake country" })).toBeTruthy();
  expect(own[0]).toMatchObject({ id: "lake-country", isExample: false, tongueShareMin: 0.05, tongueShareMax: 0.12 });
  await user.selectOptions(screen.getByRole("option", { name: "Lake country" }).closest("select")!, "Lake country");
  await user.click(await screen.findByText("Change these rules"));
  await user.click(screen.getByRole("button", { name: "Delete them" }));
  await screen.findByText(/^The set Lake country was taken away/);
  expect(own).toEqual([]);
  await user.click(screen.getByRole("button", { name: "Undo" }));
  expect(await screen.findByRole("option", { name: "Lake country" })).toBeTruthy();
  cleanup();
  showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "delivery");
  await screen.findByLabelText("Car");
  expect(screen.queryByText(/our own rules/)).toBeNull();
});
