// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Delivery } from "../../../api/index.ts";
import { rigTemplates, topics } from "../../../content/index.ts";
import {
  adaptTopics,
  addSecondSession,
  defaultPlanOptions,
  findStyle,
  listTopicsFor,
  type PlanOptions,
  planWalk,
} from "../../../core/route/index.ts";
import { Broken } from "./Broken.tsx";
import { ManualOrder } from "./ManualOrder.tsx";
import { Verdict } from "./Verdict.tsx";
import { WalkTimeLine } from "./WalkTimeLine.tsx";
import { WhatWaits } from "./WhatWaits.tsx";
import { WhoAndWhen } from "./WhoAndWhen.tsx";

afterEach(cleanup);
const user = userEvent.setup();
const rig = rigTemplates["millrace-24"];

function createDelivery(change: Partial<PlanOptions> = {}): Delivery {
  const planOptions: PlanOptions = { ...defaultPlanOptions, style: "sweep", ...change };
  const { topics: told, elsewhere } = adaptTopics(listTopicsFor(rig, topics), planOptions);
  const { budgetMin, manualOrder, added } = planOptions;
  const first = planWalk(rig, told, findStyle("sweep"), { budgetMin, manualOrder, added });
  if (!first.ok) throw new Error(first.error.message);
  const both =
    planOptions.secondMin === null
      ? first
      : addSecondSession(rig, told, findStyle("sweep"), first.value, planOptions.secondMin);
  if (!both.ok) throw new Error(both.error.message);
  const plan = { ...both.value, elsewhere };
  return {
    id: "d-1",
    planOptions,
    rig,
    plan,
    topics: told,
    seal: null,
    buyers: [],
    entries: [],
  } as unknown as Delivery;
}
const wait = (delivery: Delivery, onChange = vi.fn().mockResolvedValue(undefined), canPlan = true) => {
  render(
    <MemoryRouter>
      <WhatWaits delivery={delivery} canPlan={canPlan} onChange={onChange} />
    </MemoryRouter>,
  );
  return onChange;
};

describe("who, where, how long", () => {
  const ask = (change: Partial<PlanOptions> = {}, canChoose = true) => {
    const onChange = vi.fn();
    render(
      <WhoAndWhen
        planOptions={{ ...defaultPlanOptions, style: "sweep", ...change }}
        canChoose={canChoose}
        onChange={onChange}
      />,
    );
    return onChange;
  };

  it("asks each thing by itself", async () => {
    const onChange = ask({ people: 2 });
    await user.click(screen.getByRole("button", { name: "45" }));
    await user.click(screen.getByRole("button", { name: "All of it" }));
    await user.click(screen.getByRole("button", { name: "One more" }));
    await user.click(screen.getByRole("button", { name: "One fewer" }));
    await user.click(screen.getByRole("button", { name: "Experienced" }));
    await user.selectOptions(screen.getByLabelText("Where the boat is"), "afloat");
    await user.click(screen.getByRole("checkbox", { name: "hose for the engine" }));
    expect(onChange.mock.calls.map(([wish]) => wish)).toEqual([
      { budgetMin: 45 },
      { budgetMin: null },
      { people: 3 },
      { people: 1 },
      { experience: "experienced" },
      { place: "afloat" },
      { hose: false },
    ]);
  });

  it("asks for a hose only where one could be, and keeps people within one and eight", () => {
    ask({ place: "afloat", people: 8 });
    expect(screen.queryByRole("checkbox")).toBeNull();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "One more" }).disabled).toBe(true);
    expect(screen.getByRole("status", { name: "8 people" })).toBeDefined();
  });

  it("can only be read by those who may not plan", async () => {
    const onChange = ask({}, false);
    await user.click(screen.getByRole("button", { name: "45" }));
    expect(onChange).not.toHaveBeenCalled();
  });
});

describe("the verdict", () => {
  const say = (planOptions: Partial<PlanOptions>) => {
    const delivery = createDelivery(planOptions);
    return { delivery, text: render(<Verdict delivery={delivery} />).container.textContent! };
  };

  it("says that it fits, and how many wait", () => {
    const { delivery, text } = say({ budgetMin: 60 });
    expect(text).toContain("It fits:");
    expect(text).toContain(`${delivery.plan.deferred.length} wait.`);
  });

  it("says by how much the musts are too long, and which of them do not fit", () => {
    const { delivery, text } = say({ budgetMin: 30, people: 4 });
    expect(text).toContain(`${Math.round(delivery.plan.overBudgetMin!)} min too long`);
    const last = delivery.plan.visits.at(-1)!.topics.at(-1)!;
    expect(text).toContain(delivery.topics.find(({ id }) => id === last)!.title.split(":")[0]);
    expect(text).toContain("Must-do topics are never left out.");
  });

  it("counts all of them where time is not short", () => {
    const { delivery, text } = say({ budgetMin: null });
    expect(text).toContain(`All ${delivery.topics.length} topics`);
  });
});

