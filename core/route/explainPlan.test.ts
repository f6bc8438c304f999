import { describe, expect, it } from "vitest";
import { topics as library, rigTemplates } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { fillTopic, findTopicStation, type Topic } from "../topic/index.ts";
import {
  adaptTopics,
  defaultPlanOptions,
  explainStops,
  findStyle,
  listInstead,
  listTooLate,
  listTopicsFor,
  type Plan,
  planWalk,
  routeStyles,
  timeWalk,
} from "./index.ts";

const boats = Object.entries(rigTemplates);
const prepare = (id: keyof typeof rigTemplates, people = 1): Topic[] =>
  adaptTopics(
    listTopicsFor(rigTemplates[id], library).map((topic) => fillTopic(topic, rigTemplates[id], regions.us)),
    { ...defaultPlanOptions, people },
  ).topics;
function plan(id: keyof typeof rigTemplates, topics: readonly Topic[], options: Parameters<typeof planWalk>[3]): Plan {
  const planned = planWalk(rigTemplates[id], topics, findStyle("power-first"), options);
  if (!planned.ok) throw new Error(planned.error.message);
  return planned.value;
}
const toldOf = ({ visits }: Plan) => visits.flatMap((visit) => visit.topics);

describe("why a stop stands where it does", () => {
  it.each(boats)("is said for each stop of %s in each style, and what is said is so", (_, rig) => {
    const titles = new Set(library.map(({ title }) => title.split(":")[0]));
    for (const style of routeStyles) {
      const planned = planWalk(rig, library, style, { budgetMin: 60 });
      if (!planned.ok) throw new Error(planned.error.message);
      const { visits, reasons } = planned.value;
      expect(reasons).toHaveLength(visits.length);
      for (const reason of reasons) {
        expect(reason).toMatch(/^(Before|Here first|After|Back|“|A good place|The shortest)/);
        const named = /because “(.+)” comes before “(.+)”$/.exec(reason);
        if (named === null) continue;
        for (const title of named.slice(1))
          expect(
            [...titles].some((each) => title.startsWith(each!)),
            title,
          ).toBe(true);
      }
    }
  });

  it("names what must be first and the stop that waits for it", () => {
    const rig = rigTemplates["pipit-15"];
    const [first, then] = [library.find(({ id }) => id === "coupler")!, library.find(({ id }) => id === "horn")!];
    const stations = [findTopicStation(rig, first)!, findTopicStation(rig, then)!];
    const said = explainStops({
      rig,
      topics: [first, { ...then, after: ["coupler"] }],
      visits: [first, then].map((topic, i) => ({ station: stations[i]!.id, topics: [topic.id] })),
    });
    const short = (topic: Topic) => topic.title.split(":")[0];
    expect(said[0]).toContain(`Before the ${stations[1]!.label.toLowerCase()}`);
    expect(said[0]).toContain(`“${short(first)}” comes before “${short(then)}”`);
    expect(said[1]).toContain("After the");
  });
});

describe("a walk that is too long", () => {
  it("says which musts end after the time there is", () => {
    const topics = prepare("ferrin-20", 3);
    const planned = plan("ferrin-20", topics, { budgetMin: 30 });
    const timed = timeWalk(rigTemplates["ferrin-20"], topics, planned.visits);
    expect(timed.at(-1)!.toMin).toBeCloseTo(planned.totalMin, 6);
    const late = listTooLate(timed, 30);
    expect(late.length).toBeGreaterThan(0);
    expect(late.every(({ must }) => must)).toBe(true);
    expect(listTooLate(timed, planned.totalMin)).toEqual([]);
  });
});

describe("a topic that waits", () => {
  const rig = rigTemplates["wending-23"];
  const topics = prepare("wending-23");
  const before = plan("wending-23", topics, { budgetMin: 60 });

  it("names what is told in its place: no must, nothing another waits for, at its own station where there is such", () => {
    const told = new Set(toldOf(before));
    const byId = new Map(topics.map((topic) => [topic.id, topic]));
    const instead = listInstead(rig, topics, before.deferred);
    expect([...instead.keys()].sort()).toEqual([...before.deferred].sort());
    for (const [, took] of instead)
      for (const topic of took) {
        expect(topic.must).toBe(false);
        expect(told.has(topic.id)).toBe(true);
        for (const id of told) expect(byId.get(id)!.after).not.toContain(topic.id);
      }
    expect([...instead.values()].every((took) => took.length <= 3)).toBe(true);
  });

  it("is told once it was added, within the time there is, and no must goes for it", () => {
    for (const id of before.deferred.slice(0, 12)) {
      const after = plan("wending-23", topics, { budgetMin: 60, added: [id, "no-such-topic"] });
      expect(toldOf(after)).toContain(id);
      expect(after.totalMin).toBeLessThanOrEqual(60 + 1e-9);
      for (const { must, id: each } of topics) if (must) expect(toldOf(after)).toContain(each);
      expect(after.firstMust).toMatchObject({
        topic: topics.find((topic) => topic.id === after.firstMust!.topic && topic.must)!.id,
      });
    }
  });
});
