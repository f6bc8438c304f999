import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { createRandom } from "../random.ts";
import { regions } from "../region/index.ts";
import type { Rig } from "../rig/index.ts";
import { fillTopic, findTopicStation, type Topic } from "../topic/index.ts";
import {
  adaptTopics,
  addSecondSession,
  createStyle,
  defaultPlanOptions,
  findStyle,
  learnMinutes,
  listBroken,
  listTopicsFor,
  type OwnStyle,
  type Plan,
  type PlanOptions,
  planWalk,
  proposeMinutes,
  reckonMinutes,
  routeStyles,
  simulateWalk,
} from "./index.ts";

const boats = Object.entries(rigTemplates);
const orderOf = ({ visits }: Pick<Plan, "visits">) => visits.flatMap(({ topics }) => topics);

function prepare(rig: Rig, planOptions: Partial<PlanOptions> = {}): Topic[] {
  const here = listTopicsFor(rig, library).map((topic) => fillTopic(topic, rig, regions.us));
  return adaptTopics(here, { ...defaultPlanOptions, ...planOptions }).topics;
}
function plan(rig: Rig, topics: readonly Topic[], style: string, budgetMin: number | null): Plan {
  const planned = planWalk(rig, topics, findStyle(style), { budgetMin });
  if (!planned.ok) throw new Error(planned.error.message);
  return planned.value;
}

describe("adaptTopics", () => {
  const topic = (change: Partial<Topic>): Topic => ({ ...library[0]!, minutes: 2, where: ["helm"], ...change });
  const adapt = (change: Partial<Topic>, planOptions: Partial<PlanOptions>) =>
    adaptTopics([topic(change)], { ...defaultPlanOptions, ...planOptions });

  // 26 words take 0.2 min to say, and their questions a fifth of that.
  const plain = { say: Array(26).fill("word").join(" "), cautions: [] };
  it.each<[Partial<Topic>, Partial<PlanOptions>, number, Topic["level"]]>([
    [{ level: "told", must: false }, {}, 0.25, "told"],
    [{ level: "told", must: false }, { people: 6 }, 0.25, "told"],
    [{ level: "shown", must: false }, {}, 0.5, "shown"],
    [{ level: "done", must: true }, {}, 1, "done"],
    [{ level: "done", must: true }, { people: 3 }, 2, "done"],
    [{ level: "done", must: false }, { people: 3 }, 1, "done"],
    [{ level: "done", must: true, hands: 1, doing: 2 }, {}, 3.25, "done"],
    [{ level: "done", must: false, doing: 2 }, { experience: "experienced" }, 0.5, "shown"],
    [{ level: "shown", must: false, hands: 2 }, { experience: "experienced" }, 2.25, "told"],
    [{ level: "done", must: true }, { experience: "experienced" }, 1, "done"],
  ])("%j for %j takes %d min and is %s", (change, planOptions, minutes, level) => {
    const taught = { ...plain, ...change };
    expect(adapt(taught, planOptions).topics).toEqual([{ ...topic(taught), minutes, level }]);
  });

  it("never plans less than the words take", () => {
    const says = { ...plain, say: Array(160).fill("word").join(" "), level: "told" as const, must: false };
    expect(adaptTopics([topic(says)], defaultPlanOptions, { [topic(says).id]: 0.1 }).topics[0]!.minutes).toBe(1.25);
  });

  it.each<[Partial<Topic>, Partial<PlanOptions>, string | null]>([
    [{ asks: "cooling" }, { hose: false }, "cooling"],
    [{ asks: "cooling" }, { hose: false, place: "afloat" }, null],
    [{ asks: "afloat" }, { place: "hard" }, "afloat"],
    [{ asks: "ashore" }, { place: "afloat" }, "ashore"],
    [{ where: ["coupler", "winch"] }, { place: "hard" }, "reach"],
    [{ where: ["coupler", "helm"] }, { place: "hard" }, null],
    [{ asks: "afloat", where: ["wheels"] }, { place: "remote" }, null],
  ])("%j where %j is left for elsewhere because of %s", (change, planOptions, because) => {
    const { elsewhere, topics } = adapt(change, planOptions);
    expect(elsewhere.map((each) => each.because)).toEqual(because === null ? [] : [because]);
    expect(topics).toHaveLength(because === null ? 1 : 0);
  });

  it("plans nothing that needs water or a hose where there is none", () => {
    for (const [, rig] of boats) {
      const dry = prepare(rig, { hose: false, place: "hard" });
      for (const { id, asks } of dry) expect(["any", "ashore", undefined], id).toContain(asks);
      expect(dry.length).toBeLessThan(prepare(rig).length);
    }
  });
});

