import { afterAll, describe, expect, it } from "vitest";
import { rigTemplates, topics } from "../../content/index.ts";
import { regions } from "../../core/region/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import { createPlanWorker, planHere } from "./planner.ts";

// As it is built (`npm run build`): the tests of the store run it from there as well.
const findEntry = () => new URL("../../dist/server/planWorker.js", import.meta.url);
const worker = createPlanWorker(findEntry);
afterAll(() => worker.close());

const rig = rigTemplates["pipit-15"];
const teaching = { version: "1", topics, schools: {}, ownStyles: [], minutesOf: {}, raised: {}, idiom: regions.us };
const options = { ...defaultPlanOptions, style: "sweep", budgetMin: 30 };

describe("plans made in a thread of their own", () => {
  it("are the same as those made here, for whatever version of the library was sent last", async () => {
    const here = await planHere.prepare(rig, teaching, options);
    expect(await worker.prepare(rig, teaching, options)).toEqual(here);
    expect(await worker.prepare(rig, teaching, options)).toEqual(here);
    const fewer = { ...teaching, version: "2", topics: topics.filter(({ after }) => after.length === 0).slice(0, 40) };
    const other = await worker.prepare(rig, fewer, options);
    expect(other).toEqual(await planHere.prepare(rig, fewer, options));
    expect(other).not.toEqual(here);
  });

  it("leave this thread free while they are searched", async () => {
    let turns = 0;
    const timer = setInterval(() => turns++, 1);
    await worker.prepare(rigTemplates["haldern-25"], teaching, { ...options, budgetMin: 60 });
    clearInterval(timer);
    expect(turns).toBeGreaterThan(0);
  });

  it("are refused as busy when too many wait, and taken again when those are done", async () => {
    const asked = Array.from({ length: 80 }, () =>
      worker.prepare(rig, teaching, options).then(
        () => "made",
        (error) => error.code,
      ),
    );
    const answers = await Promise.all(asked);
    expect(answers.filter((answer) => answer === "busy")).toHaveLength(20);
    expect((await worker.prepare(rig, teaching, options)).ok).toBe(true);
  });

  it("fail when the thread cannot be started, and do not take the server with them", async () => {
    const broken = createPlanWorker(() => new URL("file:///nowhere/planWorker.js"));
    await expect(broken.prepare(rig, teaching, options)).rejects.toThrow();
    await broken.close();
  });
});
