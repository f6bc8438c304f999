// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode, useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { breakInPacks, rigTemplates, servicePacks } from "../../../content/index.ts";
import { createPart, type PartKind, type Rig, rigSchema } from "../../../core/rig/index.ts";
import { queryClient } from "../../app/queries.ts";
import { BoatSection } from "./BoatSection.tsx";
import { BreakersSection } from "./BreakersSection.tsx";
import { EnginesSection } from "./EnginesSection.tsx";
import { GearSection } from "./GearSection.tsx";
import { PanelSection } from "./PanelSection.tsx";
import { PlacesSection } from "./PlacesSection.tsx";
import { PowerSection } from "./PowerSection.tsx";
import type { SectionProps } from "./section.ts";
import { TanksSection } from "./TanksSection.tsx";
import { TrailerSection } from "./TrailerSection.tsx";

afterEach(cleanup);
const user = userEvent.setup();
const start = rigTemplates["sedge-18"];
const packs = { breakInPacks: [...breakInPacks], servicePacks: [...servicePacks] };

interface StageProps {
  readonly from: Rig;
  readonly openAt: string | null;
  readonly show: (props: SectionProps) => ReactNode;
  readonly onRig: (rig: Rig) => void;
}

function Stage({ from, openAt, show, onRig }: StageProps) {
  const [rig, setRig] = useState(from);
  const [open, setOpen] = useState(openAt);
  onRig(rig);
  return show({ rig, open, onOpen: setOpen, edit: (change) => setRig((before) => change(before)) });
}

/** A section with a rig that changes as on the sheet; what it has become, always a valid rig. */
function stage(show: StageProps["show"], from: Rig = start, openAt: string | null = null) {
  let now = from;
  const note = (rig: Rig) => {
    now = rig;
  };
  render(
    <QueryClientProvider client={queryClient}>
      <Stage from={from} openAt={openAt} show={show} onRig={note} />
    </QueryClientProvider>,
  );
  return (): Rig => {
    expect(rigSchema.safeParse(now).error?.issues ?? []).toEqual([]);
    return now;
  };
}
const fill = async (label: string, value: string) => {
  await user.clear(screen.getByLabelText(label));
  await user.type(screen.getByLabelText(label), value);
};

describe("the boat", () => {
  it("keeps everything in place when its length is corrected, and takes weights when they are known", async () => {
    const { weights: _, ...bare } = start;
    const rig = stage(
      (props) => <BoatSection {...props} name="Sedge" hull="UMA18001C626" onRename={() => {}} onRenumber={() => {}} />,
      bare as Rig,
    );
    expect(screen.getByText(/Built March 2026, model year 2026/)).toBeDefined();
    await fill("Length overall", "6");
    const share = 6 / start.loaM;
    expect(rig().parts[0]!.at.xM).toBeCloseTo(start.parts[0]!.at.xM * share, 1);
    expect(rig().weights).toBeUndefined();
    await fill("Dry hull", "640");
    expect(rig().weights).toEqual({ dryKg: 640 });
    await user.selectOptions(screen.getByLabelText("Kind of boat"), "pontoon");
    await user.selectOptions(screen.getByLabelText("Tubes"), "3");
    expect(rig()).toMatchObject({ family: "pontoon", tubes: 3 });
  });

  it("that others had keeps what they changed, a line each, and is new again at a touch", async () => {
    const rig = stage((props) => (
      <BoatSection {...props} name="Sedge" hull="UMA18001C626" onRename={() => {}} onRenumber={() => {}} />
    ));
    expect(screen.queryByLabelText("What others changed on it")).toBeNull();
    await user.click(screen.getByRole("checkbox", { name: /^Used boat/ }));
    expect(rig().used).toEqual({ changes: [] });
    await user.type(
      screen.getByLabelText("What others changed on it"),
      "Second battery{Enter}{Enter}Wires behind the dash",
    );
    expect(rig().used).toEqual({ changes: ["Second battery", "Wires behind the dash"] });
    await user.click(screen.getByRole("checkbox", { name: /^Used boat/ }));
    expect("used" in rig()).toBe(false);
  });

  it("doubts an odd hull number without refusing it", () => {
    const renumber = vi.fn();
    stage((props) => <BoatSection {...props} name="S" hull="UMA18001Z626" onRename={() => {}} onRenumber={renumber} />);
    expect(screen.getByText(/stands for no month/)).toBeDefined();
  });
});