describe("a budget", () => {
  it.each(boats)("of %s is never exceeded and never costs a must, whatever the style, people and place", (_, rig) => {
    const random = createRandom(rig.model.length);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    for (let seed = 0; seed < 6; seed++) {
      const planOptions = {
        people: pick([1, 2, 4]),
        experience: pick(["first-time", "experienced"] as const),
        place: pick(["trailer", "hard", "afloat"] as const),
        hose: random() < 0.5,
      };
      const topics = prepare(rig, planOptions);
      const budgetMin = pick([30, 45, 60, 90, 120]);
      const made = plan(rig, topics, pick(routeStyles).id, budgetMin);
      const says = `seed ${seed} ${JSON.stringify(planOptions)} ${budgetMin}`;
      const told = new Set(orderOf(made));
      for (const { id, must, after } of topics) {
        if (must) expect(told.has(id), `${says}: ${id}`).toBe(true);
        if (told.has(id))
          for (const before of after)
            if (topics.some((each) => each.id === before)) expect(told.has(before), `${says}: ${before}`).toBe(true);
      }
      expect([...told, ...made.deferred].sort()).toEqual(topics.map(({ id }) => id).sort());
      if (made.overBudgetMin === undefined) expect(made.totalMin, says).toBeLessThanOrEqual(budgetMin + 1e-9);
      else {
        expect(made.totalMin - budgetMin).toBeCloseTo(made.overBudgetMin, 6);
        const byId = new Map(topics.map((topic) => [topic.id, topic]));
        const needed = new Set<string>();
        const need = (id: string) => {
          if (needed.has(id) || !byId.has(id)) return;
          needed.add(id);
          for (const before of byId.get(id)!.after) need(before);
        };
        for (const { id, must } of topics) if (must) need(id);
        expect([...told].sort(), says).toEqual([...needed].sort());
      }
    }
  });

  it("more time never tells less", () => {
    const rig = rigTemplates["millrace-24"];
    const topics = prepare(rig);
    const value = (made: Plan) => {
      const worth = new Map(topics.map((topic) => [topic.id, topic.value * topic.minutes]));
      return orderOf(made).reduce((sum, id) => sum + worth.get(id)!, 0);
    };
    const values = [45, 60, 90, 120].map((budgetMin) => value(plan(rig, topics, "power-first", budgetMin)));
    for (let i = 1; i < values.length; i++) expect(values[i]!).toBeGreaterThanOrEqual(values[i - 1]!);
  });

  it.each(boats)("a second session on %s takes what waits, in its own time", (_, rig) => {
    const topics = prepare(rig);
    const first = plan(rig, topics, "sweep", 60);
    const both = addSecondSession(rig, topics, findStyle("sweep"), first, 30);
    if (!both.ok) throw new Error(both.error.message);
    const { second } = both.value;
    expect(second!.totalMin).toBeLessThanOrEqual(30);
    expect([...orderOf(second!), ...second!.deferred].sort()).toEqual([...first.deferred].sort());
    const whole = plan(rig, topics, "sweep", null);
    expect(addSecondSession(rig, topics, findStyle("sweep"), whole, 30)).toEqual({ ok: true, value: whole });
  });
});