describe("what waits", () => {
  it("takes no room when nothing does", () => {
    wait(createDelivery({ place: "remote" }));
    expect(screen.queryByRole("region")).toBeNull();
  });

  it("counts what does not fit, by system, with its minutes", () => {
    const delivery = createDelivery({ budgetMin: 60 });
    wait(delivery);
    const section = screen.getByRole("region", { name: "What waits" });
    expect(section.textContent).toContain(`${delivery.plan.deferred.length} topics`);
    const counts = [...section.querySelectorAll("summary .num")].map(({ textContent }) => Number(textContent));
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(delivery.plan.deferred.length);
    expect(within(section).queryByRole("link")).toBeNull();
  });

  it("names what is told in a topic's place, adds it by a touch, and says what goes for it", async () => {
    const delivery = createDelivery({ budgetMin: 60 });
    const { id, title } = delivery.topics.find((topic) => topic.id === delivery.plan.deferred[0])!;
    const fuller = createDelivery({ budgetMin: 60, added: [id] });
    expect(fuller.plan.deferred).not.toContain(id);
    const onChange = vi.fn();
    const change = async (wish: Partial<PlanOptions>) => {
      onChange(wish);
      rerender(view(wish.added!.length > 0 ? fuller : delivery));
    };
    const view = (shown: Delivery) => (
      <MemoryRouter>
        <WhatWaits delivery={shown} canPlan onChange={change} />
      </MemoryRouter>
    );
    const { rerender } = render(view(delivery));
    const row = screen.getByText(title).closest("li")!;
    expect(row.textContent).toContain("in its place: ");
    await user.click(within(row).getByRole("button", { name: `Add ${title}` }));
    const [gone] = fuller.plan.deferred.filter((each) => !delivery.plan.deferred.includes(each));
    const shortOf = delivery.topics.find((topic) => topic.id === gone)!.title.split(":")[0]!;
    expect((await screen.findByText(/^Added: /)).textContent).toContain(shortOf);
    await user.click(screen.getByRole("button", { name: `Do not add ${title}` }));
    expect(screen.queryByText(/^Added: /)).toBeNull();
    expect(onChange.mock.calls).toEqual([[{ added: [id] }], [{ added: [] }]]);
  });

  it("says what cannot be taught where the boat is, and why", () => {
    wait(createDelivery({ place: "hard", hose: false }));
    const items = screen.getAllByRole("listitem").map(({ textContent }) => textContent);
    expect(items.some((text) => text!.includes("needs cooling water"))).toBe(true);
    expect(items.some((text) => text!.includes("needs the trailer"))).toBe(true);
  });

  it("asks for a second session, says what it takes, and leads to its walk", async () => {
    const onChange = wait(createDelivery({ budgetMin: 60 }));
    await user.click(screen.getByRole("button", { name: "45" }));
    expect(onChange).toHaveBeenCalledWith({ secondMin: 45 });
    cleanup();
    const delivery = createDelivery({ budgetMin: 60, secondMin: 45 });
    wait(delivery);
    const { second } = delivery.plan;
    expect(screen.getByText(/It takes/).textContent).toContain(`at ${second!.visits.length} stops`);
    expect(screen.getByRole("link", { name: "Walk the second session" }).getAttribute("href")).toBe(
      "/deliveries/d-1/walk?session=2",
    );
    cleanup();
    wait(
      { ...delivery, seal: { sha256: "", sealedAt: "2026-06-01T12:00:00.000Z", number: 1, key: null, from: null } },
      vi.fn(),
      false,
    );
    expect(screen.queryByRole("link")).toBeNull();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "None" }).disabled).toBe(true);
  });
});

