import type { Delivery } from "../../../api/index.ts";
import { judgeMeasure, listMeasures } from "../../../core/measure/index.ts";
import { countTopics, type Obstacle, type Owed, type WalkState } from "../../../core/walk/index.ts";
import { count } from "../../ui/words.ts";

export type PartId = "topics" | "readings" | "gear" | "hours" | "owed" | "sign";

/** How a part of closing stands. left: something is in the way. look: nothing is, but it wants a look. done: neither. */
export interface PartState {
  readonly id: PartId;
  readonly title: string;
  readonly stands: "left" | "look" | "done";
  readonly says: string;
}

/** Readings that are over or tight, each with what it means. */
export function listOff({ rig }: Delivery, state: WalkState) {
  return listMeasures(rig).flatMap((measure) => {
    const taken = state.measures.get(measure.id);
    if (taken === undefined) return [];
    const { verdict, says } = judgeMeasure(measure, taken);
    return verdict === "over" || verdict === "tight" ? [{ measure, taken, verdict, says }] : [];
  });
}

/** The parts of closing in the order they are gone through, each with how it stands. */
export function listParts(
  delivery: Delivery,
  state: WalkState,
  obstacles: readonly Obstacle[],
  owed: readonly Owed[],
): PartState[] {
  const { rig } = delivery;
  const inTheWay = (code: Obstacle["code"]) => obstacles.find((each) => each.code === code)?.ids.length ?? 0;
  const { planned, done } = countTopics(delivery, state);
  const [musts, off, uncounted] = [inTheWay("must-open"), listOff(delivery, state).length, inTheWay("gear-uncounted")];
  const short = rig.gear.filter(({ id, count: sold }) => (state.gear.get(id)?.count ?? sold) < sold).length;
  const [unread, asked] = [inTheWay("hours-unread"), inTheWay("hours-asked")];
  const stopping = inTheWay("stopping-snag");
  const [unsigned, stale] = [inTheWay("unsigned"), inTheWay("signature-stale")];
  const stand = (left: number, look: number) => (left > 0 ? "left" : look > 0 ? "look" : "done");
  const { size: taken } = state.measures;
  return [
    {
      id: "topics",
      title: "What is open",
      stands: stand(musts, 0),
      says: musts > 0 ? `${musts} must-do open` : `${done} of ${planned} planned topics done`,
    },
    {
      id: "readings",
      title: "Readings",
      stands: stand(0, off),
      says: off > 0 ? `${off} ${off === 1 ? "wants" : "want"} a look` : taken === 0 ? "none taken" : `${taken} taken`,
    },
    {
      id: "gear",
      title: "Gear handed over",
      stands: stand(uncounted, short),
      says:
        uncounted > 0
          ? `${rig.gear.length - uncounted} of ${rig.gear.length} counted`
          : short > 0
            ? `${short} short`
            : "all there",
    },
    {
      id: "hours",
      title: "Engine hours, read together",
      stands: stand(unread + asked, 0),
      says:
        unread > 0
          ? `${count(unread, "engine", "engines")} not read`
          : asked > 0
            ? "say why they do not follow"
            : "read",
    },
    {
      id: "owed",
      title: "What is owed",
      stands: stand(stopping, 0),
      says:
        stopping > 0
          ? `${stopping} ${stopping === 1 ? "stops" : "stop"} the handover`
          : owed.length === 0
            ? "nothing"
            : count(owed.length, "thing", "things"),
    },
    {
      id: "sign",
      title: "Signatures",
      stands: stand(unsigned + stale, 0),
      says: unsigned > 0 ? `${unsigned} missing` : stale > 0 ? `${stale} to sign again` : "all there",
    },
  ];
}
