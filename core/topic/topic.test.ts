import { describe, expect, it } from "vitest";
import { glossary, rigTemplates, synonyms, topics } from "../../content/index.ts";
import { regions } from "../region/index.ts";
import {
  createGlossaryMarker,
  createTopicSearch,
  explainTopic,
  fillText,
  fillTopic,
  findTopicStation,
  glossaryListSchema,
  shortenTitles,
  type Topic,
  topicFileSchema,
} from "./index.ts";

const rig = rigTemplates["wending-23"];
const cuddy = rigTemplates["haldern-25"];
const topicOf = (id: string): Topic => topics.find((topic) => topic.id === id)!;
const plain: Topic = { ...topicOf("horn"), schools: undefined } as unknown as Topic;
const saying = (say: string): Topic => ({ ...plain, say });

describe("fillTopic", () => {
  it("says where the boat has a thing, all of a kind, and a figure of the sheet", () => {
    expect(fillTopic(saying("It is {at:extinguisher}."), rig, regions.us).say).toBe(
      "It is bracket under the helm seat, starboard side.",
    );
    const all = fillTopic(saying("{each:battery}"), rig, regions.us).say;
    for (const { label } of rig.parts.filter(({ kind }) => kind === "battery"))
      expect(all.toLowerCase()).toContain(label.toLowerCase());
    expect(fillTopic(saying("{rig:trailer.ballMm}"), rig, regions.us).say).toBe("2 5/16 in (58.7 mm)");
  });

  it("lists what others changed on a used boat, and says when nothing was found", () => {
    const changes = ["Second battery under the port seat", "VHF moved to the console"];
    const say = saying("Changed: {rig:used.changes}.");
    expect(fillTopic(say, { ...rig, used: { changes } }, regions.us).say).toBe(
      "Changed: second battery under the port seat; VHF moved to the console.",
    );
    expect(fillTopic(say, { ...rig, used: { changes: [] } }, regions.us).say).toBe("Changed: nothing that we found.");
  });

  it("sends people to look where the sheet does not say, and makes nothing up", () => {
    expect(fillTopic(saying("{at:galley}"), rig, regions.us).say).toBe("where we will show you");
    expect(fillTopic(saying("{rig:trailer.kg} kg"), { ...rig, trailer: null }, regions.us).say).toBe(
      "as its plate says",
    );
    const bare = { ...rig, parts: rig.parts.map(({ reach: _, ...part }) => part) };
    expect(fillTopic(saying("{at:horn}"), bare, regions.us).say).toMatch(/^at the /);
  });

  it("puts the chosen school's words in place, the first where none was chosen", () => {
    const topic = topics.find(({ schools }) => schools !== undefined)!;
    const [first, second] = topic.schools!;
    expect(fillTopic(topic, cuddy, regions.us).school).toEqual({
      id: first!.id,
      name: first!.name,
      tradeOff: first!.tradeOff,
    });
    expect(fillTopic(topic, cuddy, regions.us, { [topic.id]: second!.id })).toMatchObject({
      school: { id: second!.id },
    });
    expect(fillTopic(topic, cuddy, regions.us, { [topic.id]: "gone" }).school!.id).toBe(first!.id);
  });

  it.each(Object.entries(rigTemplates))("leaves no brace unfilled on %s", (_, template) => {
    for (const topic of topics) {
      const { say, show, does, why, wrong, cautions } = fillTopic(topic, template, regions.us);
      for (const text of [say, show, does, why, wrong, ...cautions])
        expect(text, topic.id).not.toMatch(/[{}]|undefined/);
    }
  });
});

describe("findTopicStation", () => {
  it("tells a topic at the thing it is about, else at the first wanted place the boat has", () => {
    const anchor = findTopicStation(rig, { of: "extinguisher", where: ["anchor"] });
    expect(anchor!.id).toBe(rig.parts.find(({ kind }) => kind === "extinguisher")!.station);
    expect(findTopicStation(rig, { of: "galley", where: ["wheels", "helm"] })!.kind).toBe("wheels");
    expect(findTopicStation({ ...rig, stations: [] }, { where: ["helm"] })).toBeNull();
  });
});

