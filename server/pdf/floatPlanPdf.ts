import type { TDocumentDefinitions } from "pdfmake/interfaces";
import { fromClock, type LocalDate } from "../../core/dates/index.ts";
import type { GearPack } from "../../core/gear/index.ts";
import { createTell } from "../../core/language/index.ts";
import { tellText } from "../../core/region/index.ts";
import { type Rig, sayPlace } from "../../core/rig/index.ts";
import { judgeTrip, overdueAfterMin, sayClock, sayReason, type TripPlan } from "../../core/trip/index.ts";
import { sayAmount } from "../../core/units/index.ts";
import { createDays } from "../days.ts";
import { ink, magenta, soft } from "./ink.ts";
import { type Letterhead, printFoot, printLogo } from "./letterhead.ts";
import type { PaperReader } from "./paperReader.ts";
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
  readonly reader: PaperReader;
  readonly today: LocalDate;
  readonly timeZone: string;
}

/** Left ashore: who is out, in what, where to, when to worry and whom to ring; on its back the briefing for the skipper. */
export function writeFloatPlanPdf(question: FloatPlan): Promise<Buffer> {
  const { plan, rig, boatName, hull, pack, store, paper, reader, today, timeZone } = question;
  const { region } = store;
  const book = reader.book ?? undefined;
  const idiom = { ...region, ...(book === undefined ? {} : { book }) };
  const tell = createTell(reader.book);
  const clock = (minutes: number) => sayClock(minutes, idiom);
  const { printDay } = createDays(region, reader.language);
  const judged = judgeTrip(plan, rig, pack, today, timeZone);
  const { answer, backMin, fuel } = judged;
  const amount = (litres: number) => sayAmount(litres, "volume", region.units);
  const row = (name: string, said: string) => [
    { text: write(name, { color: soft }) },
    { text: write(said, { fontSize: 11 }) },
  ];
  const table = (rows: ReturnType<typeof row>[]) => lined([130, "*"], rows, 0);
  const { kind, says } = verdictWords[judged.verdict];
  const sunset = judged.sunsetMin === null ? [] : [row(tell("Sunset"), clock(judged.sunsetMin))];
  const anchor =
    answer.rodeM === null ? [] : [row(tell("Anchor rode to let out"), sayAmount(answer.rodeM, "length", region.units))];
  const document: TDocumentDefinitions = {
    pageSize: paper === "a4" ? "A4" : "LETTER",
    pageMargins: [48, 52, 48, 56],
    info: { title: `${tell("Float plan")}, ${boatName}, ${plan.date}`, author: store.store },
    tagged: true,
    displayTitle: true,
    language: reader.language,
    defaultStyle: { font: "Atkinson", fontSize: 10, lineHeight: 1.15, color: ink },
    content: [
      ...printLogo(store.picture, 34),
      { text: write(tell("Float plan: {0}", plan.name), { font: "Archivo", bold: true, fontSize: 20 }) },
      { text: write(`${boatName} ${hull}   ${printDay(plan.date)}`, { fontSize: 11 }) },
      {
        text: write(tell("Not heard from by {0}: call them, then marine rescue.", clock(backMin + overdueAfterMin)), {
          font: "Archivo",
          bold: true,
          fontSize: 15,
          color: magenta,
        }),
        margin: [0, 8, 0, 4],
      },
      table([
        row(tell("Leaves"), clock(fromClock(plan.departAt))),
        row(tell("Back"), clock(backMin)),
        row(
          tell("To"),
          plan.legs.map(({ to, nm }) => tell("{0} ({1} sea miles)", to, nm.toFixed(1))).join(", ") ||
            tell("not entered"),
        ),
        ...(plan.from === null ? [] : [row(tell("Starts at"), sayPosition(plan.from))]),
        row(
          tell("Fuel"),
          tell("{0} at the start, {1} left when back", amount(plan.fuelL), amount(Math.max(0, fuel.leftL))),
        ),
        ...sunset,
        ...anchor,
        row(
          tell("Waits ashore"),
          plan.ashore === null ? tell("nobody entered") : `${plan.ashore.name}, ${plan.ashore.phone}`,
        ),
        row(tell("Go or no go"), tell(says)),
      ]),
      ...judged.reasons.map(({ code, weight }) => ({
        text: write(sayReason(code, judged, plan, pack, idiom), {
          color: weight === "stops" ? magenta : ink,
        }),
        margin: [0, 2, 0, 0] as [number, number, number, number],
      })),
      heading(tell("Aboard")),
      table(
        plan.people.map(({ name, isChild, kg }) =>
          row(
            name,
            tell(isChild ? "child" : "adult") +
              (kg === undefined
                ? ""
                : `, ${tell("{0}: a jacket for that weight", sayAmount(kg, "mass", region.units))}`),
          ),
        ),
      ),
      heading(tell("Safety gear and where it is")),
      table(
        judged.gear.items.map(({ rule, needed, good, missing }) => {
          const { label, parts } = pack.rules.find(({ id }) => id === rule)!;
          const part = rig.parts.find((each) => parts.includes(each.kind));

          const count = tell("{0} of {1}", good, needed);
          const lacks = missing > 0 ? `, ${tell("{0} missing", missing)}` : "";
          const counted = count + lacks;
          const says = part === undefined ? counted : tell("{0}: {1}", counted, sayPlace(rig, part, book));
          return row(tellText(label, idiom), says);
        }),
      ),
      { text: "", pageBreak: "before" },
      heading(tell("Say this before you leave the dock")),
      {
        text: write(tell("To {0}", plan.people.map(({ name }) => name).join(", ") || tell("everybody")), {
          color: soft,
        }),
      },
      { ol: briefing.map((line) => write(tellText(line, idiom))), fontSize: 11 },
      {
        text: write(`${tell("{0}: check your local law.", tellText(pack.name, idiom))} ${tell(kind)}`, {
          fontSize: 8,
          color: soft,
        }),
        margin: [0, 8, 0, 0],
      },
    ],
    footer: printFoot(`${boatName} · ${hull}`, store, tell),
  };
  return printPdf(document);
}

export const verdictWords = {
  go: { says: "Go.", kind: "Go by what was entered; the skipper decides on the day." },
  "no-go": { says: "No go, as planned.", kind: "No go by what was entered." },
  "not-checked": { says: "Not checked: no go until it is.", kind: "If something is not known, stay ashore." },
} as const;

/** Said by whoever drives, in a minute, to everybody aboard. */
export const briefing = [
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