describe("places", () => {
  const places = (armed: PartKind | null, onArm = vi.fn(), onPut = vi.fn()) => ({
    onArm,
    onPut,
    show: (props: SectionProps) => <PlacesSection {...props} armed={armed} onArm={onArm} onPut={onPut} />,
  });

  it("arms a kind, and puts it down without a pointer too", async () => {
    const first = places(null);
    stage(first.show);
    await user.click(screen.getByRole("button", { name: "Wiper" }));
    expect(first.onArm).toHaveBeenCalledWith("wiper");
    cleanup();
    const second = places("wiper");
    stage(second.show);
    expect(screen.getByText(/touch the plan where it is/)).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Put it in the middle" }));
    expect(second.onPut).toHaveBeenCalledWith({ xM: Math.round(start.loaM * 50) / 100, yM: 0 });
    await user.click(screen.getByRole("button", { name: "Not now" }));
    expect(second.onArm).toHaveBeenCalledWith(null);
  });

  it("a thing is named, reached, opened and filled; an optional fact is taken away again", async () => {
    const part = start.parts.find(({ kind }) => kind === "hatch")!;
    const rig = stage(places(null).show, start, part.id);
    const now = () => rig().parts.find(({ id }) => id === part.id)!;
    await fill("How to reach it", "Lift by the strap");
    await user.selectOptions(screen.getByLabelText("Opens"), "lift-out");
    await fill("What is in it", "two fenders, , spare line ");
    expect(now()).toMatchObject({
      reach: "Lift by the strap",
      opens: "lift-out",
      holds: ["two fenders", "spare line"],
    });
    await user.clear(screen.getByLabelText("How to reach it"));
    await user.clear(screen.getByLabelText("What is in it"));
    await user.selectOptions(screen.getByLabelText("Opens"), "");
    expect(Object.keys(now())).not.toEqual(expect.arrayContaining(["reach"]));
    expect([now().reach, now().opens, now().holds]).toEqual([undefined, undefined, undefined]);
    await user.click(screen.getByRole("button", { name: "Take it off the plan" }));
    expect(rig().parts.some(({ id }) => id === part.id)).toBe(false);
  });

  it("a live well is whole in one form: its pump, switch and breaker at a touch, its valve picked", async () => {
    const well = { ...createPart(start, "livewell", { xM: 4, yM: 0 }), id: "bow-well", label: "Bow well" };
    const bare = {
      ...start,
      parts: [...start.parts, well],
      loads: start.loads.map((load) => ({ ...load, serves: [] })),
    };
    const rig = stage(places(null).show, bare, "bow-well");
    await user.click(screen.getByRole("button", { name: "Add its pump, switch and breaker" }));
    expect(rig().loads.at(-1)).toMatchObject({ label: "Bow well pump", serves: ["livewell"], parts: ["bow-well"] });
    expect(rig().panel.at(-1)!.label).toBe("Bow well");
    expect(rig().breakers.at(-1)!.feeds).toEqual(["bow-well-pump"]);
    expect(screen.queryByRole("button", { name: /^Add its/ })).toBeNull();
    await user.selectOptions(screen.getByLabelText("Breaker or fuse"), start.breakers[0]!.id);
    expect(rig().breakers[0]!.feeds).toContain("bow-well-pump");
    await user.selectOptions(screen.getByLabelText("Valve its water comes through"), start.throughHulls[0]!.part);
    expect(rig().throughHulls[0]!.parts).toEqual(["bow-well"]);
    await user.selectOptions(screen.getByLabelText("Pump"), start.loads[0]!.id);
    expect(rig().loads[0]).toMatchObject({ serves: ["livewell"], parts: ["bow-well"] });
  });

  it("a place to stand goes when its things are told elsewhere", async () => {
    const station = start.stations.find(({ id }) => start.parts.some((part) => part.station === id))!;
    const rig = stage(places(null).show, start, station.id);
    await user.click(screen.getByRole("button", { name: `Remove ${station.label}` }));
    expect(rig().stations).toHaveLength(start.stations.length);
    await user.click(screen.getByRole("button", { name: /Tell them at the nearest other place/ }));
    expect(rig().stations).toHaveLength(start.stations.length - 1);
    await user.click(screen.getByRole("button", { name: "Add a place to stand" }));
    expect(rig().stations.at(-1)).toMatchObject({ label: "New place", level: "aboard" });
  });
});

