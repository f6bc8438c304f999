// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import type { Delivery } from "../../api/index.ts";
import { rigTemplates, topics } from "../../content/index.ts";
import { findStyle, listTopicsFor, plainWishes, planWalk } from "../../core/route/index.ts";
import { listObstacles, listOpenTopics } from "../../core/walk/index.ts";
import { meQuery, queryClient } from "../app/queries.ts";
import { journal, useWalkState } from "../offline/useJournal.ts";
import { GearCount } from "./close/GearCount.tsx";
import { HoursRead } from "./close/HoursRead.tsx";
import { OpenTopics } from "./close/OpenTopics.tsx";
import { Ahead } from "./walk/Ahead.tsx";
import { MarkBar } from "./walk/MarkBar.tsx";
import { NotePad } from "./walk/NotePad.tsx";
import { useWalk } from "./walk/useWalk.ts";

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
    wishes: { ...plainWishes, style: "sweep" },
    rig,
    plan,
    topics: listTopicsFor(rig, topics),
    makeReady: [],
    entries: [],
    seal: null,
  } as Delivery;
}

function Stage({ delivery, show }: { delivery: Delivery; show: (state: ReturnType<typeof useWalkState>) => unknown }) {
  return <>{show(useWalkState(delivery))}</>;
}

function Walk({ delivery }: { delivery: Delivery }) {
  const walk = useWalk(delivery);
  return (
    <>
      <h1>{walk.step.topic.title}</h1>
      <output>{walk.state.topics.size} marked</output>
      {delivery.buyers.map(({ id, name }) => (
        <button key={id} type="button" onClick={() => walk.setPerson(id)}>
          {name}
        </button>
      ))}
      <MarkBar walk={walk} onLater={() => walk.mark("later")} onSnag={() => walk.snag("scratched", false)} />
      <Ahead walk={walk} closeAddress="/close" />
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
const kindsOf = (delivery: Delivery) => journal.listOf(delivery.id).map(({ kind }) => kind);

beforeAll(() => {
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no signal")));
  queryClient.setQueryData(meQuery.queryKey, { id: "nessa", name: "Nessa", role: "delivery", store: "A yard" });
});
beforeEach(() => journal.setUser("nessa"));
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
    await user.click(press("Told"));
    expect(title()).toBe(titles[1]);
    await user.click(press("They did it"));
    expect(title()).toBe(titles[2]);
    await user.click(press("– Not aboard"));
    expect(screen.getByText("3 marked")).toBeDefined();
    expect(kindsOf(delivery)).toEqual(["start", "mark", "mark", "mark"]);
    expect(journal.getStatus().unsent).toBeGreaterThanOrEqual(4);
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
    await user.click(press("Piet Marram"));
    await user.click(press("They did it"));
    expect(title()).toBe(titles[0]);
    const mark = journal.listOf(delivery.id).find(({ kind }) => kind === "mark");
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

describe("the note pad", () => {
  const start = (kind: "later" | "snag") => {
    const said: unknown[] = [];
    const done = vi.fn();
    const walk = {
      mark: (...all: unknown[]) => said.push(all),
      snag: (...all: unknown[]) => said.push(all),
    };
    render(<NotePad kind={kind} walk={walk as never} onDone={done} />);
    return { said, done, user: userEvent.setup() };
  };

  it("takes a reason for later with one touch, or none at all", async () => {
    const { said, done, user } = start("later");
    await user.click(screen.getByRole("button", { name: "on the water" }));
    await user.click(screen.getByRole("button", { name: "Mark later" }));
    expect(said).toEqual([
      ["later", "on the water"],
      ["later", undefined],
    ]);
    expect(done).toHaveBeenCalledTimes(2);
  });

  it("keeps no snag without words, and no markup in them", async () => {
    const { said, done, user } = start("snag");
    await user.click(screen.getByRole("button", { name: "Keep the snag" }));
    expect(done).not.toHaveBeenCalled();
    await user.type(screen.getByLabelText("What is wrong"), " crack <b>port side ");
    await user.click(screen.getByLabelText("stops the handover"));
    await user.keyboard("{Enter}");
    expect(said).toEqual([["crack bport side", true]]);
  });

  it("is left with Escape, keeping nothing", async () => {
    const { said, done, user } = start("snag");
    await user.keyboard("half a thought{Escape}");
    expect(said).toEqual([]);
    expect(done).toHaveBeenCalledOnce();
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
  });

  it("asks a reason for each must still open, and takes another later", async () => {
    const delivery = createDelivery();
    on(delivery, (state) => <OpenTopics delivery={delivery} open={listOpenTopics(delivery.topics, state)} />);
    const user = userEvent.setup();
    const must = delivery.topics.find((topic) => topic.must)!;
    await user.click(screen.getByRole("button", { name: `Say why: ${must.title}` }));
    await user.click(screen.getByRole("button", { name: "Buyer declined" }));
    expect(screen.getByText("not reached: Buyer declined")).toBeDefined();
    await user.click(screen.getByRole("button", { name: `Say otherwise: ${must.title}` }));
    await user.type(screen.getByLabelText(`Another reason why "${must.title}" is not done`), "Engine not run today");
    await user.click(screen.getByRole("button", { name: "Keep the reason" }));
    expect(screen.getByText("not reached: Engine not run today")).toBeDefined();
  });

  it("reads hours with comma or point, and refuses what is no number", async () => {
    const delivery = createDelivery();
    let unread: string[] = [];
    on(delivery, (state) => {
      unread = listObstacles(delivery.topics, rig, state).find(({ code }) => code === "hours-unread")?.ids ?? [];
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
    expect(journal.listOf(delivery.id).at(-1)).toMatchObject({ kind: "hours", engine: first!.id, hours: 1.4 });
    expect(unread).toEqual(rig.engines.slice(1).map(({ id }) => id));
  });
});
