// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Delivery } from "../../../api/index.ts";
import { topics } from "../../../content/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import { findStyle, planWalk } from "../../../core/route/index.ts";
import type { EntryOf } from "../../../core/walk/index.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { OwedPad } from "../../owed/OwedPad.tsx";
import { createDelivery, kindsOf, on, rig, setUpTablet } from "../../testing/handoverStage.tsx";
import { Ahead } from "./Ahead.tsx";
import { LaterPad } from "./LaterPad.tsx";
import { MarkBar } from "./MarkBar.tsx";
import { People } from "./People.tsx";
import { SwitchSheet } from "./SwitchSheet.tsx";
import { useWalk } from "./useWalk.ts";
import { WalkFind } from "./WalkFind.tsx";

const onSwitch = vi.fn();
const onSnag = vi.fn();

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
      <Ahead walk={walk} closeAddress="/close" onGo={() => undefined} onSnag={onSnag} />
    </>
  );
}

setUpTablet();

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

  it("is marked for one of several by the arrows, without leaving the topic, and by a key for the next", async () => {
    const { delivery, titles, user } = start();
    screen.getByRole("radio", { name: "All here" }).focus();
    await user.keyboard("{ArrowRight}{ArrowRight}");
    expect(screen.getByRole("radio", { name: "Piet" }).getAttribute("aria-checked")).toBe("true");
    expect(document.activeElement?.textContent).toBe("Piet");
    await user.keyboard("{ArrowRight}{ArrowLeft}");
    expect(title()).toBe(titles[0]);
    await user.click(press("Explained"));
    expect(syncQueue.listOf(delivery.id)).toMatchObject([{ kind: "mark", person: "b2" }]);
  });

  it("opens a snag to be put right from what is still open", async () => {
    const { user } = start();
    await user.click(press("▲ Snag"));
    await user.click(press("Change the snag: scratched"));
    expect(onSnag).toHaveBeenCalledOnce();
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
    render(
      <OwedPad
        rig={rig}
        topic="horn"
        place={place}
        staff={["Tobin Ashgrove", "Nessa Quill"]}
        onKeep={kept}
        onDone={done}
      />,
    );
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
    // However it is typed, one person is one.
    await user.type(screen.getByLabelText("Who fixes it"), "tobin");
    await user.click(screen.getByRole("button", { name: "Save the snag" }));
    const place = { xM: 1, yM: 0 };
    const snag = { kind: "snag", topic: "horn", note: "crack bport side", stops: true, place, owner: "Tobin Ashgrove" };
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

  it("puts a snag right: what it was stands in it, and the photos of it come with it", async () => {
    const kept = vi.fn();
    const takeBack = vi.fn();
    const snag = {
      ...{ id: "01ARZ3NDEKTSV4RRFFQ69G5FAV", delivery: "d-1", at: toInstant(0), by: "nessa", device: "t" },
      ...{ kind: "snag", topic: "gauges", note: "lamp drak", stops: false, how: "cosmetic", place: { xM: 1, yM: 0.5 } },
    } as EntryOf<"snag">;
    const correcting = { snag, owner: "Tobin", due: null, photos: [] };
    const more = { place: null, staff: [], onKeep: kept, onTakeBack: takeBack, onDone: () => undefined };
    render(<OwedPad rig={rig} topic="horn" correcting={correcting} {...more} />);
    const user = userEvent.setup();
    expect(screen.queryByRole("radio", { name: "◇ Promised" })).toBeNull();
    expect(screen.getByRole("radio", { name: "cosmetic" }).getAttribute("aria-checked")).toBe("true");
    await user.clear(screen.getByLabelText("What is wrong"));
    await user.type(screen.getByLabelText("What is wrong"), "lamp dark");
    await user.click(screen.getByRole("radio", { name: "stops the handover" }));
    await user.click(screen.getByRole("button", { name: "Save the change" }));
    const { id: corrects, place } = snag;
    const right = { kind: "snag", topic: "gauges", note: "lamp dark", stops: true, corrects, place, owner: "Tobin" };
    expect(kept).toHaveBeenCalledWith(right, []);
    await user.click(screen.getByRole("button", { name: "Not a snag" }));
    expect(takeBack).toHaveBeenCalledWith(null);
    cleanup();
    // What a colleague found goes with a word.
    render(<OwedPad rig={rig} topic="horn" correcting={correcting} {...more} isTheirs />);
    await user.click(screen.getByRole("button", { name: "Not a snag" }));
    const back = screen.getByRole<HTMLButtonElement>("button", { name: "Take it back" });
    expect(back.disabled).toBe(true);
    await user.type(screen.getByLabelText("Why it is no snag"), "It is the cap");
    await user.click(back);
    expect(takeBack).toHaveBeenLastCalledWith("It is the cap");
  });

  it("is left with Escape, keeping nothing", async () => {
    const { kept, done, user } = owed();
    await user.keyboard("half a thought{Escape}");
    expect(kept).not.toHaveBeenCalled();
    expect(done).toHaveBeenCalledOnce();
  });
});
