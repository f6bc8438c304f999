import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import type { Delivery } from "../../api/index.ts";
import { rigTemplates, topics } from "../../content/index.ts";
import { regions } from "../../core/region/index.ts";
import { defaultPlanOptions, findStyle, listTopicsFor, planWalk } from "../../core/route/index.ts";
import { findUnprintable } from "../../core/text/index.ts";
import type { Letterhead } from "./letterhead.ts";
import { writePlanPdf } from "./planPdf.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-plan-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const store = { store: "A yard", region: regions.us, picture: null } as Letterhead;

function createDelivery(id: keyof typeof rigTemplates, budgetMin: number | null): Delivery {
  const rig = rigTemplates[id];
  const planned = planWalk(rig, topics, findStyle("power-first"), { budgetMin });
  if (!planned.ok) throw new Error(planned.error.message);
  return {
    id: "d-1",
    boatName: "Łódź 23",
    hull: "SLW23118K526",
    date: "2026-06-01",
    time: "10:00",
    buyers: [
      { id: "b1", name: "Marguerite-Philippa Van der Oosterhuizen-Castellanos" },
      { id: "b2", name: "Ilse Warrender-Featherstonehaugh-Okonkwo" },
    ],
    planOptions: { ...defaultPlanOptions, style: "power-first", budgetMin },
    rig,
    plan: planned.value,
    topics: listTopicsFor(rig, topics),
  } as unknown as Delivery;
}

async function print(delivery: Delivery, paper: "a4" | "letter") {
  const file = join(folder, `${delivery.rig.model}-${paper}.pdf`);
  writeFileSync(file, await writePlanPdf(delivery, store, { paper, reader: { language: "en", book: null } }));
  return execFileSync("pdftotext", ["-raw", file, "-"], { encoding: "utf8" });
}
const squeeze = (text: string) => text.replace(/\s+/g, " ");
/** However its lines are broken. */
const bare = (text: string) => text.replace(/[\s-]/g, "");

describe("names in other letters", () => {
  it.each(["Ελένη Παπαδοπούλου", "Ὀδυσσεύς", "Світлана Ґудзь-Їжак", "Nguyễn Thị Hạnh", "Łukasz Żółć"])(
    "%s is printed as it is written",
    async (name) => {
      const delivery = { ...createDelivery("pipit-15", 30), buyers: [{ id: "b1", name }] };
      expect(squeeze(await print(delivery, "a4")).normalize("NFC")).toContain(name.normalize("NFC"));
    },
  );

  it("that no face has are named, each once, and all others are not", () => {
    expect(findUnprintable("李 Ada 李 🚤 سارة")).toBe("李🚤سارة");
    expect(findUnprintable("Łódź, Ελένη, Їжак, Nguyễn “½” €")).toBe("");
  });
});

describe.each(Object.keys(rigTemplates) as (keyof typeof rigTemplates)[])("the printed plan of %s", (id) => {
  it.each([
    ["a4", 60],
    ["letter", null],
  ] as const)("is one page of %s with every stop and topic, minutes %j", async (paper, budgetMin) => {
    const delivery = createDelivery(id, budgetMin);
    const text = await print(delivery, paper);
    expect(text.split("\f").filter((page) => page.trim() !== "")).toHaveLength(1);
    const said = squeeze(text);
    expect(said).toContain("Łódź 23 SLW23118K526");
    expect(said).toContain("Marguerite-Philippa Van der Oosterhuizen-Castellanos");
    expect(said).toContain(`${delivery.plan.visits.length} stops, ${delivery.plan.moves} moves`);
    const [first] = delivery.plan.visits;
    const firstMin = delivery.topics
      .filter((topic) => first!.topics.includes(topic.id))
      .reduce((sum, { minutes }) => sum + minutes, 0);
    expect(said).toContain(`${Math.round(firstMin)} min`);
    // Below the boat: hours of each engine, and room to write.
    for (const words of ["Hours", ...delivery.rig.engines.map(({ label }) => label), "Notes"])
      expect(said).toContain(words);
    const byId = new Map(delivery.topics.map((topic) => [topic.id, topic]));
    for (const { topics: told } of delivery.plan.visits)
      for (const topic of told)
        expect(bare(said), topic).toContain(
          bare(byId.get(topic)!.title.split(":")[0]!.split(" ").slice(0, 2).join(" ")),
        );
    for (const topic of delivery.plan.deferred) {
      const { title } = byId.get(topic)!;
      if (![...byId.values()].some((other) => other.id !== topic && other.title.includes(title)))
        expect(said, topic).not.toContain(title);
    }
  });
});
