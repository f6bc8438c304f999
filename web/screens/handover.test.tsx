// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import type { Delivery } from "../../api/index.ts";
import { makeReady, rigTemplates, synonyms, topics } from "../../content/index.ts";
import { listMeasures } from "../../core/measure/index.ts";
import { listReadyChecks } from "../../core/ready/index.ts";
import { defaultPlanOptions, findStyle, listTopicsFor, planWalk } from "../../core/route/index.ts";
import { listObstacles, listOwed } from "../../core/walk/index.ts";
import { glossaryQuery, meQuery, queryClient } from "../app/queries.ts";
import { HoursRead } from "../handover/HoursRead.tsx";
import { StartGate } from "../handover/StartGate.tsx";
import { MeasureList } from "../measure/MeasureList.tsx";
import { syncQueue, useWalkState } from "../offline/useSync.ts";
import { OwedList } from "../owed/OwedList.tsx";
import { OwedPad } from "../owed/OwedPad.tsx";
import { makeMe } from "../testing/makeMe.ts";
import { BeforeParting } from "./close/BeforeParting.tsx";
import { GearCount } from "./close/GearCount.tsx";
import { SignPads } from "./close/SignPads.tsx";
import { useSitting } from "./close/useSitting.ts";
import { Ahead } from "./walk/Ahead.tsx";
import { LaterPad } from "./walk/LaterPad.tsx";
import { MarkBar } from "./walk/MarkBar.tsx";
import { People } from "./walk/People.tsx";
import { SwitchSheet } from "./walk/SwitchSheet.tsx";
import { useWalk } from "./walk/useWalk.ts";
import { WalkFind } from "./walk/WalkFind.tsx";

const rig = rigTemplates["wending-23"];
let number = 0;

/** A handover of the shipped boat that nobody has walked yet, under its own id. */
function createDelivery(): Delivery {
  const planned = planWalk(rig, topics, findStyle("sweep"));
  if (!planned.ok) throw new Error(planned.error.message);
  const plan = planned.value;
  return {
    id: `d-${++number}`,
    boat: "w118",
    boatName: "Wending 23",
    hull: "",
    date: "2026-06-01",
    time: "10:00",
    note: "",
    buyers: [
      { id: "b1", name: "Ilse Warrender-Featherstonehaugh-Okonkwo" },
      { id: "b2", name: "Piet Marram" },
    ],
    staff: [{ id: "nessa", name: "Nessa" }],
    planOptions: { ...defaultPlanOptions, style: "sweep" },
    rig,
    plan,
    topics: listTopicsFor(rig, topics),
    told: {},
    makeReady: [],
    arrival: [],
    forgotten: { plotter: 0.9 },
    readings: {},
    snapshot: "5".repeat(64),
    next: null,
    receipts: {},
    entries: [],
    seal: null,
    added: [],
    strikes: [],
    link: null,
  };
}

function Stage({ delivery, show }: { delivery: Delivery; show: (state: ReturnType<typeof useWalkState>) => unknown }) {
  return <>{show(useWalkState(delivery))}</>;
}

const onSwitch = vi.fn();

function Signing({ delivery }: { delivery: Delivery }) {
  const sitting = useSitting(delivery);
  return <SignPads delivery={delivery} sitting={sitting} owed={listOwed(delivery.topics, rig.gear, sitting.state)} />;
}

function Walk({ delivery }: { delivery: Delivery }) {
  const walk = useWalk(delivery, "en", () => undefined);
  return (
    <>
      <h1>{walk.step.topic.title}</h1>
      <output>{walk.state.topics.size} marked</output>
      <MarkBar
        walk={walk}
        onLater={() => walk.mark("later")}
        onNotAboard={() => walk.mark("not-aboard")}
        onSnag={() => void walk.add({ kind: "snag", topic: null, note: "scratched", stops: false })}
      />
      <People walk={walk} />
      <WalkFind walk={walk} onSwitch={onSwitch} onDone={() => undefined} />
      <Ahead walk={walk} closeAddress="/close" onGo={() => undefined} />
    </>
  );
}

const on = (delivery: Delivery, show: (state: ReturnType<typeof useWalkState>) => unknown) =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>
        <Stage delivery={delivery} show={show} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
const kindsOf = (delivery: Delivery) => syncQueue.listOf(delivery.id).map(({ kind }) => kind);

