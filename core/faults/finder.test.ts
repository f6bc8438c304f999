import { describe, expect, it } from "vitest";
import { faultContent, rigTemplates } from "../../content/index.ts";
import { createRandom } from "../random.ts";
import { regions } from "../region/index.ts";
import {
  buildFaultModel,
  type Findings,
  findFault,
  listAtPlace,
  listContradicting,
  listQuestions,
  matchWords,
  readClues,
} from "./index.ts";

const twin = buildFaultModel(rigTemplates["wending-23"], faultContent, regions.us);
const nothing: Findings = { functions: {}, components: {} };

describe("the model of a boat", () => {
  it.each(Object.entries(rigTemplates))("%s: every function needs something, nothing is left in braces", (_, rig) => {
    const model = buildFaultModel(rig, faultContent, regions.us);
    const known = new Set(model.components.map(({ id }) => id));
    expect(model.functions.length).toBeGreaterThan(18);
    for (const { needs, label, asks } of model.functions) {
      expect(needs.length).toBeGreaterThan(0);
      for (const need of needs) expect(known.has(need), need).toBe(true);
      expect(`${label} ${asks}`).not.toMatch(/[{}]|undefined/);
    }
    for (const { check, mend, label, part } of model.components) {
      expect(`${check} ${mend} ${label}`).not.toMatch(/[{}]|undefined|null/);
      if (part !== null) expect(rig.parts.some(({ id }) => id === part)).toBe(true);
    }
  });

  it("asks no inboard about trim or a drive that comes up, and no washdown about fresh water", () => {
    const of = (id: keyof typeof rigTemplates) => buildFaultModel(rigTemplates[id], faultContent, regions.us);
    const kindsOf = (id: keyof typeof rigTemplates) => of(id).components.map(({ kind }) => kind);
    for (const kind of ["trim-high", "trim-fluid", "trim-fuse", "steer-weed"]) {
      expect(kindsOf("pluma-22")).not.toContain(kind);
      expect(kindsOf("wending-23")).toContain(kind);
    }
    expect(of("pluma-22").functions.some(({ label }) => /trims/.test(label))).toBe(false);
    expect(of("sedge-18").functions.map(({ id }) => id)).not.toContain("fresh-runs");
    expect(kindsOf("sedge-18")).not.toContain("tank-empty");
  });

  it("holds forty functions and ninety kinds, each look a question, each mend a sentence", () => {
    expect(faultContent.functions.length).toBeGreaterThanOrEqual(40);
    expect(faultContent.kinds.length).toBeGreaterThanOrEqual(90);
    for (const { check, mend } of faultContent.kinds) {
      expect(check).toMatch(/\?$/);
      expect(mend).toMatch(/\.$/);
      expect(check.split(/\s+/).length).toBeLessThan(32);
    }
    for (const { do: steps } of faultContent.urgent) expect(steps.length).toBeGreaterThanOrEqual(3);
  });

  it("leaves out what the boat does not have: no windlass on a skiff, no bow motor on a cuddy", () => {
    const has = (id: keyof typeof rigTemplates, text: RegExp) =>
      buildFaultModel(rigTemplates[id], faultContent, regions.us).functions.some(({ label }) => text.test(label));
    expect([
      has("pipit-15", /Windlass/),
      has("wending-23", /Windlass/),
      has("sedge-18", /Bow motor/),
      has("haldern-25", /Bow motor/),
    ]).toEqual([false, true, true, false]);
  });

  it("asks no key of an engine that is started by its cord", () => {
    const rig = rigTemplates["pipit-15"];
    const pulled = { ...rig, engines: rig.engines.map((engine) => ({ ...engine, start: "pull" as const })) };
    const { functions } = buildFaultModel(pulled, faultContent, regions.us);
    expect(functions.some(({ id }) => /^(key-on|cranks|charges):/.test(id))).toBe(false);
    const starts = functions.find(({ id }) => id === "starts:main")!;
    expect(starts.needs).toEqual(expect.arrayContaining(["lanyard", "primer-bulb"]));
    expect(starts.needs.join()).not.toMatch(/starter|key-switch|bank-low|battery-switch/);
  });

  it("a yes to any look clears it: none asks after the fault itself", () => {
    // What a look that finds the fault would ask; each of these once stood here.
    const finds =
      /does water come now|did it help|does it croak|only one lamp|shows? a lock or|does one get dim|does it run there|hum without|without anything moving/i;
    for (const { id, check } of faultContent.kinds) expect(check, id).not.toMatch(finds);
  });

  it("of twins asks about each engine, and an engine's key about its own battery", () => {
    const starts = twin.functions.filter(({ id }) => id.startsWith("starts:"));
    expect(starts.map(({ id }) => id)).toEqual(["starts:port", "starts:starboard"]);
    expect(starts[0]!.needs).toContain("bank-low:port");
    expect(starts[0]!.needs).not.toContain("bank-low:starboard");
  });
});

describe("a place that is touched", () => {
  it("leads to what is there, what is nowhere else first, and to nothing where nothing is", () => {
    const rig = rigTemplates["wending-23"];
    const at = (kind: string) =>
      listAtPlace(twin, rig, rig.stations.find((each) => each.kind === kind)!.id).map(({ id }) => id);
    expect(at("anchor").slice(0, 2).sort()).toEqual(["windlass-pulls", "windlass-turns"]);
    expect(at("engines")).toContain("starts:port");
    expect(at("coupler")).toEqual(["trailer-lights"]);
    expect(at("helm")).toContain("horn-sounds");
    expect(listAtPlace(twin, rig, "nowhere")).toEqual([]);
  });
});

