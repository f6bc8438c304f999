// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Delivery } from "../../../api/index.ts";
import { makeReady } from "../../../content/index.ts";
import { listMeasures } from "../../../core/measure/index.ts";
import { listReadyChecks } from "../../../core/ready/index.ts";
import { listObstacles, listOwed } from "../../../core/walk/index.ts";
import { meQuery, queryClient } from "../../app/queries.ts";
import { HoursRead } from "../../handover/HoursRead.tsx";
import { StartGate } from "../../handover/StartGate.tsx";
import { MeasureList } from "../../measure/MeasureList.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { OwedList } from "../../owed/OwedList.tsx";
import { createDelivery, kindsOf, on, rig, setUpTablet } from "../../testing/handoverStage.tsx";
import { makeMe } from "../../testing/makeMe.ts";
import { BeforeParting } from "./BeforeParting.tsx";
import { Closing } from "./CloseScreen.tsx";
import { SignPads } from "./SignPads.tsx";
import { useSitting } from "./useSitting.ts";

function Signing({ delivery }: { delivery: Delivery }) {
  const sitting = useSitting(delivery);
  return <SignPads delivery={delivery} sitting={sitting} />;
}

setUpTablet();

describe("readings", () => {
  it("are judged as they are entered; a slip of the finger is not taken", async () => {
    const delivery = createDelivery();
    on(delivery, (state) => (
      <MeasureList
        rig={rig}
        state={state}
        kinds={["tyre", "battery", "oil"]}
        onAdd={(entry) => void syncQueue.add(delivery.id, entry)}
      />
    ));
    const user = userEvent.setup();
    const tyre = screen.getByLabelText(/^Tyre, port front/);
    await user.type(tyre, "4500");
    expect(screen.getByRole("alert").textContent).toContain("From 20 kPa to 1000 kPa");
    await user.clear(tyre);
    await user.type(tyre, "44 psi{Enter}");
    expect(screen.getByText(/21 psi under the plate's 65 psi/)).toBeDefined();
    await user.click(screen.getAllByLabelText(/just off charge/)[0]!);
    await user.type(screen.getByLabelText("Port engine battery"), "13,4{Enter}");
    expect(screen.getByText(/Just off charge it reads high/)).toBeDefined();
    const oil = within(screen.getByRole("group", { name: "Oil, port engine" }));
    await user.click(oil.getByRole("button", { name: "below the band" }));
    expect(screen.getByText(/top up with what the engine's manual names/)).toBeDefined();
    expect(syncQueue.listOf(delivery.id)).toMatchObject([
      { item: "tyre-port-1", value: expect.closeTo(303.37, 2), typed: { value: 44, unit: "psi" } },
      { item: "battery-port", value: 13.4, isJustCharged: true },
      { item: "oil-port", value: 0 },
    ]);
  });
});

describe("the gate before the walk", () => {
  const start = (role: "owner" | "delivery") => {
    queryClient.setQueryData(meQuery.queryKey, makeMe({ role }));
    const delivery = { ...createDelivery(), makeReady: listReadyChecks(rig, makeReady) };
    on(delivery, (state) => <StartGate delivery={delivery} state={state} />);
    return { delivery, user: userEvent.setup() };
  };
  afterEach(() => {
    queryClient.setQueryData(meQuery.queryKey, makeMe());
  });

  it("says what is open, and that only the owner may let it pass", () => {
    const { delivery } = start("delivery");
    expect(
      screen.getByText(new RegExp(`${delivery.makeReady.length} of ${delivery.makeReady.length} open`)),
    ).toBeDefined();
    expect(screen.queryByRole("button", { name: "Allow the start" })).toBeNull();
  });

  it("opens when the owner says why, and the reason is kept", async () => {
    const { delivery, user } = start("owner");
    await user.click(screen.getByRole("button", { name: "Allow the start" }));
    expect(screen.getByRole("heading", { name: "Not ready to be walked" })).toBeDefined();
    await user.type(screen.getByLabelText("Why it may start anyway"), "They came 300 km{Enter}");
    expect(screen.queryByRole("heading", { name: "Not ready to be walked" })).toBeNull();
    expect(syncQueue.listOf(delivery.id)).toMatchObject([{ kind: "allow", reason: "They came 300 km" }]);
  });
});

describe("closing", () => {
  /** How a part stands, as the line of all parts says it. */
  const stands = (part: string) =>
    screen.getByRole("link", { name: new RegExp(`^${part}`) }).getAttribute("aria-label");

  it("says of each part how it stands, in the order of closing; what is done is folded and opens from the line", async () => {
    const delivery = createDelivery();
    for (const { id, count } of rig.gear) await syncQueue.add(delivery.id, { kind: "gear", item: id, count });
    on(delivery, () => <Closing delivery={delivery} />);
    const user = userEvent.setup();
    const line = within(screen.getByRole("navigation", { name: "Parts of closing" }));
    const musts = delivery.topics.filter(({ must }) => must).length;
    expect(line.getAllByRole("link").map((link) => link.getAttribute("aria-label"))).toEqual([
      `What is open: ${musts} must-do open`,
      "Readings: none taken",
      "Gear handed over: all there",
      "Engine hours, read together: 2 engines not read",
      "What is owed: nothing",
      "Signatures: 3 missing",
    ]);
    const gear = document.getElementById("gear") as HTMLDetailsElement;
    expect([gear.open, (document.getElementById("sign") as HTMLDetailsElement).open]).toEqual([false, true]);
    await user.click(line.getByRole("link", { name: /^Gear/ }));
    expect(gear.open).toBe(true);
    expect(document.activeElement?.textContent).toContain("Gear handed over");
  });

  it("counts gear one by one and all the rest at once; what is short is said", async () => {
    const delivery = createDelivery();
    on(delivery, () => <Closing delivery={delivery} />);
    const user = userEvent.setup();
    const keys = rig.gear.find(({ count }) => count >= 2)!;
    await user.click(screen.getByRole("button", { name: `One less: ${keys.label}` }));
    expect(screen.getByText("▲ 1 short")).toBeDefined();
    expect(stands("Gear")).toBe(`Gear handed over: 1 of ${rig.gear.length} counted`);
    await user.click(screen.getByRole("button", { name: `The other ${rig.gear.length - 1} are all there` }));
    expect(stands("Gear")).toBe("Gear handed over: 1 short");
    await user.click(screen.getByRole("button", { name: `One more: ${keys.label}` }));
    expect(screen.queryByText("▲ 1 short")).toBeNull();
    expect(stands("Gear")).toBe("Gear handed over: all there");
    // More than is listed is asked about before it is written down.
    const countOf = () => syncQueue.listOf(delivery.id).findLast((entry) => entry.kind === "gear");
    await user.click(screen.getByRole("button", { name: `One more: ${keys.label}` }));
    expect(screen.getByRole("alert").textContent).toContain(
      `The list says ${keys.count}. Were ${keys.count + 1} handed over?`,
    );
    expect(countOf()).toMatchObject({ count: keys.count });
    await user.click(screen.getByRole("button", { name: "No" }));
    await user.click(screen.getByRole("button", { name: `One more: ${keys.label}` }));
    await user.click(screen.getByRole("button", { name: `Yes, ${keys.count + 1}` }));
    expect(countOf()).toMatchObject({ item: keys.id, count: keys.count + 1 });
  });

  it("keeps a must that is not aboard in the list with its reason, and a battery that is flat", async () => {
    const delivery = createDelivery();
    const must = delivery.topics.find((topic) => topic.must)!;
    const battery = listMeasures(rig).find(({ kind }) => kind === "battery")!;
    on(delivery, () => <Closing delivery={delivery} />);
    expect(stands("Readings")).toBe("Readings: none taken");
    await act(async () => {
      const mark = { kind: "mark", topic: must.id, person: null, spentS: 1 } as const;
      await syncQueue.add(delivery.id, { ...mark, mark: "not-aboard" });
      await syncQueue.add(delivery.id, { kind: "measure", item: battery.id, value: 11.2 });
    });
    expect(screen.getByText("▲ not aboard")).toBeDefined();
    expect(stands("Readings")).toBe("Readings: 1 wants a look");
    const readings = within(screen.getByRole("list", { name: "Readings that want a look" }));
    expect(readings.getByText(/11\.20 V/)).toBeDefined();
    const mark = { kind: "mark", topic: must.id, person: null, spentS: 1, mark: "not-aboard" } as const;
    await act(async () => void (await syncQueue.add(delivery.id, { ...mark, note: "Sold without it" })));
    expect(screen.getByText("not aboard: Sold without it")).toBeDefined();
  });

  it("asks a reason for each must still open, or marks it there; what is often forgotten stands apart", async () => {
    const delivery = createDelivery();
    on(delivery, (state) => <BeforeParting delivery={delivery} state={state} />);
    const user = userEvent.setup();
    const [must, other] = delivery.topics.filter((topic) => topic.must);
    await user.click(screen.getByRole("button", { name: `Say why: ${must!.title}` }));
    await user.click(screen.getByRole("button", { name: "Buyer declined" }));
    expect(screen.getByText("not reached: Buyer declined")).toBeDefined();
    // What is put off to a day asks which, and is owed by it.
    await user.click(screen.getByRole("button", { name: `Say why: ${other!.title}` }));
    await user.click(screen.getByRole("button", { name: "Out of time, date agreed" }));
    expect(screen.getByRole("button", { name: "Agreed" })).toHaveProperty("disabled", true);
    fireEvent.change(screen.getByLabelText("For which day?"), { target: { value: "2027-03-06" } });
    await user.click(screen.getByRole("button", { name: "Agreed" }));
    expect(await screen.findByText(/not reached: Out of time, date agreed: .*2027/)).toBeDefined();
    await waitFor(() => expect(kindsOf(delivery)).toContain("assign"));
    await user.click(screen.getByRole("button", { name: `Change the reason: ${must!.title}` }));
    await user.type(screen.getByLabelText(`Another reason why "${must!.title}" is not done`), "Engine not run today");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(screen.getByText("not reached: Engine not run today")).toBeDefined();
    await user.click(screen.getByRole("button", { name: `did it: ${other!.title}` }));
    expect(screen.queryByRole("heading", { name: other!.title })).toBeNull();
    const forgotten = within(screen.getByRole("list", { name: "Most often forgotten here" }));
    expect(forgotten.getAllByRole("listitem").map((line) => line.textContent)).toEqual([
      expect.stringContaining("Chartplotter"),
    ]);
  });

  it("hears a buyer who will not sign, and then wants a witness", async () => {
    const delivery = createDelivery();
    on(delivery, () => <Signing delivery={delivery} />);
    const user = userEvent.setup();
    expect(screen.getAllByText("Nothing is owed to me.")).toHaveLength(2);
    expect(screen.queryByLabelText("Name of the witness")).toBeNull();
    await user.click(screen.getAllByRole("button", { name: "Does not sign" })[1]!);
    await user.type(screen.getByLabelText("Why Piet Marram does not sign"), "Wants the gauge mended{Enter}");
    expect(screen.getByText("▲ Wants the gauge mended")).toBeDefined();
    expect(screen.getByLabelText("Name of the witness")).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Signs after all" }));
    expect(screen.queryByLabelText("Name of the witness")).toBeNull();
  });

  it("adds what is owed and settles it with a line on how", async () => {
    const delivery = createDelivery();
    on(delivery, (state) => (
      <OwedList delivery={delivery} state={state} owed={listOwed(delivery.topics, rig.gear, state)} />
    ));
    const user = userEvent.setup();
    await user.click(screen.getByRole("button", { name: "Add a snag or a promise" }));
    await user.type(screen.getByLabelText("What is wrong"), "Lamp dark");
    await user.click(screen.getByRole("radio", { name: "cosmetic" }));
    await user.click(screen.getByRole("button", { name: "Save the snag" }));
    expect(await screen.findByText("Lamp dark")).toBeDefined();
    expect(screen.getByText("cosmetic · nobody yet")).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Change: Lamp dark" }));
    await user.type(screen.getByLabelText("What is wrong"), " at the bow");
    await user.click(screen.getByRole("radio", { name: "fix before leaving" }));
    await user.click(screen.getByRole("button", { name: "Save the change" }));
    expect(await screen.findByText("fix before leaving · nobody yet")).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Settle: Lamp dark at the bow" }));
    await user.type(screen.getByLabelText("What was done (the buyer sees this)"), "New lamp{Enter}");
    expect(screen.queryByText("Lamp dark at the bow")).toBeNull();
    expect(screen.getByText("Nothing is owed.")).toBeDefined();
  });

  it("reads hours with comma or point, and refuses what is no number", async () => {
    const delivery = createDelivery();
    let unread: string[] = [];
    on(delivery, (state) => {
      unread = listObstacles(delivery, state).find(({ code }) => code === "hours-unread")?.ids ?? [];
      return <HoursRead delivery={delivery} state={state} />;
    });
    const user = userEvent.setup();
    expect(unread).toEqual(rig.engines.map(({ id }) => id));
    const [first] = rig.engines;
    const input = screen.getByLabelText(first!.label);
    const line = within(input.closest("li")!);
    await user.type(input, "1.1.2");
    expect(line.getByText(/Type hours such as/)).toBeDefined();
    expect(line.getByRole("button")).toHaveProperty("disabled", true);
    await user.clear(input);
    await user.type(input, "1,4{Enter}");
    expect(line.getByText("Read: 1.4 h")).toBeDefined();
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ kind: "hours", engine: first!.id, hours: 1.4 });
    expect(unread).toEqual(rig.engines.slice(1).map(({ id }) => id));
    // Hours that no new boat has are asked about here as everywhere else.
    await user.clear(input);
    await user.type(input, "99999{Enter}");
    expect(line.getByRole("alert").textContent).toContain("99999 h is a lot");
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ hours: 1.4 });
    await user.click(line.getByRole("button", { name: "It is right, much was run" }));
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ hours: 99_999, answer: "as-read" });
  });
});