/** A canvas that takes every stroke and draws none of them: jsdom has none. */
const noDrawing = new Proxy({}, { get: () => () => undefined, set: () => true });

beforeAll(() => {
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue(noDrawing as never);
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no signal")));
  queryClient.setQueryData(glossaryQuery.queryKey, { entries: [], told: [], ours: [], leftOut: [], synonyms });
  queryClient.setQueryData(meQuery.queryKey, makeMe());
});
beforeEach(() => syncQueue.setUser({ id: "nessa", name: "Nessa" }));
afterEach(cleanup);

describe("the walk", () => {
  const start = () => {
    const delivery = createDelivery();
    on(delivery, () => <Walk delivery={delivery} />);
    const titles = delivery.plan.visits
      .flatMap(({ topics: ids }) => ids)
      .map((id) => topics.find((topic) => topic.id === id)!.title);
    return { delivery, titles, user: userEvent.setup() };
  };
  const title = () => screen.getByRole("heading", { level: 1 }).textContent;
  const press = (name: string | RegExp) => screen.getByRole("button", { name });

  it("begins at the first topic, and each mark goes on to the next", async () => {
    const { delivery, titles, user } = start();
    expect(title()).toBe(titles[0]);
    await user.click(press("Explained"));
    expect(title()).toBe(titles[1]);
    await user.click(press("They did it"));
    expect(title()).toBe(titles[2]);
    await user.click(press("– Not aboard"));
    expect(screen.getByText("3 marked")).toBeDefined();
    // Opening the screen begins nothing: that is an act of its own.
    expect(kindsOf(delivery)).toEqual(["mark", "mark", "mark"]);
    expect(syncQueue.getStatus().unsent).toBeGreaterThanOrEqual(3);
  });

  it("takes a mark back, and goes back to its topic", async () => {
    const { titles, user } = start();
    expect(press("Undo")).toHaveProperty("disabled", true);
    await user.click(press("Shown"));
    await user.click(press("Undo"));
    expect(title()).toBe(titles[0]);
    expect(screen.getByText("0 marked")).toBeDefined();
    expect(press("Undo")).toHaveProperty("disabled", true);
  });

  it("stays at the topic when only one of the people did it", async () => {
    const { delivery, titles, user } = start();
    await user.click(screen.getByRole("radio", { name: "Piet" }));
    await user.click(press("They did it"));
    expect(title()).toBe(titles[0]);
    const mark = syncQueue.listOf(delivery.id).find(({ kind }) => kind === "mark");
    expect(mark).toMatchObject({ person: "b2", mark: "did" });
  });

  it("a snag does not move on; it stands in what is still open", async () => {
    const { titles, user } = start();
    await user.click(press("▲ Snag"));
    expect(title()).toBe(titles[0]);
    expect(screen.getByText("▲ scratched")).toBeDefined();
    await user.click(press("Undo"));
    expect(screen.queryByText("▲ scratched")).toBeNull();
  });

  it("goes where a line of what lies ahead is touched", async () => {
    const { delivery, user } = start();
    const ahead = within(screen.getByRole("complementary", { name: "Still open" }));
    const stop = delivery.plan.visits[2]!;
    const label = rig.stations.find(({ id }) => id === stop.station)!.label;
    await user.click(ahead.getAllByRole("button", { name: new RegExp(`^3 ?${label}`) })[0]!);
    expect(title()).toBe(topics.find(({ id }) => id === stop.topics[0])!.title);
  });
});

