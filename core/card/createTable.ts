import { findBreakInStanding } from "../breakin/index.ts";
import { goesOutOfDate } from "../care/gearDates.ts";
import { spreadMarks } from "../drawing/spreadMarks.ts";
import { createTell, formatWhole, type Tell, tellJoined } from "../language/index.ts";
import { listFloatPumps, listLeftOn } from "../power/index.ts";
import { type Idiom, spellText } from "../region/index.ts";
import { hasBehind, isStandIn, type PartKind, type Rig, sayFigure, sayPlace } from "../rig/index.ts";
import { capitalize } from "../text/index.ts";
import type { CardBoat } from "./cardBoat.ts";
import type { cardTables } from "./cardText.ts";

/** Two numbers so far apart do not touch: each is a ring of 0.48 m on the plan. */
const numbersApartM = 0.54;

export interface PlanMark {
  readonly number: number;
  readonly label: string;
  readonly where: string;
  /** Where its number stands: at the thing, or beside it where numbers would lie on each other. Metres. */
  readonly xM: number;
  readonly yM: number;
  /** Where the thing itself is. */
  readonly at: { readonly xM: number; readonly yM: number };
}

/** A part of a card. */
export type CardBlock =
  | { readonly kind: "cautions"; readonly title?: string; readonly items: readonly string[] }
  | { readonly kind: "steps"; readonly title?: string; readonly items: readonly string[] }
  | { readonly kind: "lines"; readonly title?: string; readonly items: readonly string[] }
  | { readonly kind: "pairs"; readonly title?: string; readonly rows: readonly (readonly [string, string])[] }
  | {
      readonly kind: "table";
      readonly title?: string;
      readonly head: readonly string[];
      readonly rows: readonly (readonly string[])[];
    }
  /** The deck plan with numbers on it, and what each is. */
  | { readonly kind: "places"; readonly title?: string; readonly marks: readonly PlanMark[] };

type TableName = (typeof cardTables)[number];

/** What an owner looks for in a hurry or at an inspection, in the order in which it matters. */
const placeKinds: readonly PartKind[] = [
  "extinguisher",
  "jackets",
  "first-aid",
  "horn",
  "anchor",
  "plug",
  "through-hull",
  "selector",
  "battery",
  "breakers",
  "fuse-block",
  "light-pole",
  "fill",
  "pump-out",
  "flush-port",
  "primer-bulb",
  "fuel-filter",
  "charger-socket",
  "capacity-plate",
];

/** A table made from the boat, in its idiom's words; null where it has nothing of the kind. */
export function createTable(name: TableName, boat: CardBoat): CardBlock | null {
  const { book, spelling } = boat.idiom;
  const tell = createTell(book ?? null, (text) => spellText(text, spelling));
  const block = makers[name](boat, tell);
  return block?.kind === "table" ? { ...block, head: block.head.map((word) => tell(word)) } : block;
}

/** How each table is made: its cells told as what they are, a name as a name and what stands on a switch as it stands there. */
const makers: { readonly [N in TableName]: (boat: CardBoat, tell: Tell) => CardBlock | null } = {
  "switch-positions": switchPositionsTable,
  "keeps-afloat": keepsAfloatTable,
  "stays-live": staysLiveTable,
  "left-on": leftOnTable,
  "looks-off": looksOffTable,
  breakers: breakersTable,
  panel: panelTable,
  places: placesTable,
  "through-hulls": throughHullsTable,
  tanks: tanksTable,
  "trailer-plate": trailerPlateTable,
  "break-in": breakInTable,
  service: serviceTable,
  gear: gearTable,
  contacts: contactsTable,
};

function switchPositionsTable({ rig }: CardBoat, tell: Tell) {
  return table(
    ["Battery switch", "Set it to", "Then"],
    rig.powerSwitches.flatMap(({ label, positions }) => {
      // The position to run with: the first that is not off; an emergency switch stays as it is.
      const run = positions.find((position) => !/^off$/i.test(position.label))!;
      return [[label, run.label, tell(run.does)]];
    }),
  );
}

