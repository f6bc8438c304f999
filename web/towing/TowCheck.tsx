import { type ReactNode, useMemo, useState } from "react";
import type { TowingSheet } from "../../api/index.ts";
import { type Tell, tellJoined } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { askTow, type TowCheckSheet, type TowLoad, type TowRules, towWords, usualLoad } from "../../core/tow/index.ts";
import { say } from "../ui/amounts.ts";
import { PickField } from "../ui/fields.tsx";
import { SliderField } from "../ui/SliderField.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import { formatDayAndYear } from "../ui/words.ts";
import type { SaveCar } from "./CarForm.tsx";
import { CarPlates } from "./CarPlates.tsx";
import { TongueWeight } from "./TongueWeight.tsx";
import { TowBars } from "./TowBars.tsx";

interface TowCheckProps {
  readonly rig: Rig;
  readonly sheet: Pick<TowingSheet, "vehicle" | "rules">;
  /** How the car is saved; null for whoever may only look. */
  readonly save: SaveCar | null;
  /** What else may be done with the rules that were picked. */
  readonly children?: (rules: TowRules) => ReactNode;
}

/** Every limit of car, trailer and boat with what stands against it, the weakest first: for the yard and on the owner's page. */
export function TowCheck({ rig, sheet, save, children }: TowCheckProps) {
  const tell = useTell();
  const [load, setLoad] = useState<TowLoad>(() => usualLoad(rig));
  const [rulesId, setRulesId] = useState(sheet.rules[0]!.id);
  const rules = sheet.rules.find(({ id }) => id === rulesId) ?? sheet.rules[0]!;
  const check = useMemo(() => askTow(rig, sheet.vehicle, load, rules), [rig, sheet.vehicle, load, rules]);
  return (
    <div className="@container">
      <div className="gap-x-8 @3xl:grid @3xl:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-w-0">
          <Verdict check={check} car={sheet.vehicle?.name ?? null} />
          <TowBars checks={check.checks} ask={check.ask} rules={rules} />
          {check.unread.length > 0 && <Unread check={check} />}
          <TongueWeight rig={rig} check={check} />
        </div>
        <div className="mt-6 space-y-4 @3xl:mt-0">
          {save !== null && <CarPlates save={save} vehicle={sheet.vehicle} />}
          <h2 className="text-lg font-bold">{tell("What rides along")}</h2>
          <LoadSliders rig={rig} load={load} onChange={(change) => setLoad((now) => ({ ...now, ...change }))} />
          <PickField
            label={tell("Rules")}
            value={rules.id}
            options={sheet.rules.map(({ id, name }) => [id, tell(name)])}
            onChange={setRulesId}
          />
          <Rules rules={rules} />
          {children?.(rules)}
        </div>
      </div>
    </div>
  );
}

const whatIsMissing = {
  boat: "what the boat weighs",
  trailer: "what the trailer weighs",
  tongue: "the tongue weight",
};

/** Checks that hang on the trailer's own plates. */
const trailersOwn: ReadonlySet<TowCheckSheet["checks"][number]["id"]> = new Set([
  "trailer-gross",
  "axles",
  "tyres",
  "coupler",
  "tongue-trailer",
] as const);