describe("the walk out of order", () => {
  const start = () => {
    const delivery = createDelivery();
    on(delivery, () => <Walk delivery={delivery} />);
    return { delivery, user: userEvent.setup() };
  };
  const find = () => screen.getByLabelText("Find a topic, a switch or a thing aboard");

  it("opens the topic, the switch or the thing that the buyer asks about", async () => {
    const { user } = start();
    await user.type(find(), "extingu");
    const group = within(screen.getByRole("region", { name: "Find in this boat" }));
    await user.click(group.getByRole("button", { name: /^Fire extinguisher: where it is/ }));
    expect(screen.getByRole("heading", { level: 1 }).textContent).toContain("extinguisher");
    await user.clear(find());
    await user.type(find(), "wash");
    await user.click(group.getByRole("button", { name: /^10 ?Wash/ }));
    expect(onSwitch).toHaveBeenLastCalledWith(rig.panel[9]!.id);
    await user.clear(find());
    await user.type(find(), "zzz");
    expect(group.getByText(/Nothing aboard is called that/)).toBeDefined();
  });

  it("answers a question with a topic that is not planned, and changes neither stops nor counts until it is marked", async () => {
    const whole = createDelivery();
    const short = planWalk(rig, topics, findStyle("sweep"), { budgetMin: 60 });
    if (!short.ok) throw new Error(short.error.message);
    const delivery = { ...whole, plan: short.value };
    const waits = topics.find(({ id }) => id === "stereo")!;
    expect(delivery.plan.deferred).toContain(waits.id);
    const stops = () => within(screen.getByRole("complementary", { name: "Still open" })).getAllByRole("button").length;
    on(delivery, () => <Walk delivery={delivery} />);
    const user = userEvent.setup();
    const title = () => screen.getByRole("heading", { level: 1 }).textContent;
    const [before, first] = [stops(), title()];
    await user.type(find(), "how does the music work");
    const row = within(screen.getByRole("region", { name: "Find in this boat" })).getByRole("button", {
      name: new RegExp(`^${waits.title}`),
    });
    expect(row.textContent).toContain("not in this walk's plan");
    await user.click(row);
    expect(title()).toBe(waits.title);
    expect(stops()).toBe(before);
    expect(screen.getByText("0 marked")).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Shown" }));
    expect(title()).toBe(first);
    expect(screen.getByText("1 marked")).toBeDefined();
    await user.click(screen.getByRole("button", { name: /^Undo/ }));
    expect(title()).toBe(waits.title);
    expect(screen.getByText("0 marked")).toBeDefined();
  });

  it("knows who is here: one can be missing, another can come along and be marked for", async () => {
    const { delivery, user } = start();
    await user.click(screen.getByRole("button", { name: "Who is here" }));
    await user.click(screen.getByLabelText("Piet Marram"));
    expect(screen.queryByRole("radio", { name: "Piet" })).toBeNull();
    await user.type(screen.getByLabelText("Somebody who came along"), "Oda <b>Marram{Enter}");
    await user.click(screen.getByRole("radio", { name: "Oda" }));
    await user.click(screen.getByRole("button", { name: "Shown" }));
    const present = syncQueue.listOf(delivery.id).filter(({ kind }) => kind === "present");
    expect(present).toMatchObject([
      { person: "b2", here: false },
      { name: "Oda bMarram", here: true },
    ]);
    const mark = syncQueue.listOf(delivery.id).find(({ kind }) => kind === "mark");
    expect(mark).toMatchObject({ person: (present[1] as { person: string }).person });
  });

  it("says what a switch does, what feeds it, and where it is told", async () => {
    const delivery = createDelivery();
    const back = vi.fn();
    const walk = { delivery, state: { topics: new Map() }, goToTopic: vi.fn() };
    render(<SwitchSheet walk={walk as never} switchId="sw-horn" onBack={back} />);
    expect(screen.getByText("Horn, 10 A: Dash breakers")).toBeDefined();
    await userEvent.setup().click(screen.getByRole("button", { name: topics.find(({ id }) => id === "horn")!.title }));
    expect(walk.goToTopic).toHaveBeenCalledWith("horn");
    expect(back).toHaveBeenCalledOnce();
  });
});

