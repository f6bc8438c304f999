// @vitest-environment jsdom

import { act, cleanup, fireEvent, render, renderHook, screen } from "@testing-library/react";
import { regions } from "../../../core/region/index.ts";
import "../../testing/fileText.ts";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { RigSheet } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import {
  changeItem,
  checkRig,
  compareRigs,
  confirmUsual,
  type Finding,
  putUsual,
  type Rig,
} from "../../../core/rig/index.ts";
import { PlacePlan } from "../../plan/PlacePlan.tsx";
import { Differences } from "./Differences.tsx";
import { LeftToDo } from "./LeftToDo.tsx";
import { PanelSection } from "./PanelSection.tsx";
import { PowerSection } from "./PowerSection.tsx";
import { RigFile } from "./RigFile.tsx";
import { TrailerSection } from "./TrailerSection.tsx";
import { useRigDraft } from "./useRigDraft.ts";

const rig = rigTemplates["sedge-18"];
const sheet: RigSheet = {
  boat: "s1",
  name: "Sedge",
  hull: "SLW30001A626",
  version: 3,
  rig,
  template: null,
  breakInPacks: [],
  servicePacks: [],
};
beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe("useRigDraft", () => {
  const open = (of = sheet) => renderHook(() => useRigDraft(of)).result;
  const rename = (label: string) => (now: Rig) => changeItem(now, "parts", rig.parts[0]!.id, { label });

  it("takes each change back, and knows when it is as it was saved", () => {
    const draft = open();
    expect([draft.current.isChanged, draft.current.canUndo]).toEqual([false, false]);
    act(() => draft.current.edit(rename("One")));
    act(() => draft.current.rename("Other"));
    expect(draft.current).toMatchObject({ name: "Other", isChanged: true });
    act(() => draft.current.undo());
    expect(draft.current).toMatchObject({ name: "Sedge", isChanged: true });
    act(() => draft.current.undo());
    expect(draft.current).toMatchObject({ isChanged: false, canUndo: false });
    act(() => draft.current.edit((now) => now));
    expect(draft.current.canUndo).toBe(false);
  });

  it("outlives a reload unsaved, but not a save by somebody else", () => {
    const first = open();
    act(() => first.current.edit(rename("Kept")));
    expect(open().current.rig.parts[0]!.label).toBe("Kept");
    expect(open({ ...sheet, version: 4 }).current.rig.parts[0]!.label).toBe(rig.parts[0]!.label);
    localStorage.setItem("ravik-rig-s1", "{broken");
    expect(open().current.isChanged).toBe(false);
  });

  it("keeps what was typed while a save was on its way", () => {
    const draft = open();
    act(() => draft.current.edit(rename("Sent")));
    const { name, hull, rig: sent } = draft.current;
    act(() => draft.current.edit(rename("Typed after")));
    act(() => draft.current.markSaved(4, { name, hull, rig: sent }));
    expect(draft.current).toMatchObject({ isChanged: true, version: 4 });
    expect(draft.current.rig.parts[0]!.label).toBe("Typed after");
    act(() => draft.current.markSaved(5, { name, hull, rig: draft.current.rig }));
    expect(draft.current.isChanged).toBe(false);
    expect(localStorage.getItem("ravik-rig-s1")).toBeNull();
  });
});

describe("PlacePlan", () => {
  it("has every thing reachable by Tab and movable by the arrow keys", async () => {
    const [move, pick] = [vi.fn(), vi.fn()];
    render(<PlacePlan rig={rig} picked={null} armed={null} onPick={pick} onPut={() => {}} onMove={move} />);
    const part = rig.parts[0]!;
    const handle = screen.getByRole("button", { name: part.label });
    handle.focus();
    expect(pick).toHaveBeenLastCalledWith(part.id);
    await userEvent.keyboard("{ArrowUp}");
    expect(move).toHaveBeenLastCalledWith(part.id, { xM: Math.round((part.at.xM + 0.05) * 100) / 100, yM: part.at.yM });
    await userEvent.keyboard("{Shift>}{ArrowLeft}{/Shift}");
    expect(move.mock.lastCall![1].yM).toBeCloseTo(part.at.yM - 0.25, 9);
    fireEvent.keyDown(handle, { key: "Escape" });
    expect(pick).toHaveBeenLastCalledWith(null);
  });
});

function UsualSheet({ from, find }: { from: Rig; find: (rig: Rig) => Finding[] }) {
  const [now, setNow] = useState(from);
  return (
    <LeftToDo
      findings={find(now)}
      onMend={vi.fn()}
      onPutUsual={(kinds) => setNow((before) => putUsual(before, kinds))}
      onConfirmUsual={() => setNow(confirmUsual)}
    />
  );
}