function keepsAfloatTable({ rig }: CardBoat, tell: Tell) {
  return table(
    ["Keeps the boat afloat", "Its switch stays", "Its breaker stays in"],
    listFloatPumps(rig).map(({ load, stays, breakers }) => [
      tell.label(load.label),
      stays === null
        ? tell("no switch: always live")
        : tell("{0} at {1}", stays.label ?? tell("no label"), stays.position),
      breakers.length === 0
        ? "–"
        : tellJoined(
            tell,
            breakers.map(({ label }) => tell.label(label)),
          ),
    ]),
  );
}

function staysLiveTable({ rig }: CardBoat, tell: Tell) {
  return table(
    ["Stays live", "Draws", "From"],
    rig.loads
      .filter(({ always }) => always)
      .map(({ label, amps, from }) => [tell.label(label), tell("{0} A", amps), batteryOf(rig, from, tell)]),
  );
}

const mostLeftOn = 8;

function leftOnTable({ rig }: CardBoat, tell: Tell) {
  return table(
    ["If this stays on", "Turn it off at", "Battery too low after"],
    listLeftOn(rig)
      .slice(0, mostLeftOn)
      .map(({ label, off, hours }) => [
        tell.label(label),
        off === null ? tell("its own button") : [off.label, off.position ?? []].flat().join(", "),
        hours < 48 ? `${Math.max(1, Math.floor(hours))} h` : tell("{0} days", Math.floor(hours / 24)),
      ]),
  );
}

function looksOffTable({ rig }: CardBoat, tell: Tell) {
  // Nobody is told how to turn off what keeps the boat afloat.
  const afloat = new Set(listFloatPumps(rig).map(({ stays }) => stays?.id));
  return table(
    ["Can look off and be on", "Really off is"],
    rig.panel
      .filter(
        (item) =>
          !afloat.has(item.id) &&
          hasBehind(item) &&
          ["press-and-hold", "push-to-cycle", "three-position"].includes(item.kind),
      )
      .map(({ label, positions, kind }) => [
        label ?? tell("no label"),
        kind === "press-and-hold"
          ? tell("press and hold until it goes out")
          : sayOff(positions.find(({ powers }) => powers.length === 0)?.label, tell),
      ]),
  );
}

/** How a switch is really off: at a position of its own, or by its breaker. */
const sayOff = (position: string | undefined, tell: Tell) =>
  position === undefined ? tell("none: use its breaker") : tell("at {0}", position);

function breakersTable({ rig, idiom }: CardBoat, tell: Tell) {
  return table(
    ["Breaker", "Feeds", "Reset", "Where"],
    rig.breakers.map(({ label, ratingA, feeds, resets, part }) => [
      tell("{0}, {1} A", tell.label(label), ratingA),
      listLoads(rig, feeds, tell),
      tell(resetWords[resets]),
      placeOf(rig, part, idiom),
    ]),
  );
}

function panelTable({ rig }: CardBoat, tell: Tell) {
  return table(
    ["Switch", "Position", "Does"],
    rig.panel.flatMap((item, i) => {
      const switchName = `${i + 1}  ${item.label ?? tell("no label")}`;
      if (item.kind === "lamp") return [[switchName, tell("lamp"), tell(item.note ?? "lights by itself")]];
      if (!hasBehind(item)) return [[switchName, "–", tell("nothing behind it")]];
      return item.positions
        .filter(({ powers }) => powers.length > 0)
        .map(({ label, powers }, j) => [j === 0 ? switchName : "", label, listLoads(rig, powers, tell)]);
    }),
  );
}

