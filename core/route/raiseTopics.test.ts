import { describe, expect, it } from "vitest";
import { rigTemplates, topics } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { defaultPlanOptions, listRaises, prepareTopics, raiseTopics } from "./index.ts";

const told = topics.find(({ level, must, value }) => level === "told" && !must && value < 6)!;
const days = (n: number) => Array.from({ length: n }, (_, i) => i + 1);
/** So many calls on the day of the last of so many handovers, one a day. */
const ring = (topic: string, calls: number, handovers: number) =>
  Array.from({ length: calls }, () => ({ topic, atMs: handovers }));
const raisesAt = (calls: number, handovers: number) =>
  listRaises(topics, { handoversMs: days(handovers), calls: ring(told.id, calls, handovers) })[told.id];

describe("topics that buyers ring about", () => {
  it("are raised from two calls and two in a hundred, by two steps from three and three", () => {
    expect(raisesAt(1, 5)).toBeUndefined();
    expect(raisesAt(2, 100)).toEqual({ level: "shown", value: told.value + 2, calls: 2, handovers: 100 });
    expect(raisesAt(3, 100)).toEqual({ level: "done", value: told.value + 3, calls: 3, handovers: 100 });
    expect(raisesAt(2, 0)).toMatchObject({ level: "shown", handovers: 1 });
  });

  it("are judged by the worst hundred handovers: that they are taught by now lowers nothing", () => {
    const calls = ring(told.id, 3, 100);
    expect(listRaises(topics, { handoversMs: days(900), calls })[told.id]).toMatchObject({ level: "done", calls: 3 });
    const rare = [100, 350, 600].map((atMs) => ({ topic: told.id, atMs }));
    expect(listRaises(topics, { handoversMs: days(900), calls: rare })).toEqual({});
  });

  it("never go beyond the most, and nothing is said of those already there", () => {
    const most = topics.find(({ level, value }) => level === "done" && value === 9)!;
    expect(listRaises(topics, { handoversMs: days(10), calls: ring(most.id, 9, 10) })).toEqual({});
  });

  it("count together what was merged, and nothing that is taught no more", () => {
    const merged = topics.find(({ was, level }) => was !== undefined && level !== "done")!;
    const calls = [...ring(merged.was![0]!, 2, 20), ...ring(merged.id, 2, 20), ...ring("long-gone", 50, 20)];
    const raises = listRaises(topics, { handoversMs: days(20), calls });
    expect(raises[merged.id]).toMatchObject({ calls: 4 });
    expect(Object.keys(raises)).toEqual([merged.id]);
  });

  it("take the minutes of what is shown or done, and the pace of the store", () => {
    const rig = rigTemplates["wending-23"];
    const teaching = { topics, schools: {}, ownStyles: [], minutesOf: {}, raised: {}, idiom: regions.us };
    const options = { ...defaultPlanOptions, style: "power-first" as const };
    const raises = listRaises(topics, { handoversMs: days(10), calls: ring("reading-lights", 6, 10) });
    const minutes = (raised: typeof raises) =>
      prepareTopics(rig, { ...teaching, raised }, options).topics.find(({ id }) => id === "reading-lights")!;
    expect(minutes(raises).level).toBe("done");
    expect(minutes(raises).minutes).toBeGreaterThan(minutes({}).minutes);
    expect(raiseTopics(topics, {})).toEqual(topics);
  });
});