describe("an order by hand", () => {
  it("follows topics that were merged since", () => {
    const boat = rigTemplates["pipit-15"];
    const here = prepare(boat);
    const ordered = planWalk(boat, here, findStyle("sweep"), { manualOrder: ["bow-chain", "jackets", "winch-handle"] });
    if (!ordered.ok) throw new Error(ordered.error.message);
    expect(orderOf(ordered.value).slice(0, 3)).toEqual([
      "winch",
      "jackets",
      here.find(({ id }) => !["winch", "jackets"].includes(id))!.id,
    ]);
  });

  const rig = rigTemplates["pipit-15"];
  const topics = prepare(rig);

  it("has a reason at every stop: what a topic needs, or the hand that put it there, and never the style", () => {
    const best = orderOf(plan(rig, topics, "sweep", null));
    const made = planWalk(rig, topics, findStyle("sweep"), { manualOrder: [...best].reverse() });
    if (!made.ok) throw new Error(made.error.message);
    const { reasons, visits } = made.value;
    expect(reasons).toHaveLength(visits.length);
    expect(reasons).toContain("Put here by hand");
    for (const reason of reasons)
      expect(reason).toMatch(
        /^(Put here by hand|(Before|After|Back here|Here first).*because “.+” comes before “.+”)$/,
      );
  });

  it("is kept as it is, what it breaks is said, and what is new comes last", () => {
    const best = orderOf(plan(rig, topics, "sweep", null));
    const hand = [...best].reverse().filter((id) => id !== best[0]);
    const made = planWalk(rig, topics, findStyle("sweep"), { manualOrder: [...hand, "gone-since"] });
    if (!made.ok) throw new Error(made.error.message);
    expect(orderOf(made.value)).toEqual([...hand, best[0]]);
    expect(made.value).toMatchObject({ isByHand: true, deferred: [] });
    const place = new Map(orderOf(made.value).map((id, i) => [id, i]));
    const slow = topics.flatMap(({ id, after }) =>
      after
        .filter((before) => place.has(before) && place.get(before)! > place.get(id)!)
        .map((before) => `${id} ${before}`),
    );
    expect(made.value.broken.map(({ topic, before }) => `${topic} ${before}`).sort()).toEqual(slow.sort());
    expect(slow.length).toBeGreaterThan(5);
  });

  it("of the best order breaks nothing", () => {
    const best = orderOf(plan(rig, topics, "day-in-the-life", null));
    const byId = new Map(topics.map((topic) => [topic.id, topic]));
    expect(
      listBroken(
        best.map((id) => byId.get(id)!),
        topics,
      ),
    ).toEqual([]);
  });
});

describe("createStyle", () => {
  const own: OwnStyle = {
    id: "ours",
    name: "Ours",
    start: "helm",
    end: "coupler",
    sweep: "none",
    trailer: "last",
    systems: ["safety", "helm"],
  };

  it.each(boats)("is followed on %s: its start, its end, its systems first, the trailer last", (_, rig) => {
    const topics = prepare(rig);
    const planned = planWalk(rig, topics, createStyle(own));
    if (!planned.ok) throw new Error(planned.error.message);
    const { visits } = planned.value;
    const kind = (id: string) => rig.stations.find((station) => station.id === id)!.kind;
    expect(kind(visits.at(-1)!.station)).toBe("coupler");
    const order = orderOf(planned.value);
    const system = new Map(topics.map((topic) => [topic.id, topic.system]));
    const lastTrailer = order.findLastIndex((id) => system.get(id) === "trailer");
    expect(lastTrailer).toBe(order.length - 1);
    const free = topics.filter((topic) => topic.after.length === 0 && topic.system === "safety");
    const others = topics.filter((topic) => topic.system === "deck");
    const last = Math.max(...free.map(({ id }) => order.indexOf(id)));
    const first = Math.min(...others.map(({ id }) => order.indexOf(id)));
    expect(last).toBeLessThan(first);
  });

  it("says in a line what it does, and makes a way against its sweep four times as long", () => {
    const style = createStyle({ ...own, sweep: "stern-to-bow" });
    expect(style.line).toBe(
      "Made by this store: starts at the helm; ends at the coupler; stern to bow; trailer last; safety, then helm.",
    );
    const [bow, stern] = [5, 0].map((xM) => ({ ...rigTemplates["pipit-15"].stations[0]!, at: { xM, yM: 0 } }));
    expect([style.shape(bow!, stern!, boats[0]![1]), style.shape(stern!, bow!, boats[0]![1])]).toEqual([4, 1]);
    expect(createStyle({ ...own, start: null, end: null, trailer: "with-the-rest", systems: [] }).line).toContain(
      "the shortest way",
    );
    expect(findStyle("gone").id).toBe(routeStyles[0]!.id);
  });
});

