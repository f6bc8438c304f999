// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Boat, TowingSheet } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import { fitLaunches, type Launch, ramp, withFitted } from "../../../core/ramp/index.ts";
import { askRamp } from "../../ramp/askRamp.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { RampScreen } from "./RampScreen.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const rig = rigTemplates["wending-23"];
const boat = {
  deliveries: [],
  id: "w1",
  name: "Wending 23",
  hull: "SLW23001A626",
  buyers: "Ada Brandwyck",
  rig,
} as unknown as Boat;
const north = {
  id: "north",
  name: "North ramp",
  riseM: 0.26,
  runM: 2,
  surface: "concrete",
  isDriveOn: false,
  staging: "",
} as const;
const car = { name: "Their car", hitchToRearAxleM: 1.1, wadeLimitM: 0.3 };

function open(
  sheet: TowingSheet = { vehicle: car, launches: [], ramps: [north], rules: [], ownRules: [] },
  more: Partial<Boat> = {},
  role = "delivery",
) {
  const now = { ...sheet, launches: [...sheet.launches], ramps: [...sheet.ramps] };
  const asked = answerWith({
    boat: () => ({ ...boat, ...more }),
    towing: () => now,
    addLaunch: ({ body }) => {
      now.launches.push({ ...(body as Launch), by: "Nessa Quill" });
      return { done: true };
    },
    setVehicle: () => ({ done: true }),
    setRamp: ({ params, body }) => {
      now.ramps.push({ ...(body as typeof north), id: params.ramp! });
      return { done: true };
    },
  });
  showScreen([{ path: "/boats/:boat/ramp", element: <RampScreen /> }], "/boats/w1/ramp", role);
  return { asked, user: userEvent.setup() };
}
const heading = () => screen.findByRole("heading", { level: 1 });

describe("the ramp", () => {
  it("says how deep to back in, as the contract reckons it, and draws it in words too", async () => {
    open();
    const { ask } = askRamp(rig, car, 13);
    const { fenderUnderM } = ramp(ask);
    const says = `${Math.round(Math.abs(fenderUnderM) * 100)} cm`;
    expect((await heading()).textContent).toContain(says);
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain(says);
    expect(screen.queryByText(/Assumed/)).toBeNull();
    expect(screen.getByText(/Driving on is forbidden here/)).toBeTruthy();
  });

  it("that is too flat for the car says so, and which would do", async () => {
    open();
    await heading();
    fireEvent.change(screen.getByLabelText("Grade"), { target: { value: "6" } });
    expect((await heading()).textContent).toMatch(/^▲ Too flat for this car: its rear wheels would stand \d+ cm deep/);
    const { minGradePct } = ramp(askRamp(rig, car, 6).ask);
    expect(screen.getByText(new RegExp(`at least ${minGradePct} %`))).toBeTruthy();
  });

  it("water above or below normal moves the edge, never the mark", async () => {
    open();
    const before = (await heading()).textContent;
    fireEvent.change(screen.getByLabelText("Water against normal"), { target: { value: "-0.8" } });
    expect((await heading()).textContent).toBe(before);
  });

  it("is learned from the first launch: what was seen moves the mark", async () => {
    const { user, asked } = open();
    const before = (await heading()).textContent;
    expect(screen.getByText("Not launched yet:")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "It was somewhere else" }));
    await user.type(screen.getByLabelText(/^Top of the fender when/), "14");
    await user.click(screen.getByRole("button", { name: "Save" }));
    await screen.findByText(/Learned from one launch/);
    const { body } = asked.find(({ name }) => name === "addLaunch")!;
    expect(body).toMatchObject({ ramp: "North ramp", fenderUnderM: 0.14 });
    expect((await heading()).textContent).not.toBe(before);
    const { ask } = askRamp(rig, car, 13);
    const fitted = withFitted(ask, fitLaunches(ask, [{ ...(body as Launch), by: "x" }]));
    expect((await heading()).textContent).toContain(`${Math.round(ramp(fitted).fenderUnderM * 100)} cm`);
  });

  it("says which figures nobody has measured", async () => {
    open({ vehicle: null, launches: [], ramps: [], rules: [], ownRules: [] });
    expect((await screen.findByText(/^Assumed, for nobody/)).textContent).toContain("how deep the car may wade");
  });

  it("that is new is measured by rise and run; what is no ramp is refused in words", async () => {
    const { user, asked } = open();
    await user.click(await screen.findByRole("button", { name: "New ramp" }));
    const form = within(screen.getByRole("region", { name: "New ramp" }));
    await user.type(form.getByLabelText("Name"), "Sallow Creek");
    await user.type(form.getByLabelText(/^Run/), "2");
    await user.type(form.getByLabelText(/^Rise/), "150");
    expect(form.getByRole("alert").textContent).toContain("75.0 % is no boat ramp");
    expect(form.getByRole<HTMLButtonElement>("button", { name: "Save" }).disabled).toBe(true);
    await user.clear(form.getByLabelText(/^Rise/));
    await user.type(form.getByLabelText(/^Rise/), "20");
    await user.click(form.getByRole("button", { name: "Save" }));
    await waitFor(() =>
      expect(screen.getByLabelText<HTMLSelectElement>("Ramp").selectedOptions[0]!.text).toBe("Sallow Creek"),
    );
    expect(asked.find(({ name }) => name === "setRamp")!.body).toMatchObject({ riseM: 0.2, runM: 2 });
    expect(screen.getByText("10 %")).toBeTruthy();
  });

  it("of a boat without a trailer is none", async () => {
    open(undefined, { rig: { ...rig, trailer: null } as Boat["rig"] });
    expect(await screen.findByText(/has no trailer on its boat sheet/)).toBeTruthy();
  });
});
