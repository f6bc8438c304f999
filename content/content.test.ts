import { describe, expect, it } from "vitest";
import { listTopicsFor } from "../core/route/index.ts";
import { orderTopics } from "../core/route/internal/blocks.ts";
import { systems } from "../core/topic/index.ts";
import { makeReady, rigTemplates, topics } from "./index.ts";

const own = listTopicsFor(rigTemplates["wending-23"], topics);

describe("the library", () => {
  it("covers every system with at least 45 topics on the boat that ships", () => {
    expect(own.length).toBeGreaterThanOrEqual(45);
    for (const system of systems)
      expect(own.filter((topic) => topic.system === system).length).toBeGreaterThanOrEqual(5);
  });

  it.each([
    "drain-plug",
    "lanyard",
    "battery-switches",
    "tell-tale",
    "blower",
    "bilge-switch",
    "seacocks",
    "extinguisher",
    "jackets",
    "coupler",
    "chains",
    "winch",
    "start-order",
    "flush",
  ])("has %s done by the buyer's own hands", (id) => {
    const topic = topics.find((each) => each.id === id);
    expect(topic).toMatchObject({ must: true, level: "done" });
    expect(topic!.cautions.length).toBeGreaterThan(0);
  });

  it("waits for nothing in a circle, and a must never waits for a topic worth little", () => {
    const routed = topics.map((topic) => ({ ...topic, station: "any" }));
    expect(orderTopics(routed).ok).toBe(true);
    const value = new Map(topics.map((topic) => [topic.id, topic.value]));
    for (const topic of topics.filter(({ must }) => must))
      for (const before of topic.after)
        expect(value.get(before), `${topic.id} after ${before}`).toBeGreaterThanOrEqual(5);
  });

  it("is written for the ear: short sentences, no shouting", () => {
    for (const topic of topics) {
      for (const text of [topic.say, topic.show, topic.does, topic.wrong, topic.why, ...topic.cautions]) {
        expect(text, topic.id).not.toContain("!");
        const longest = Math.max(...text.split(/(?<=[.:;?])\s/).map((sentence) => sentence.split(/\s+/).length));
        expect(longest, `${topic.id}: ${text}`).toBeLessThanOrEqual(27);
      }
    }
  });

  it("gives the workshop its own list before the buyer comes", () => {
    expect(new Set(makeReady.map(({ id }) => id)).size).toBe(makeReady.length);
  });
});
