import { describe, expect, it } from "vitest";
import { rigTemplates, topics } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { defaultPlanOptions, listRaises, prepareTopics, raiseTopics } from "./index.ts";

const told = topics.find(({ level, must, value }) => level === "told" && !must && value < 6)!;
const raisesAt = (calls: number, handovers: number) =>
  listRaises(topics, { handovers, calls: { [told.id]: calls } })[told.id];

describe("topics that buyers ring about", () => {
  it("are raised from two calls and three in a hundred, by two steps from four and six", () => {
    expect(raisesAt(1, 5)).toBeUndefined();
    expect(raisesAt(2, 100)).toBeUndefined();
    expect(raisesAt(3, 100)).toEqual({ level: "shown", value: told.value + 2, calls: 3, handovers: 100 });
    expect(raisesAt(6, 100)).toEqual({ level: "done", value: told.value + 3, calls: 6, handovers: 100 });
    expect(raisesAt(3, 8)).toMatchObject({ level: "shown" });
  });

  it("never go beyond the most, and nothing is said of those already there", () => {
    const most = topics.find(({ level, value }) => level === "done" && value === 9)!;
    expect(listRaises(topics, { handovers: 10, calls: { [most.id]: 9 } })).toEqual({});
  });

  it("count together what was merged, and nothing that is taught no more", () => {
    const merged = topics.find(({ was, level }) => was !== undefined && level !== "done")!;
    const calls = { [merged.was![0]!]: 2, [merged.id]: 2, "long-gone": 50 };
    const raises = listRaises(topics, { handovers: 20, calls });
    expect(raises[merged.id]).toMatchObject({ calls: 4 });
    expect(Object.keys(raises)).toEqual([merged.id]);
  });

  it("take the minutes of what is shown or done, and the pace of the store", () => {
    const rig = rigTemplates["wending-23"];
    const teaching = { topics, schools: {}, ownStyles: [], minutesOf: {}, raised: {}, idiom: regions.us };
    const options = { ...defaultPlanOptions, style: "power-first" as const };
    const raises = listRaises(topics, { handovers: 10, calls: { "reading-lights": 6 } });
    const minutes = (raised: typeof raises) =>
      prepareTopics(rig, { ...teaching, raised }, options).topics.find(({ id }) => id === "reading-lights")!;
    expect(minutes(raises).level).toBe("done");
    expect(minutes(raises).minutes).toBeGreaterThan(minutes({}).minutes);
    expect(raiseTopics(topics, {})).toEqual(topics);
  });
});