function placesTable({ rig, idiom }: CardBoat, tell: Tell): CardBlock | null {
  const marks = placeKinds
    .flatMap((kind) => rig.parts.filter((part) => part.kind === kind))
    .map(
      ({ id, label, at }, i): Omit<PlanMark, "at"> => ({
        number: i + 1,
        label: tell.label(label),
        where: placeOf(rig, id, idiom),
        ...at,
      }),
    );
  return marks.length === 0 ? null : { kind: "places", marks: spreadMarks(marks, numbersApartM) };
}

function throughHullsTable({ rig, idiom }: CardBoat, tell: Tell) {
  return table(
    ["Valve", "Where", "Serves"],
    rig.throughHulls.map(({ label, part, serves }) => [
      tell.label(label),
      placeOf(rig, part, idiom),
      tell.label(serves),
    ]),
  );
}

function tanksTable({ rig, idiom }: CardBoat, tell: Tell) {
  return table(
    ["Tank", "Holds", "Filled or emptied at"],
    rig.tanks.map(({ id, label, fill }) => [
      tell.label(label),
      isStandIn(rig, `tanks.${id}.litres`) ? "–" : sayFigure(rig, `tanks.${id}.litres`, idiom)!,
      fill === undefined ? "–" : placeOf(rig, fill, idiom),
    ]),
  );
}

function trailerPlateTable({ rig, idiom }: CardBoat, tell: Tell) {
  return table(["On this trailer", ""], listTrailerFacts(rig, idiom, tell));
}

function gearTable({ rig, gear }: CardBoat, tell: Tell) {
  return table(
    ["Aboard", "Count", "Date on it"],
    rig.gear.map((item) => {
      const { id, label, count } = item;
      const counted = gear.get(id);
      const undated = goesOutOfDate(item) ? tell("read it on the label") : "–";
      return [
        tell.label(label),
        counted === undefined ? String(count) : tell("{0} of {1}", counted.count, count),
        counted?.dated ?? undated,
      ];
    }),
  );
}

function contactsTable(boat: CardBoat, tell: Tell) {
  const { rig, idiom } = boat;
  return table(
    ["For the phone", ""],
    [
      [tell("Your yard"), boat.store],
      [tell("Call"), boat.phone === "" ? tell("number with your papers") : boat.phone],
      [tell("Boat"), `${boat.boatName}, ${rig.maker} ${rig.model} ${rig.modelYear}`],
      [tell("Hull number"), boat.hull],
      [
        tell("Engines"),
        rig.engines
          .map(({ id, label }) =>
            [tell.label(label), sayFigure(rig, `engines.${id}.powerKw`, idiom)].filter(Boolean).join(", "),
          )
          .join("; "),
      ],
      [tell("Hours"), tell("as the meter says: read it before you call")],
    ],
  );
}

const table = (head: readonly string[], rows: readonly (readonly string[])[]): CardBlock | null =>
  rows.length === 0 ? null : { kind: "table", head, rows };

const resetWords = {
  "push-in": "push in",
  flip: "flip off, then on",
  lever: "lever back to the colored tab",
} as const;

const listLoads = (rig: Rig, ids: readonly string[], tell: Tell) =>
  ids.map((id) => tell.label(rig.loads.find((load) => load.id === id)?.label ?? id)).join(", ");

function batteryOf(rig: Rig, from: string | undefined, tell: Tell): string {
  const battery =
    rig.batteries.find(({ id }) => id === from) ?? rig.batteries.find(({ use }) => use === "house") ?? rig.batteries[0];
  return battery === undefined ? "–" : tell.label(battery.label);
}

function placeOf(rig: Rig, partId: string, { book }: Idiom): string {
  const part = rig.parts.find(({ id }) => id === partId);
  if (part === undefined) return "–";
  if (book !== undefined) return capitalize(sayPlace(rig, part, book));
  return part.reach ?? rig.stations.find(({ id }) => id === part.station)!.label;
}

const asPlate = "as its plate says";
const brakeWords = { none: "no brakes", surge: "surge brakes", electric: "electric brakes" } as const;