describe("breakers", () => {
  it("are added at a place, fed with what is new, and never without a place", async () => {
    const rig = stage((props) => <BreakersSection {...props} />);
    await user.click(screen.getByRole("button", { name: "Add a breaker or fuse" }));
    await fill("Printed label", "FRIDGE");
    await fill("Rating", "7,5");
    await user.selectOptions(screen.getByLabelText("How it resets"), "lever");
    await user.type(screen.getByRole("combobox", { name: "Feeds" }), "Fridge");
    await user.click(screen.getByRole("option", { name: "Add “Fridge”" }));
    const breaker = rig().breakers.at(-1)!;
    expect(breaker).toMatchObject({ label: "FRIDGE", ratingA: 7.5, resets: "lever" });
    expect(rig().loads.find(({ id }) => id === breaker.feeds[0])).toMatchObject({ label: "Fridge", always: false });
    cleanup();
    stage((props) => <BreakersSection {...props} />, {
      ...start,
      parts: [],
      breakers: [],
      batteries: [],
      powerSwitches: [],
      throughHulls: [],
      tanks: [],
    });
    expect(screen.getByText(/Put a breaker panel or a fuse block on the plan first/)).toBeDefined();
  });
});

describe("engines", () => {
  it("are described with their band and packs; the last one stays", async () => {
    const rig = stage((props) => <EnginesSection {...props} packs={packs} />, start, start.engines[0]!.id);
    await fill("Rated from", "4500");
    await user.selectOptions(screen.getByLabelText("Break-in"), "vary-10");
    await user.selectOptions(screen.getByLabelText("Started by"), "pull");
    expect(rig().engines[0]).toMatchObject({ ratedRpm: { from: 4500 }, breakInPack: "vary-10", start: "pull" });
    await user.click(screen.getByRole("button", { name: "Add an engine" }));
    expect(rig().engines).toHaveLength(start.engines.length + 1);
    expect(new Set(rig().engines.map(({ id }) => id)).size).toBe(rig().engines.length);
    cleanup();
    const one = { ...start, engines: [{ ...start.engines[0]!, breakInPack: "gone" }] };
    stage((props) => <EnginesSection {...props} packs={packs} />, one, one.engines[0]!.id);
    expect(screen.queryByRole("button", { name: /^Remove/ })).toBeNull();
    expect(screen.getByRole("option", { name: "none picked yet" })).toBeDefined();
  });
});

describe("tanks and through-hulls", () => {
  it("a tank gets its fill, a valve on the plan is named", async () => {
    const bare = { ...start, tanks: [], throughHulls: [] };
    const rig = stage((props) => <TanksSection {...props} />, bare);
    await user.click(screen.getByRole("button", { name: "Add a tank" }));
    await fill("Holds up to", "95");
    const fillPart = start.parts.find(({ kind }) => kind === "fill")!;
    await user.selectOptions(screen.getByLabelText("Filled or emptied at"), fillPart.id);
    expect(rig().tanks).toEqual([{ id: "fuel", kind: "petrol", label: "Fuel", litres: 95, fill: fillPart.id }]);
    await user.selectOptions(screen.getByLabelText("Filled or emptied at"), "");
    expect(rig().tanks[0]!.fill).toBeUndefined();
    await user.click(screen.getByRole("button", { name: "Add a tank" }));
    expect(rig().tanks[1]!.kind).toBe("fresh-water");
    const [name] = screen.getAllByRole("button", { name: /^Name what/ });
    await user.click(name!);
    await fill("Serves", "Live well");
    expect(rig().throughHulls[0]!.serves).toBe("Live well");
  });
});

describe("gear and trailer", () => {
  it("gear is counted with its group, and must be there or not", async () => {
    const rig = stage((props) => <GearSection {...props} />);
    await user.click(screen.getByRole("button", { name: "Add loose gear" }));
    await fill("What", "Lock-nut key");
    await fill("How many", "2");
    await user.selectOptions(screen.getByLabelText("Counted with"), "trailer");
    await user.click(screen.getByRole("checkbox", { name: /Must be there/ }));
    expect(rig().gear.at(-1)).toMatchObject({ label: "Lock-nut key", count: 2, group: "trailer", must: true });
    await user.click(screen.getByRole("button", { name: "Remove Lock-nut key" }));
    expect(rig().gear).toEqual(start.gear);
  });

  it("a number read wrong from a plate is taken away again", async () => {
    const rig = stage(({ rig: now, edit }) => <TrailerSection rig={now} edit={edit} />);
    await fill("Nose weight as it stands", "88 kg");
    expect(rig().trailer!.tongueKg).toBe(88);
    await user.clear(screen.getByLabelText("Nose weight as it stands"));
    expect("tongueKg" in rig().trailer!).toBe(false);
    await user.selectOptions(screen.getByLabelText("Brakes"), "surge");
    await user.selectOptions(screen.getByLabelText("Backing up with surge brakes"), "pin");
    expect(rig().trailer).toMatchObject({ brakes: "surge", lockOut: "pin" });
  });
});