describe("explainTopic", () => {
  it("says what decides it, and where it is told", () => {
    expect(explainTopic(topicOf("windlass"), rig)).toEqual({
      isHere: true,
      because: ["it has a windlass (Windlass)", expect.stringMatching(/^it is explained at: /)],
    });
    expect(explainTopic(topicOf("galley"), rig)).toEqual({ isHere: false, because: ["it has no stove"] });
    const bare = { ...rig, parts: [], stations: rig.stations.filter(({ kind }) => kind === "coupler") };
    expect(explainTopic({ ...plain, when: { all: [] } }, bare).because.join()).toContain("to stand at");
  });

  it("agrees with itself for every topic on every template", () => {
    for (const template of Object.values(rigTemplates))
      for (const topic of topics) {
        const { isHere, because } = explainTopic(topic, template);
        expect(because.length, topic.id).toBeGreaterThan(0);
        if (isHere) expect(findTopicStation(template, topic)).not.toBeNull();
      }
  });
});

describe("createTopicSearch", () => {
  const search = createTopicSearch(topics, synonyms);
  const find = (words: string, more = {}) => search({ words, system: null, only: null, ...more }).map(({ id }) => id);

  it("finds by the beginnings of words, those in the title first", () => {
    expect(find("bat sw")[0]).toBe("battery-switches");
    expect(find("DRAIN  plug,")[0]).toBe("drain-plug");
    expect(find("xyzzy")).toEqual([]);
    expect(find("")).toEqual(topics.map(({ id }) => id));
  });

  it.each([
    ["how do I flush it", ["flush"]],
    ["toilet", ["head", "head-vacuum"]],
    ["rpm", ["gauges"]],
    ["won't start", ["no-start-list"]],
    ["it wont start", ["no-start-list"]],
    ["why is it beeping", ["alarms", "cranks-and-beeps"]],
    ["where are the life vests", ["jackets"]],
    ["kill cord", ["lanyard"]],
    ["batterys", ["battery-places", "battery-switches"]],
    ["extingisher", ["extinguisher"]],
    ["fishfinder", ["sounder-basics", "transducer-bunks"]],
    ["tires", ["tyres", "tyre-age"]],
    ["how do I hook up the trailer", ["coupler"]],
    ["winterize", ["lay-up", "fresh-winter"]],
    ["how many people can we take", ["capacity"]],
    ["jumper cables", ["jump-leads"]],
    ["the engine gets too hot", ["tell-tale", "alarms", "dry-tell-tale", "never-dry", "cooling-valve"]],
    ["somebody fell in", ["man-overboard"]],
    ["need a tow", ["being-towed"]],
    ["trim", ["engine-trim", "trim-tabs", "tilt-and-travel"]],
    ["bait tank", ["livewell", "livewell-screen", "no-raw-water"]],
    ["smells of gas", ["blower", "fuel-fire"]],
    ["dead battery", ["flat-battery"]],
    ["how fast can I go at first", ["break-in"]],
    ["water in boat", ["seacocks", "bilge-switch", "bilge-normal"]],
    ["no water coming out", ["dry-tell-tale", "tell-tale"]],
    ["how much gas is left", ["fuel-gauge"]],
    ["can't get it in gear", ["throttles", "neutral-lock"]],
    ["back up the trailer", ["backing", "reverse-pin"]],
    ["how do I wash it", ["upholstery"]],
    ["barnacles", ["antifouling"]],
    ["lost the clip", ["lanyard"]],
    ["anker", ["anchoring", "windlass", "anchor-stow"]],
    ["who do I call", ["papers"]],
  ])("answers “%s” among its first three", (words, wanted) => {
    expect(
      find(words)
        .slice(0, 3)
        .some((id) => wanted.includes(id)),
      find(words).slice(0, 5).join(", "),
    ).toBe(true);
  });

  it("keeps to a system and to what a boat has", () => {
    expect(find("", { system: "helm" })).toEqual(topics.filter(({ system }) => system === "helm").map(({ id }) => id));
    expect(find("plug", { only: new Set(["drain-plug"]) })).toEqual(["drain-plug"]);
  });

  it("misses nothing that a slow look through every word finds", () => {
    const wordsOf = (topic: Topic) =>
      [topic.title, topic.say, topic.show, topic.does, topic.why, topic.wrong, ...topic.cautions, topic.id]
        .join(" ")
        .replace(/\{[^}?]*[?}]/g, " ")
        .toLowerCase()
        .split(/[^a-z0-9]+/);
    for (const words of ["water", "fuel tank", "tilt en", "flus", "temper", "off before"]) {
      const wanted = words.split(" ");
      const slow = topics.filter((topic) =>
        wanted.every((word) => wordsOf(topic).some((each) => each.startsWith(word))),
      );
      const found = new Set(find(words));
      for (const { id } of slow) expect(found.has(id), `${words}: ${id}`).toBe(true);
    }
  });
});

