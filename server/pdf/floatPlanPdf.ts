import type { TDocumentDefinitions } from "pdfmake/interfaces";
import type { LocalDate } from "../../core/dates/index.ts";
import type { GearPack } from "../../core/gear/index.ts";
import { spellText } from "../../core/region/index.ts";
import { type Rig, sayPlace } from "../../core/rig/index.ts";
import { judgeTrip, overdueAfterMin, sayClock, sayReason, type TripPlan } from "../../core/trip/index.ts";
import { sayAmount } from "../../core/units/index.ts";
import { createDays } from "./days.ts";
import { ink, magenta, soft } from "./ink.ts";
import { type Letterhead, printLogo } from "./letterhead.ts";
import { printPdf, write } from "./printer.ts";
import { heading, lined } from "./record/sheet.ts";

export interface FloatPlan {
  readonly plan: TripPlan;
  readonly rig: Rig;
  readonly boatName: string;
  readonly hull: string;
  readonly pack: GearPack;
  readonly store: Letterhead;
  readonly paper: "a4" | "letter";
  readonly today: LocalDate;
  readonly timeZone: string;
}

/** Left ashore: who is out, in what, where to, when to worry and whom to ring; on its back the briefing for the skipper. */
export function writeFloatPlanPdf(question: FloatPlan): Promise<Buffer> {
  const { plan, rig, boatName, hull, pack, store, paper, today, timeZone } = question;
  const { region } = store;
  const { printDay } = createDays(region);
  const judged = judgeTrip(plan, rig, pack, today, timeZone);
  const { answer, backMin, fuel } = judged;
  const amount = (litres: number) => sayAmount(litres, "volume", region.units);
  const spell = (text: string) => spellText(text, region.spelling);
  const row = (name: string, said: string) => [
    { text: write(name, { color: soft }) },
    { text: write(said, { fontSize: 11 }) },
  ];
  const table = (rows: ReturnType<typeof row>[]) => lined([130, "*"], rows, 0);
  const { kind, says } = verdictWords[judged.verdict];
  const sunset = judged.sunsetMin === null ? [] : [row("Sunset", sayClock(judged.sunsetMin))];
  const anchor =
    answer.rodeM === null ? [] : [row("Anchor rode to let out", sayAmount(answer.rodeM, "length", region.units))];
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `Float plan, ${boatName}, ${plan.date}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: "en",
    defaultStyle: { font: "Atkinson", fontSize: 10, lineHeight: 1.15, color: ink },
    content: [
      ...printLogo(store.picture, 34),
      { text: write(`Float plan: ${plan.name}`, { font: "Archivo", bold: true, fontSize: 20 }) },
      { text: write(`${boatName} ${hull}   ${printDay(plan.date)}`, { fontSize: 11 }) },
      {
        text: write(`Not heard from by ${sayClock(backMin + overdueAfterMin)}: ring them, then marine rescue.`, {
          font: "Archivo",
          bold: true,
          fontSize: 15,
          color: magenta,
        }),
        margin: [0, 8, 0, 4],
      },
      table([
        row("Leaves", plan.departAt),
        row("Back", sayClock(backMin)),
        row("To", plan.legs.map(({ to, nm }) => `${to} (${nm.toFixed(1)} sea miles)`).join(", ") || "not entered"),
        ...(plan.from === null ? [] : [row("Starts at", sayPosition(plan.from))]),
        row("Fuel", `${amount(plan.fuelL)} at the start, ${amount(Math.max(0, fuel.leftL))} left when back`),
        ...sunset,
        ...anchor,
        row("Waits ashore", plan.ashore === null ? "nobody entered" : `${plan.ashore.name}, ${plan.ashore.phone}`),
        row("Go or no go", says),
      ]),
      ...judged.reasons.map(({ code, weight }) => ({
        text: write(sayReason(code, judged, plan, pack, region), {
          color: weight === "stops" ? magenta : ink,
        }),
        margin: [0, 2, 0, 0] as [number, number, number, number],
      })),
      heading("Aboard"),
      table(
        plan.people.map(({ name, isChild, kg }) =>
          row(
            name,
            `${isChild ? "child" : "adult"}${kg === undefined ? "" : `, ${sayAmount(kg, "mass", region.units)}: a jacket for that weight`}`,
          ),
        ),
      ),
      heading("Safety gear and where it is"),
      table(
        judged.gear.items.map(({ rule, needed, good, missing }) => {
          const { label, parts } = pack.rules.find(({ id }) => id === rule)!;
          const part = rig.parts.find((each) => parts.includes(each.kind));
          const where = part === undefined ? "" : `: ${sayPlace(rig, part)}`;
          return row(spell(label), `${good} of ${needed}${missing > 0 ? `, ${missing} missing` : ""}${where}`);
        }),
      ),
      { text: "", pageBreak: "before" },
      heading("Say this before you leave the dock"),
      { text: write(`To ${plan.people.map(({ name }) => name).join(", ") || "everybody"}`, { color: soft }) },
      { ol: briefing.map((line) => write(spell(line))), fontSize: 11 },
      {
        text: write(`${pack.name}: check your local law. ${kind}`, { fontSize: 8, color: soft }),
        margin: [0, 8, 0, 0],
      },
    ],
    footer: (page, pages) => ({
      margin: [48, 14, 48, 0],
      columns: [
        { text: write(`${store.store} · ${boatName} · ${hull}`, { fontSize: 8, color: soft }) },
        { text: `page ${page} of ${pages}`, fontSize: 8, color: soft, alignment: "right" },
      ],
    }),
  };
  return printPdf(document);
}

const verdictWords = {
  go: { says: "Go.", kind: "Go by what was entered; the skipper decides on the day." },
  "no-go": { says: "No go, as planned.", kind: "No go by what was entered." },
  "not-checked": { says: "Not checked: no go until it is.", kind: "What is not known speaks for staying." },
} as const;

/** Said by whoever drives, in a minute, to everybody aboard. */
const briefing = [
  "Where the jackets are, and that each has one that fits. Children wear theirs.",
  "Where the fire extinguisher, the first aid kit and the throwable are.",
  "How the engine is stopped, and who takes the helm if the skipper cannot.",
  "How to call for help: channel 16, the phone, and where we are.",
  "Sit down while we move; hands and feet inside; one hand for the boat.",
  "Nobody in the water and nobody on the platform while an engine runs.",
  "If somebody falls in: shout, point and keep pointing.",
] as const;

function sayPosition({ lat, lon }: { lat: number; lon: number }): string {
  const part = (value: number, signs: string) => {
    const size = Math.abs(value);
    const whole = Math.floor(size);
    return `${whole}° ${((size - whole) * 60).toFixed(2)}' ${signs[value < 0 ? 1 : 0]}`;
  };
  return `${part(lat, "NS")}, ${part(lon, "EW")}`;
}
