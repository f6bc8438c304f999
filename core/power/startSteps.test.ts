import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import { listStartHelp } from "./index.ts";

const titles = (id: keyof typeof rigTemplates) => listStartHelp(rigTemplates[id], regions.us).map(({ title }) => title);

describe("starting when the battery will not", () => {
  it("goes by the boat's own switches and places", () => {
    const [ferrin] = listStartHelp(rigTemplates["ferrin-20"], regions.us);
    expect(ferrin!.steps.join(" ")).toContain(
      "Turn Battery selector to Both (inside the engine hatch, forward port corner).",
    );
    expect(ferrin!.steps.join(" ")).toContain("When you stop: key off, and Battery selector to 2");
    const [twin] = listStartHelp(rigTemplates["wending-23"], regions.us);
    expect(twin!.steps.join(" ")).toMatch(
      /Emergency parallel to Combine.*Leave Port engine, Starboard engine and House on.*back to Normal/,
    );
  });

  it("a boat with one bank has jump leads alone; a bow motor's bank is no bank to start from", () => {
    expect(titles("pipit-15")).toEqual(["Start with jump leads"]);
    expect(titles("sedge-18")).toEqual(["Start with jump leads"]);
    expect(listStartHelp({ ...rigTemplates["pipit-15"], batteries: [] }, regions.us)).toEqual([]);
  });

  it("says what can hurt before the first step, polarity, gas and sparks among it", () => {
    for (const rig of Object.values(rigTemplates))
      for (const { title, cautions, steps } of listStartHelp(rig, regions.us)) {
        expect(cautions.length).toBeGreaterThan(1);
        expect(steps.length).toBeGreaterThan(4);
        if (/leads/.test(title)) expect(cautions.join(" ")).toMatch(/gas.*sparks.*Positive to positive/s);
      }
    const lithium = rigTemplates["pipit-15"];
    const batteries = lithium.batteries.map((battery) => ({ ...battery, chemistry: "lifepo4" as const }));
    const [help] = listStartHelp({ ...lithium, batteries }, regions.us);
    expect(help!.cautions.join(" ")).toContain("lithium");
  });
});