/** The answer in a sentence, and what to do about it. */
function Verdict({ check, car }: { check: TowCheckSheet; car: string | null }) {
  const tell = useTell();
  const { answer, checks, missing, unread } = check;
  if (answer === null && checks.every(({ verdict }) => verdict === "ok"))
    return (
      <h1 className="text-2xl font-extrabold">
        {tell(
          "Nothing can be said yet: {0} is not on the boat sheet.",
          tellJoined(
            tell,
            missing.map((what) => tell(whatIsMissing[what])),
          ),
        )}
      </h1>
    );
  const over = checks.filter(({ verdict }) => verdict === "over");
  const name = car ?? tell("the car");
  // What the trailer itself does not carry no car makes right.
  const [ofTrailer, ofCar] = [true, false].map((isOwn) => over.filter(({ id }) => trailersOwn.has(id) === isOwn));
  const refuse = (what: string, list: typeof over) =>
    tell(
      "▲ Not with {0}: {1}.",
      what,
      tellJoined(
        tell,
        list.map(({ id }) => nameOf(id)),
      ),
    );
  const nameOf = (id: TowCheckSheet["checks"][number]["id"]) => tell(towWords[id][0]).toLowerCase();
  const says =
    over.length > 0
      ? [
          ...(ofTrailer!.length > 0 ? [refuse(tell("this trailer"), ofTrailer!)] : []),
          ...(ofCar!.length > 0 ? [refuse(name, ofCar!)] : []),
        ].join(" ")
      : unread.length > 0
        ? tell("No limit is passed so far. {0} of 15 figures are still missing.", unread.length)
        : checks[0]!.verdict === "tight"
          ? tell("It may go on the road, with little to spare: {0}.", nameOf(checks[0]!.id))
          : tell("It may go on the road.");
  return (
    <>
      <h1 className={`text-2xl font-extrabold md:text-3xl ${over.length > 0 ? "text-magenta" : ""}`} aria-live="polite">
        {says}
      </h1>
      <p className="mt-1 text-lg">
        {answer === null
          ? tell(
              "The rest needs {0}.",
              tellJoined(
                tell,
                missing.map((what) => tell(whatIsMissing[what])),
              ),
            )
          : tell(
              unread.includes("combined")
                ? "{0} to pull: trailer, boat and all in it."
                : "{0} to pull: trailer, boat and all in it; {1} with the car.",
              say(answer.towedKg, "mass"),
              say(answer.combinedKg, "mass"),
            )}{" "}
        {answer !== null && sayShed(check, tell)}
      </p>
    </>
  );
}

function sayShed({ answer, checks }: TowCheckSheet, tell: Tell): string {
  const masses = checks.filter(({ verdict, limit }) => verdict === "over" && limit > 0);
  if (masses.length === 0) return "";
  if (answer!.shedKg === null)
    return tell("Taking out fuel, water and gear is not enough: it takes another car, hitch or trailer.");
  return tell(
    "Take out {0} of fuel, water or gear, and every weight is within its limit.",
    say(answer!.shedKg, "mass"),
  );
}

function Unread({ check: { unread } }: { check: TowCheckSheet }) {
  const tell = useTell();
  return (
    <section aria-labelledby="unread" className="mt-5">
      <h2 id="unread" className="text-lg font-bold">
        {tell("Not read yet")}
      </h2>
      <ul className="border-t border-ink">
        {unread.map((id) => (
          <li key={id} className="border-b border-rule py-1.5">
            <strong>{tell(towWords[id][0])}</strong> <span className="text-soft">{tell(towWords[id][1])}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface SlidersProps {
  readonly rig: Rig;
  readonly load: TowLoad;
  readonly onChange: (change: Partial<TowLoad>) => void;
}

function LoadSliders({ rig, load, onChange }: SlidersProps) {
  const tell = useTell();
  const litresOf = (...kinds: string[]) =>
    rig.tanks.filter(({ kind }) => kinds.includes(kind)).reduce((sum, { litres }) => sum + litres, 0);
  const tanks = [
    ["fuelShare", "Fuel", litresOf("petrol", "diesel")],
    ["waterShare", "Fresh water", litresOf("fresh-water")],
    ["ballastShare", "Ballast", rig.weights?.ballastL ?? 0],
  ] as const;
  return (
    <>
      {tanks.map(([name, label, litres]) =>
        litres === 0 ? null : (
          <SliderField
            key={name}
            label={tell(label)}
            value={load[name]}
            says={say(litres * load[name], "volume")}
            least={0}
            most={1}
            step={0.05}
            onChange={(share) => onChange({ [name]: share })}
          />
        ),
      )}
      <SliderField
        label={tell("Gear aboard")}
        value={load.gearKg}
        says={say(load.gearKg, "mass")}
        least={0}
        most={600}
        step={5}
        onChange={(gearKg) => onChange({ gearKg })}
      />
    </>
  );
}

function Rules({ rules }: { rules: TowRules }) {
  const reader = useReader();
  const { tell } = reader;
  return (
    <div className="rounded-md bg-caution px-4 py-3 text-oncaution">
      <p className="font-semibold">
        {tell(
          rules.isExample
            ? "Check your local law; this is an example, nobody's law. Last checked {0}."
            : "Check your local law. Last checked {0}.",
          formatDayAndYear(rules.checkedOn, reader),
        )}
      </p>
      <p>{tell("Brakes from {0}.", say(rules.brakesAboveKg, "mass"))}</p>
      <ul className="list-disc pl-5">
        {rules.notes.map((note) => (
          <li key={note}>{tell(note)}</li>
        ))}
      </ul>
    </div>
  );
}