describe("the glossary", () => {
  const mark = createGlossaryMarker(glossary);

  it("cuts a text without losing a letter, each word marked once, the longest first", () => {
    for (const topic of topics) {
      for (const text of [topic.say, topic.show, topic.wrong]) {
        const pieces = mark(text);
        expect(pieces.map((piece) => piece.text).join("")).toBe(text);
        const met = pieces.flatMap(({ entry }) => (entry === null ? [] : [entry.term]));
        expect(new Set(met).size).toBe(met.length);
      }
    }
    const [, pump] = mark("The bilge pump runs.");
    expect(pump).toMatchObject({ text: "bilge pump", entry: { term: "bilge pump" } });
  });

  it("takes whole words and plurals, not parts of words", () => {
    const heads = mark("Count heads aloud. The head is below.").filter(({ entry }) => entry !== null);
    expect(heads.map(({ text }) => text)).toEqual(["head"]);
    const small = createGlossaryMarker([{ term: "cleat", also: [], means: "A horned fitting." }]);
    expect(small("Two cleats, cleated, Cleat").map(({ text, entry }) => [text, entry !== null])).toEqual([
      ["Two ", false],
      ["cleats", true],
      [", cleated, Cleat", false],
    ]);
    expect(createGlossaryMarker([])("as it is")).toEqual([{ text: "as it is", entry: null }]);
  });

  it("explains each of the trade's words once, and is used by most topics", () => {
    for (const word of [
      ...["port", "starboard", "bow", "stern", "transom", "gunwale", "helm", "bilge", "through-hull", "seacock"],
      ...["coupler", "tongue weight", "bunk", "winch post", "rode", "scope", "tell-tale", "skeg", "lower unit", "cowl"],
      ...["primer bulb", "kill lanyard", "make-ready", "sea trial", "break-in", "haul-out", "lay-up", "draft"],
    ])
      expect(glossary.map(({ term }) => term)).toContain(word);
    const twice = [...glossary, { term: "Bilge", also: [], means: "Again." }];
    expect(glossaryListSchema.safeParse(twice).success).toBe(false);
    const marked = topics.filter(({ say }) => mark(say).some(({ entry }) => entry !== null));
    expect(marked.length).toBeGreaterThan(topics.length / 3);
  });
});

it("topics travel in a file of their own", () => {
  const file = { format: "ravik.topics/1", topics: topics.slice(0, 3) };
  expect(topicFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
  expect(topicFileSchema.safeParse({ ...file, topics: [] }).success).toBe(false);
});

describe("words for some boats only", () => {
  const rig = rigTemplates["wending-23"];
  const without = { ...rig, trailer: null, parts: rig.parts.filter(({ kind }) => kind !== "vhf") };
  it.each([
    ["Stop. {if:vhf?Call on 16.|Call for help.}", "Stop. Call on 16.", "Stop. Call for help."],
    ["Plug in, {if:trailer?straps off, }go.", "Plug in, straps off, go.", "Plug in, go."],
  ])("%s", (text, on, off) => {
    expect([fillText(text, rig, regions.us), fillText(text, without, regions.us)]).toEqual([on, off]);
  });

  it("may hold a place themselves", () => {
    const place = fillText("{at:vhf}", rig, regions.us);
    expect(fillText("{if:vhf?The radio is {at:vhf}.|No radio.}", rig, regions.us)).toBe(`The radio is ${place}.`);
    expect(fillText("{if:vhf?The radio is {at:vhf}.|No radio.}", without, regions.us)).toBe("No radio.");
  });
});

describe("titles for a narrow list", () => {
  it("end at the colon, but for those that would then read alike", () => {
    const titles = ["Kill lanyard: fit it", "VHF: call", "Throttles", "VHF: distress"];
    expect(shortenTitles(titles)).toEqual(["Kill lanyard", "VHF: call", "Throttles", "VHF: distress"]);
  });
});