describe("the pads", () => {
  const later = () => {
    const said: unknown[] = [];
    const done = vi.fn();
    const walk = { mark: (...all: unknown[]) => said.push(all) };
    render(<LaterPad walk={walk as never} onDone={done} />);
    return { said, done, user: userEvent.setup() };
  };
  const owed = () => {
    const kept = vi.fn();
    const done = vi.fn();
    const place = { xM: 1, yM: 0 };
    render(<OwedPad rig={rig} topic="horn" place={place} staff={["Tobin"]} onKeep={kept} onDone={done} />);
    return { kept, done, user: userEvent.setup() };
  };

  it("takes a reason for later with one touch, its usual way of making up for it, or another and a day", async () => {
    const { said, done, user } = later();
    await user.click(screen.getByRole("button", { name: "out of time" }));
    expect(said).toEqual([["later", { note: "out of time", how: "next-visit" }]]);
    expect(done).toHaveBeenCalled();
    await user.click(screen.getByRole("button", { name: "by phone" }));
    await user.type(screen.getByLabelText("by"), "2026-07-01");
    await user.click(screen.getByRole("button", { name: "Mark later" }));
    expect(said.at(-1)).toEqual(["later", { how: "by-phone", when: "2026-07-01" }]);
  });

  it("keeps no snag without words, and no markup in them; a stopping one stops", async () => {
    const { kept, done, user } = owed();
    await user.click(screen.getByRole("button", { name: "Save the snag" }));
    expect(done).not.toHaveBeenCalled();
    await user.type(screen.getByLabelText("What is wrong"), " crack <b>port side ");
    await user.click(screen.getByRole("radio", { name: "stops the handover" }));
    await user.type(screen.getByLabelText("Who fixes it"), "Tobin");
    await user.click(screen.getByRole("button", { name: "Save the snag" }));
    const place = { xM: 1, yM: 0 };
    const snag = { kind: "snag", topic: "horn", note: "crack bport side", stops: true, place, owner: "Tobin" };
    expect(kept).toHaveBeenCalledWith(snag, []);
  });

  it("keeps a promise with its day, at the place the arrow keys moved to", async () => {
    const { kept, user } = owed();
    await user.click(screen.getByRole("radio", { name: "◇ Sold, not fitted" }));
    await user.type(screen.getByLabelText("What is owed"), "Table leg");
    await user.type(screen.getByLabelText("by"), "2026-07-09");
    screen.getByRole("button", { name: /^Where it is/ }).focus();
    await user.keyboard("{ArrowUp}{ArrowRight}");
    await user.click(screen.getByRole("button", { name: "Save the promise" }));
    const entry = { kind: "promise", note: "Table leg", isExtra: true, place: { xM: 1.2, yM: 0.2 }, due: "2026-07-09" };
    expect(kept).toHaveBeenCalledWith(entry, []);
  });

  it("is left with Escape, keeping nothing", async () => {
    const { kept, done, user } = owed();
    await user.keyboard("half a thought{Escape}");
    expect(kept).not.toHaveBeenCalled();
    expect(done).toHaveBeenCalledOnce();
  });
});

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
    await user.type(screen.getByLabelText("Why it may start all the same"), "They came 300 km{Enter}");
    expect(screen.queryByRole("heading", { name: "Not ready to be walked" })).toBeNull();
    expect(syncQueue.listOf(delivery.id)).toMatchObject([{ kind: "allow", reason: "They came 300 km" }]);
  });
});

describe("closing", () => {
  it("counts gear one by one and all the rest at once; what is short is said", async () => {
    const delivery = createDelivery();
    on(delivery, (state) => <GearCount delivery={delivery} state={state} />);
    const user = userEvent.setup();
    const keys = rig.gear.find(({ count }) => count >= 2)!;
    await user.click(screen.getByRole("button", { name: `One less: ${keys.label}` }));
    expect(screen.getByText("▲ 1 short")).toBeDefined();
    expect(screen.getByText(`1 of ${rig.gear.length} counted`)).toBeDefined();
    await user.click(screen.getByRole("button", { name: `The other ${rig.gear.length - 1} are all there` }));
    expect(screen.getByText(`${rig.gear.length} of ${rig.gear.length} counted`)).toBeDefined();
    await user.click(screen.getByRole("button", { name: `One more: ${keys.label}` }));
    expect(screen.queryByText("▲ 1 short")).toBeNull();
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
    on(delivery, (state) => <BeforeParting delivery={delivery} state={state} />);
    await act(async () => {
      const mark = { kind: "mark", topic: must.id, person: null, spentS: 1 } as const;
      await syncQueue.add(delivery.id, { ...mark, mark: "not-aboard" });
      await syncQueue.add(delivery.id, { kind: "measure", item: battery.id, value: 11.2 });
    });
    expect(screen.getByText("▲ not aboard")).toBeDefined();
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
    await user.click(screen.getByRole("button", { name: "Settle: Lamp dark" }));
    await user.type(screen.getByLabelText("What was done (the buyer sees this)"), "New lamp{Enter}");
    expect(screen.queryByText("Lamp dark")).toBeNull();
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
    expect(line.getByRole("alert").textContent).toContain("99999 h is a great deal");
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ hours: 1.4 });
    await user.click(line.getByRole("button", { name: "It is right, much was run" }));
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ hours: 99_999, answer: "as-read" });
  });
});