describe("the order by hand", () => {
  it("gets what is added at its end", async () => {
    const whole = createDelivery();
    const manualOrder = whole.plan.visits.flatMap(({ topics: told }) => told).slice(0, 30);
    const delivery = createDelivery({ budgetMin: 60, manualOrder });
    const onChange = wait(delivery);
    const { id, title } = delivery.topics.find((topic) => topic.id === delivery.plan.deferred[0])!;
    await user.click(screen.getByRole("button", { name: `Add ${title}` }));
    expect(onChange).toHaveBeenCalledWith({ manualOrder: [...manualOrder, id] });
  });

  const arrange = () => {
    const delivery = createDelivery({ budgetMin: 60 });
    const [onKeep, onLeave] = [vi.fn(), vi.fn()];
    render(<ManualOrder delivery={delivery} isBusy={false} onKeep={onKeep} onLeave={onLeave} />);
    const order = delivery.plan.visits.flatMap(({ topics: told }) => told);
    const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)!.title;
    return { delivery, order, titleOf, onKeep, onLeave };
  };

  it("moves a topic by button, and keeps the order as it was made", async () => {
    const { order, titleOf, onKeep } = arrange();
    await user.click(screen.getByRole("button", { name: `Down: ${titleOf(order[0]!)}` }));
    await user.click(screen.getByRole("button", { name: `Up: ${titleOf(order[0]!)}` }));
    await user.click(screen.getByRole("button", { name: `Up: ${titleOf(order[0]!)}` }));
    await user.click(screen.getByRole("button", { name: `Down: ${titleOf(order[0]!)}` }));
    await user.click(screen.getByRole("button", { name: "Save this order" }));
    expect(onKeep).toHaveBeenCalledWith([order[1], order[0], ...order.slice(2)]);
  });

  it("says at once what a move breaks and why, and lets it be kept", async () => {
    const { delivery, order, titleOf } = arrange();
    const late = delivery.topics.find(
      ({ id, after }) => order.includes(id) && after.some((before) => order.includes(before)),
    )!;
    const before = late.after.find((id) => order.includes(id))!;
    expect(screen.queryByText(/rests on/)).toBeNull();
    for (let i = order.indexOf(late.id); i > order.indexOf(before); i--)
      await user.click(screen.getByRole("button", { name: `Up: ${late.title}` }));
    const said = screen
      .getAllByText(/rests on/)
      .map(({ textContent }) => textContent)
      .join("\n");
    expect(said).toContain(`“${late.title}” rests on “${titleOf(before)}”`);
    expect(said).toContain(delivery.topics.find(({ id }) => id === before)!.why);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Save this order" }).disabled).toBe(false);
  });

  it("moves a whole stop past its neighbour, and merges stops at one place that come to meet", async () => {
    const { delivery, order, onKeep } = arrange();
    const [first, second, third] = delivery.plan.visits;
    const label = (id: string) => rig.stations.find((station) => station.id === id)!.label;
    await user.click(screen.getAllByRole("button", { name: `Stop down: ${label(first!.station)}` })[0]!);
    await user.click(screen.getByRole("button", { name: "Save this order" }));
    const rest = order.slice(first!.topics.length + second!.topics.length);
    expect(onKeep).toHaveBeenCalledWith([...second!.topics, ...first!.topics, ...rest]);
    expect(third).toBeDefined();
    await user.click(screen.getAllByRole("button", { name: `Stop up: ${label(first!.station)}` })[0]!);
    await user.click(screen.getAllByRole("button", { name: `Stop up: ${label(first!.station)}` })[0]!);
    await user.click(screen.getByRole("button", { name: "Save this order" }));
    expect(onKeep).toHaveBeenLastCalledWith(order);
  });

  it("can be left", async () => {
    const { onLeave, onKeep } = arrange();
    await user.click(screen.getByRole("button", { name: "Cancel" }));
    expect([onLeave.mock.calls.length, onKeep.mock.calls.length]).toEqual([1, 0]);
  });
});

it("nothing broken takes no room", () => {
  const { container } = render(<Broken delivery={createDelivery()} broken={[]} />);
  expect(container.textContent).toBe("");
});

describe("the time line", () => {
  it("says half and four in five, and warns only when the longer one is over", () => {
    const { rerender } = render(<WalkTimeLine times={{ p50Min: 50, p80Min: 58 }} budgetMin={60} />);
    expect(screen.getByText(/Half of such walks/).textContent).toContain("four in five in 58 min");
    expect(screen.queryByText(/more often than/)).toBeNull();
    rerender(<WalkTimeLine times={{ p50Min: 58, p80Min: 70 }} budgetMin={60} />);
    expect(screen.getByText(/Longer than 1 h more often than one time in five/)).toBeDefined();
    rerender(<WalkTimeLine times={{ p50Min: 58, p80Min: 70 }} budgetMin={null} />);
    expect(screen.queryByText(/more often than/)).toBeNull();
  });
});