function listTrailerFacts(rig: Rig, idiom: Idiom, tell: Tell): string[][] {
  const { trailer } = rig;
  if (trailer === null) return [];
  const { pins, brakes, lockOut, fenderHeightM } = trailer;
  const plate = (name: string) => sayFigure(rig, `trailer.${name}`, idiom);
  const [ball, pressure, tongue] = [plate("ballMm"), plate("tyreKpa"), plate("tongueKg")];
  const backing =
    lockOut === "none"
      ? "nothing to set"
      : lockOut === "pin"
        ? "lock-out pin in, and out again after"
        : "the fifth pin of the plug holds them off while reverse lights are on";
  return [
    [tell("Ball"), ball === null ? tell("read it on coupler and ball") : tell("{0}, on ball and coupler alike", ball)],
    [tell("Plug"), tell("{0} pins", pins)],
    [tell("Brakes"), tell(brakeWords[brakes])],
    [tell("Backing up"), tell(backing)],
    [tell("Tires"), pressure === null ? tell(asPlate) : tell("{0} cold", pressure)],
    [tell("All together at most"), plate("grossLimitKg") ?? tell(asPlate)],
    ...(tongue === null ? [] : [[tell("On the ball, as delivered"), tongue]]),
    ...(fenderHeightM === undefined
      ? []
      : [[tell("Back in until"), tell("the water stands at the mark you were shown")]]),
  ];
}

function breakInTable({ rig, breakInPacks, idiom }: CardBoat, tell: Tell): CardBlock | null {
  // A used boat has its first hours behind it.
  if (rig.used !== undefined) return null;
  const rows = rig.engines.flatMap((engine) => {
    const pack = breakInPacks.find(({ id }) => id === engine.breakInPack);
    if (pack === undefined) return [];
    return pack.phases.map(({ fromH, toH, say }, i) => {
      const { phase } = findBreakInStanding(pack, fromH, engine.ratedRpm.to);
      return [
        i === 0 && rig.engines.length > 1 ? tell.label(engine.label) : "",
        tell(pack.per === "tank" ? "{0} to {1} tanks" : "{0} to {1} h", fromH, toH),
        phase === null ? "–" : `${formatWhole(phase.maxRpm, idiom.book?.language)} rpm`,
        tell(say),
      ];
    });
  });
  // Twins of one pack and one rating are said once.
  const isSame = new Set(rig.engines.map(({ breakInPack, ratedRpm }) => `${breakInPack} ${ratedRpm.to}`)).size === 1;
  const shown = isSame ? rows.slice(0, rows.length / rig.engines.length).map((row) => ["", ...row.slice(1)]) : rows;
  const isNamed = shown.some(([name]) => name !== "");
  return table(
    [...(isNamed ? ["Engine"] : []), "From, to", "At most", "How"],
    shown.map((row) => (isNamed ? row : row.slice(1))),
  );
}

function serviceTable({ rig, servicePacks }: CardBoat, tell: Tell): CardBlock | null {
  const packs = [...new Set(rig.engines.map(({ servicePack }) => servicePack))];
  const rows = packs.flatMap((id) => {
    const pack = servicePacks.find((each) => each.id === id);
    return (pack?.items ?? []).map(({ title, firstH, firstMonths, everyH, everyMonths, work }) => [
      tell(title),
      [formatWhen(firstH, firstMonths, "first at {0}", tell), formatWhen(everyH, everyMonths, "then every {0}", tell)]
        .filter(Boolean)
        .join(", "),
      work.map((each) => tell(each)).join(", "),
    ]);
  });
  return table(["Service", "When, whichever comes first", "What is done"], rows);
}

function formatWhen(hours: number | undefined, months: number | undefined, phrase: string, tell: Tell): string {
  const said = [
    ...(hours === undefined ? [] : [`${hours} h`]),
    ...(months === undefined ? [] : [tell("{0} months", months)]),
  ];
  if (said.length === 0) return "";
  return tell(phrase, said.length === 2 ? tell("{0} or {1}", said[0]!, said[1]!) : said[0]!);
}
