// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Boat } from "../../../api/index.ts";
import { rigTemplates, towRules } from "../../../content/index.ts";
import type { Vehicle } from "../../../core/tow/index.ts";
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
    towing: () => ({ vehicle, launches: [], ramps: [], rules: [...towRules] }),
  });
  showScreen([{ path: "/boats/:boat/tow", element: <TowScreen /> }], "/boats/w1/tow", "sales");
  expect((await screen.findByRole("heading", { level: 1 })).textContent).toMatch(
    /^▲ Not with Estate: ball and coupler/,
  );
  const bars = within(screen.getByRole("list", { name: "Limits, the weakest first" }));
  expect(bars.getAllByRole("listitem")[0]!.textContent).toContain("stop, it comes off");
  expect(within(screen.getByRole("region", { name: "Not read yet" })).getByText("Hitch receiver")).toBeTruthy();
});