describe("every template in every style", () => {
  it.each(boats)("%s has an order that keeps what each topic needs", (_, rig) => {
    const topics = prepare(rig);
    for (const { id: style } of routeStyles) {
      const made = plan(rig, topics, style, null);
      const order = orderOf(made);
      expect(new Set(order).size, style).toBe(topics.length);
      const byId = new Map(topics.map((topic) => [topic.id, topic]));
      expect(
        listBroken(
          order.map((id) => byId.get(id)!),
          topics,
        ),
      ).toEqual([]);
      for (const { station, topics: told } of made.visits)
        for (const id of told) expect(findTopicStation(rig, byId.get(id)!)!.id).toBe(station);
      expect(made.firstMust!.atMin).toBeLessThan(made.totalMin);
    }
  });
});

describe("learnMinutes", () => {
  const topic: Topic = { ...library[0]!, id: "winch", was: ["handle"], must: true, level: "done", minutes: 2 };
  const own = topic.minutes / proposeMinutes(topic);
  const couple = { people: 2, experience: "first-time" } as const;
  const walk = (delivery: number, times: number, people: Pick<PlanOptions, "people" | "experience"> = couple) => ({
    ...people,
    delivery: `d${delivery}`,
    topic: topic.id,
    spentS: reckonMinutes(topic, people) * own * 60 * times,
  });
  const learn = (walks: Parameters<typeof learnMinutes>[1]) => learnMinutes([topic], walks).winch!;

  it.each([
    [[], 1],
    [[2, 2, 2, 2, 2], 1.5],
    [[60], (5 + 3) / 6],
    [[0], (5 + 0.25) / 6],
  ])("%j times what was reckoned → %d times its minutes", (times, pace) =>
    expect(learn(times.map((each, i) => walk(i, each)))).toBeCloseTo(2 * pace, 9),
  );

  it("is the same from couples and from experienced ones, when each took what is reckoned for them", () => {
    expect(learn([walk(1, 1), walk(2, 1, { people: 4, experience: "experienced" })])).toBeCloseTo(2, 9);
  });

  it("is the same from experienced ones whom it was only shown", () => {
    const easy: Topic = { ...topic, must: false, doing: 3 };
    const people = { people: 1, experience: "experienced" } as const;
    const spentS = reckonMinutes({ ...easy, level: "shown" }, people) * (easy.minutes / proposeMinutes(easy)) * 60;
    expect(learnMinutes([easy], [{ ...people, delivery: "d1", topic: topic.id, spentS }]).winch).toBeCloseTo(2, 9);
  });

  it("is what the store set, where its walks take just that long", () => {
    const slow: Topic = { ...topic, minutes: proposeMinutes(topic) * 4 };
    const spentS = slow.minutes * 60;
    const walks = [1, 2, 3].map((n) => ({ ...defaultPlanOptions, delivery: `d${n}`, topic: topic.id, spentS }));
    expect(learnMinutes([slow], walks).winch).toBeCloseTo(slow.minutes, 0);
  });

  it("counts the time of merged topics of one walk together, and passes over topics that are no more", () => {
    const half = walk(1, 0.5);
    expect(learn([half, { ...half, topic: "handle" }, { ...half, topic: "gone" }])).toBeCloseTo(2, 9);
  });
});

describe("simulateWalk", () => {
  it("has its middle near the plan and its four-in-five above it, the same for the same seed", () => {
    const minutes = Array.from({ length: 60 }, (_, i) => 0.5 + (i % 5) * 0.5);
    const plannedMin = minutes.reduce((sum, each) => sum + each, 0) + 12;
    const times = simulateWalk(minutes, 12, 20_000, createRandom(5));
    expect(times).toEqual(simulateWalk(minutes, 12, 20_000, createRandom(5)));
    expect(times.p50Min / plannedMin).toBeGreaterThan(0.95);
    expect(times.p50Min / plannedMin).toBeLessThan(1.02);
    expect(times.p80Min / times.p50Min).toBeGreaterThan(1.08);
    expect(times.p80Min / times.p50Min).toBeLessThan(1.25);
  });
});
