import type { Find } from "./finding.ts";
import type { Rig } from "./rig.ts";
import { listUnreadTrailer } from "./unread.ts";

const fivePins = 5;
/** Lights, ground and a wire for the brakes: what a six-pin plug has and a five-pin one has not. */
const electricPins = 6;

/** Whether boat and trailer, with nothing in them, weigh more than the trailer's own plates allow; as far as all was read. */
function isOverloadedEmpty({ trailer, weights }: Rig): boolean {
  if (trailer?.kg === undefined || weights?.dryKg === undefined) return false;
  const { grossLimitKg, couplerLimitKg, axleLimitKg, tyreLimitKg, tyres = trailer.axles * 2, tongueKg = 0 } = trailer;
  const emptyKg = trailer.kg + weights.dryKg + (weights.enginesKg ?? 0);
  const isOver = (kg: number, limitKg: number | undefined) => limitKg !== undefined && kg > limitKg;
  return (
    isOver(emptyKg, grossLimitKg) ||
    isOver(emptyKg, couplerLimitKg) ||
    // What bears on the ball does not bear on the wheels.
    isOver(emptyKg - tongueKg, axleLimitKg) ||
    isOver(emptyKg - tongueKg, tyreLimitKg === undefined ? undefined : tyreLimitKg * tyres)
  );
}

/** What a driver must match, and the figures of its plates. */
export function checkTrailer(rig: Rig): Find[] {
  const { trailer } = rig;
  if (trailer === null) return [];
  const finds: Find[] = [];
  if (isOverloadedEmpty(rig))
    finds.push({
      kind: "trailer-overloaded",
      text: "Even with nothing in it, this boat with its trailer weighs more than the trailer's plates allow. Read the figures again; if they hold, another trailer has to carry it",
      item: null,
    });
  if (trailer.brakes === "surge" && trailer.lockOut === "none")
    finds.push({
      kind: "surge-brakes-cannot-reverse",
      text: `Surge brakes hold when backing uphill: the ${trailer.pins}-pin plug has no reverse wire noted and there is no lock-out pin. Note which it has`,
      item: null,
    });
  else if (trailer.lockOut === "reverse-wire" && trailer.pins < fivePins)
    finds.push({
      kind: "surge-brakes-cannot-reverse",
      text: `A ${trailer.pins}-pin plug has no reverse wire; it takes five pins, or a lock-out pin`,
      item: null,
    });
  if (trailer.brakes === "electric" && trailer.pins < electricPins)
    finds.push({
      kind: "brakes-need-another-plug",
      text: `Electric brakes need a wire of their own: a ${trailer.pins}-pin plug has none. Note the plug it really has`,
      item: null,
    });
  if (trailer.brakes !== "surge" && trailer.lockOut !== "none")
    finds.push({
      kind: "lock-out-without-surge-brakes",
      text: `A reverse ${trailer.lockOut === "pin" ? "pin" : "wire"} belongs to surge brakes, and this trailer has ${trailer.brakes === "none" ? "no" : trailer.brakes} brakes. Take it off the sheet`,
      item: null,
    });
  const { tow, ramp } = listUnreadTrailer(rig);
  if (tow.length > 0)
    finds.push({
      kind: "tow-numbers-missing",
      text: `${tow.length} of the numbers for the tow card are not read from the plate yet`,
      item: null,
    });
  if (ramp.length > 0)
    finds.push({
      kind: "ramp-numbers-missing",
      text: `${ramp.length} of the measures for the ramp card are not taken yet`,
      item: null,
    });
  return finds;
}