describe("finding what is wrong", () => {
  it("beeps but won't start: the lanyard first, and a look that tells it from the rest", () => {
    const [match] = matchWords(twin.functions, "beeps but won't start");
    expect(match!.id).toMatch(/^starts:/);
    expect(readClues(twin, match!, "It BEEPS but won't start")).toEqual({ "key-on:port": true });
    expect(readClues(twin, match!, "won't start")).toEqual({});
    const found = findFault(twin, { ...nothing, functions: { "key-on:port": true, "starts:port": false } });
    if (!found.ok) throw new Error(found.error.message);
    expect(found.value.suspects[0]!.faults[0]!.kind).toBe("lanyard");
    expect(found.value.looks[0]!.kind).toBe("lanyard");
    const without = findFault(twin, {
      functions: { "key-on:port": true, "starts:port": false },
      components: { lanyard: true },
    });
    if (!without.ok) throw new Error(without.error.message);
    expect(without.value.suspects.some(({ faults }) => faults.some(({ kind }) => kind === "lanyard"))).toBe(false);
    expect(without.value.suspects[0]!.share).toBeGreaterThan(found.value.suspects[1]!.share);
  });

  it("asks what tells apart: whether another light burns, when one is dark", () => {
    const found = findFault(twin, { ...nothing, functions: { "anchor-light-burns": false } });
    if (!found.ok) throw new Error(found.error.message);
    const asked = listQuestions(twin, { ...nothing, functions: { "anchor-light-burns": false } }, found.value);
    expect(asked.length).toBeGreaterThan(3);
    expect(asked.every(({ id }) => id !== "anchor-light-burns")).toBe(true);
    expect(asked.slice(0, 6).some(({ label }) => /light/i.test(label))).toBe(true);
  });

  it("says so where what was seen cannot be", () => {
    const found = findFault(twin, {
      functions: { "horn-sounds": false },
      components: Object.fromEntries(
        twin.functions.find(({ id }) => id === "horn-sounds")!.needs.map((id) => [id, true]),
      ),
    });
    expect(found).toMatchObject({ ok: false, error: { code: "no-explanation", conflicting: ["horn-sounds"] } });
  });

  it("names the answers of which one is wrong, to be given anew", () => {
    const horn = twin.functions.find(({ id }) => id === "horn-sounds")!;
    const findings = {
      functions: { "horn-sounds": false },
      components: { ...Object.fromEntries(horn.needs.map((id) => [id, true])), [twin.components.at(-1)!.id]: true },
    };
    const again = listContradicting(twin, findings, ["horn-sounds"]).map(({ id }) => id);
    expect(again.sort()).toEqual(["horn-sounds", ...horn.needs].sort());
  });

  it("takes a bilge lamp that stays lit for water or a stuck float, and puts what is urgent before it", () => {
    for (const rig of Object.values(rigTemplates).filter(({ parts }) => parts.some(({ kind }) => kind === "pump"))) {
      const model = buildFaultModel(rig, faultContent, regions.us);
      const said = "bilge light on all the time";
      expect(matchWords(model.functions, said)[0]!.id).toBe("bilge-rests");
      const found = findFault(model, { ...nothing, functions: { "bilge-rests": false } });
      if (!found.ok) throw new Error(found.error.message);
      const kinds = found.value.suspects.flatMap(({ faults }) => faults.map(({ kind }) => kind));
      for (const kind of ["drain-plug", "float-stuck", "pump-outlet", "rain-water"]) expect(kinds).toContain(kind);
      expect(faultContent.urgent.filter(({ words }) => words.some((word) => said.includes(word)))[0]!.id).toBe(
        "water-in",
      );
    }
  });

  it("whatever is broken, answering each look truthfully ends at it, on every boat", () => {
    const random = createRandom(7);
    for (const rig of Object.values(rigTemplates)) {
      const model = buildFaultModel(rig, faultContent, regions.us);
      for (let i = 0; i < 25; i++) {
        const broken = model.components[Math.floor(random() * model.components.length)]!.id;
        const functions = Object.fromEntries(
          model.functions
            .filter(({ needs }) => needs.includes(broken))
            .slice(0, 1)
            .map(({ id }) => [id, false]),
        );
        let findings: Findings = { functions, components: {} };
        for (let looks = 0; ; looks++) {
          expect(looks).toBeLessThan(40);
          const found = findFault(model, findings);
          if (!found.ok) throw new Error(found.error.message);
          const [first] = found.value.suspects;
          expect(found.value.suspects.some(({ faults }) => faults.some(({ id }) => id === broken))).toBe(true);
          if (first!.share > 0.999) break;
          const look = found.value.looks[0]!.id;
          findings = { ...findings, components: { ...findings.components, [look]: look !== broken } };
          if (look === broken) break;
        }
      }
    }
  });

  it("nothing is matched by words that say nothing", () => {
    expect(matchWords(twin.functions, "it does not")).toEqual([]);
    expect(matchWords(twin.functions, "")).toEqual([]);
    expect(matchWords(twin.functions, "toilet")[0]!.id).toBe("head-flushes");
    expect(matchWords(twin.functions, "no water at the tap")[0]!.id).toBe("fresh-runs");
  });
});