describe("what is left to do", () => {
  const aids = {
    breakInPacks: new Set(["stepped-10"]),
    servicePacks: new Set<string>(),
    isWithinHull: () => true,
    unreachable: () => [],
    idiom: regions.us,
  };
  it("is said section by section and goes where it is mended", async () => {
    const mend = vi.fn();
    const bare = { ...rig, parts: rig.parts.filter(({ kind }) => kind !== "horn") };
    const findings = checkRig(bare, aids);
    render(<LeftToDo findings={findings} onMend={mend} onPutUsual={vi.fn()} onConfirmUsual={vi.fn()} />);
    await userEvent.click(screen.getByRole("button", { name: /Where is the horn.*Put it on the plan/ }));
    expect(mend).toHaveBeenCalledWith(expect.objectContaining({ kind: "no-horn", place: "horn" }));
    expect(screen.getAllByRole("button")).toHaveLength(findings.length);
  });

  it("puts all that is missing where such boats have it, and asks whether somebody has looked", async () => {
    const bare = { ...rig, parts: rig.parts.filter(({ kind }) => kind !== "horn" && kind !== "jackets") };
    render(<UsualSheet from={bare} find={(now) => checkRig(now, aids)} />);
    await userEvent.click(screen.getByRole("button", { name: "Put all 2 where such boats have them" }));
    expect(screen.queryByText(/Where is the horn/)).toBeNull();
    expect(screen.getByText(/2 things stand where such boats usually have them/)).toBeDefined();
    await userEvent.click(screen.getByRole("button", { name: "I looked: all stand right" }));
    expect(screen.queryByText(/usually have them/)).toBeNull();
  });

  it("says so when nothing is", () => {
    render(<LeftToDo findings={[]} onMend={vi.fn()} onPutUsual={vi.fn()} onConfirmUsual={vi.fn()} />);
    expect(screen.getByText(/Nothing is left to do/)).toBeDefined();
  });
});

describe("the sections", () => {
  const show = (Section: typeof PanelSection, of: Rig, open: string | null = null) => {
    const edit = vi.fn();
    render(<Section rig={of} edit={edit} open={open} onOpen={() => {}} />);
    return (): Rig => edit.mock.lastCall![0](of);
  };

  it("a switch changes its kind with its positions, and keeps what they power", async () => {
    const item = rig.panel.find(({ kind, positions }) => kind === "three-position" && positions[2]!.powers.length > 0)!;
    const changed = show(PanelSection, rig, item.id);
    await userEvent.selectOptions(screen.getByLabelText("Kind"), "two-position");
    const next = changed().panel.find(({ id }) => id === item.id)!;
    expect(next.positions).toHaveLength(2);
    expect(next.positions[0]!.powers).toEqual(item.positions[0]!.powers);
    await userEvent.click(screen.getByRole("checkbox", { name: "No label on it" }));
    expect(changed().panel.find(({ id }) => id === item.id)!.label).toBeNull();
  });

  it("a switch moves up and down by button, in physical order", async () => {
    const second = rig.panel[1]!;
    const changed = show(PanelSection, rig, second.id);
    await userEvent.click(screen.getByRole("button", { name: /^Move 2 .* up$/ }));
    expect(changed().panel[0]!.id).toBe(second.id);
  });

  it("a selector scheme brings its batteries and switches", async () => {
    const changed = show((props) => <PowerSection {...props} by="Nessa Quill" />, rig);
    await userEvent.selectOptions(screen.getByLabelText("Selector scheme"), "one-two-both");
    expect(changed().powerSwitches[0]!.positions.map(({ label }) => label)).toEqual(["Off", "1", "2", "Both"]);
  });

  it("a trailer comes with places to be told at and goes with them", async () => {
    const onKeel: Rig = { ...rig, trailer: null, stations: rig.stations.filter(({ kind }) => kind !== "coupler") };
    const edit = vi.fn();
    const { rerender } = render(<TrailerSection rig={onKeel} edit={edit} />);
    await userEvent.click(screen.getByRole("button", { name: "It has a trailer" }));
    const towed: Rig = edit.mock.lastCall![0](onKeel);
    expect(towed.stations.map(({ kind }) => kind)).toContain("coupler");
    expect(towed.trailer).not.toBeNull();
    rerender(<TrailerSection rig={towed} edit={edit} />);
    await userEvent.click(screen.getByRole("button", { name: "Sold without a trailer" }));
    expect(edit.mock.lastCall![0](towed).trailer).toBeNull();
  });
});

describe("the file of a rig", () => {
  const give = (text: string) =>
    userEvent.upload(
      screen.getByLabelText("Read a rig from a file"),
      new File([text], "a.json", { type: "application/json" }),
    );

  it("is read when it is whole, and refused line by line when it is not", async () => {
    const read = vi.fn();
    render(<RigFile rig={rig} name="Sedge" onRead={read} />);
    await give(JSON.stringify(rig));
    await vi.waitFor(() => expect(read).toHaveBeenCalledWith(rig));
    await give(JSON.stringify({ ...rig, loaM: 99 }));
    expect((await screen.findByRole("alert")).textContent).toContain("loaM");
    await give("no json");
    expect((await screen.findByText("The file is not JSON.")).textContent).toBeTruthy();
    expect(read).toHaveBeenCalledTimes(1);
  });
});

it("differences are said with their facts, and lead to their section", async () => {
  const boat = changeItem(rig, "engines", rig.engines[0]!.id, { powerKw: 99 });
  const go = vi.fn();
  render(<Differences template="Sedge 18" differences={compareRigs(rig, boat, "metric")} onGo={go} />);
  expect(screen.getByText("power: 67 kW, here 99 kW")).toBeDefined();
  await userEvent.click(screen.getByRole("button", { name: "Engines" }));
  expect(go).toHaveBeenCalledWith("engines");
});