describe("power and panel", () => {
  it("the wiring follows the scheme until a wire is changed, and can go back", async () => {
    const rig = stage((props) => <PowerSection by="Nessa Quill" {...props} />);
    await user.click(screen.getByRole("checkbox", { name: /^Looked at on this boat/ }));
    expect(rig().wiringChecked).toMatchObject({ by: "Nessa Quill" });
    expect(rig().wiring).toBeUndefined();
    const table = screen.getByRole("list", { name: "Wiring" });
    const [first] = within(table).getAllByRole("button");
    await user.click(first!);
    await user.selectOptions(screen.getByLabelText("Through a"), "fuse");
    expect(rig().wiring![0]!.kind).toBe("fuse");
    expect(screen.getByText(/changed by hand/)).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Add a link" }));
    expect(rig().wiring!.at(-1)!.id).toMatch(/^by-hand/);
    await user.click(screen.getByRole("button", { name: "Back to what the scheme gives" }));
    expect(rig().wiring).toBeUndefined();
  });

  it("a battery has capacity, kind and use; a position says what it does", async () => {
    const rig = stage((props) => <PowerSection by="Nessa Quill" {...props} />, start, start.batteries[0]!.id);
    await fill("Capacity, 20-hour rating", "120");
    await user.selectOptions(screen.getByLabelText("Use"), "house");
    expect(rig().batteries[0]).toMatchObject({ capacityAh: 120, use: "house" });
    await user.selectOptions(screen.getByLabelText("Bow motor batteries"), "3");
    expect(rig().batteries.filter(({ use }) => use === "bow-motor")).toHaveLength(3);
    await user.click(screen.getByRole("checkbox", { name: "Shore charger aboard" }));
    const had = start.parts.some(({ kind }) => kind === "charger");
    expect(rig().parts.some(({ kind }) => kind === "charger")).toBe(!had);
  });

  it("a switch without anything behind it is said to be so", async () => {
    const rig = stage((props) => <PanelSection {...props} />);
    await user.click(screen.getByRole("button", { name: "Add a switch" }));
    expect(screen.getByText(/Nothing behind it/)).toBeDefined();
    await user.click(screen.getByRole("combobox", { name: "“On” powers" }));
    await user.click(screen.getByRole("option", { name: start.loads[0]!.label }));
    expect(rig().panel.at(-1)!.positions[0]!.powers).toEqual([start.loads[0]!.id]);
    expect(screen.queryByText(/Nothing behind it/)).toBeNull();
  });

  it("what uses power is found by the own name of a thing, and by its kind", async () => {
    const well = { ...createPart(start, "livewell", { xM: 4, yM: 0 }), id: "bow-well", label: "Bow well" };
    const load = start.loads[0]!;
    const rig = stage((props) => <PanelSection {...props} />, { ...start, parts: [...start.parts, well] }, load.id);
    await user.click(screen.getByLabelText("Runs"));
    await user.type(screen.getByLabelText("Runs"), "bow w");
    await user.click(screen.getByRole("option", { name: "Bow well" }));
    expect(rig().loads[0]).toMatchObject({ serves: expect.arrayContaining(["livewell"]), parts: ["bow-well"] });
  });

  it("what uses power says what it draws, from where, and whether it is always live", async () => {
    const load = start.loads[0]!;
    const rig = stage((props) => <PanelSection {...props} />, start, load.id);
    await fill("Draws", "2.4");
    await user.click(screen.getByRole("checkbox", { name: /Live with every switch off/ }));
    await user.selectOptions(screen.getByLabelText("Fed from"), start.batteries[0]!.id);
    expect(rig().loads[0]).toMatchObject({ amps: 2.4, always: !load.always, from: start.batteries[0]!.id });
    await user.selectOptions(screen.getByLabelText("Fed from"), "");
    expect(rig().loads[0]!.from).toBeUndefined();
    await user.click(screen.getByRole("button", { name: `Remove ${load.label}` }));
    expect(rig().loads.some(({ id }) => id === load.id)).toBe(false);
  });
});
