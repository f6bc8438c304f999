import { hasBehind, isMet, type PanelSwitch, type Rig } from "../rig/index.ts";
import { cutText } from "../text/index.ts";
import { findTopicStation } from "../topic/index.ts";
import type { ReadyCheck, ReadyTopic } from "./readyCheck.ts";

const panelWhy = "So that no switch is a surprise in front of the buyer";
const mostIdLength = 55;

/**
 * What is to be checked on this boat before its buyer comes: the checks of the content that apply, and every position of
 * every panel switch, in the panel's own order. A switch with nothing behind it is one check: that nothing happens.
 */
export function listReadyChecks(rig: Rig, content: readonly ReadyTopic[]): ReadyCheck[] {
  const panelStation =
    rig.parts.find(({ kind }) => kind === "panel")?.station ??
    findTopicStation(rig, { where: ["helm", "console"] })?.id;
  const general = content.flatMap((topic): ReadyCheck[] => {
    const station = findTopicStation(rig, topic);
    if (station === null || !isMet(topic.when, rig)) return [];
    const { id, title, why, asksMinutes = false, caution = null } = topic;
    return [{ id, title, why, station: station.id, switch: null, asksMinutes, caution }];
  });
  if (panelStation === undefined) return general;
  const labelOf = new Map(rig.loads.map(({ id, label }) => [id, label]));
  const panel = rig.panel.flatMap((item, i) =>
    listPositions(item, `Switch ${i + 1}`, labelOf).map(
      ([key, title]): ReadyCheck => ({
        id: `${item.id.slice(0, mostIdLength)}-${key}`,
        title: cutText(title, 120),
        why: panelWhy,
        station: panelStation,
        switch: item.id,
        asksMinutes: false,
        caution: null,
      }),
    ),
  );
  return [...general, ...panel];
}

/** What is to be seen of one switch, each with its key. */
function listPositions(
  item: PanelSwitch,
  unnamed: string,
  labelOf: ReadonlyMap<string, string>,
): (readonly [key: string, title: string])[] {
  const name = item.label ?? unnamed;
  if (item.kind === "lamp") return [["lamp", `${name} lamp: lights when it should`]];
  if (!hasBehind(item)) return [["none", `${name}: nothing behind it, nothing happens`]];
  return item.positions.flatMap(({ label, powers }, i) => {
    if (powers.length === 0) return [];
    const what = powers.map((id) => labelOf.get(id) ?? id).join(", ");
    return [[String(i), `${name} at ${label}: ${what}`] as const];
  });
}
