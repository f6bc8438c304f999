import { type Rig, readHullNumber } from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { NumberField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { splitLines } from "../../ui/splitLines.ts";
import { monthNames } from "../../ui/words.ts";
import { RigFigure } from "./RigFigure.tsx";
import type { SectionProps } from "./section.ts";

export const familyNames: Record<Rig["family"], string> = {
  "centre-console": "Center console",
  pontoon: "Pontoon",
  bowrider: "Bowrider",
  "side-console": "Side console",
  "tow-sport": "Tow-sport boat",
  cuddy: "Cuddy cruiser",
  runabout: "Runabout",
};
/** In the store's spelling. */
export const listFamilies = () =>
  (Object.entries(familyNames) as [Rig["family"], string][]).map(([family, says]) => [family, spell(says)] as const);

interface BoatSectionProps extends SectionProps {
  readonly name: string;
  readonly hull: string;
  readonly onRename: (name: string) => void;
  readonly onRenumber: (hull: string) => void;
}

/** What the boat is: its names and numbers, its size, what it weighs. */
export function BoatSection({ rig, edit, name, hull, onRename, onRenumber }: BoatSectionProps) {
  const set = (change: Partial<Rig>) => edit((now) => ({ ...now, ...change }));
  return (
    <div className="grid gap-x-6 gap-y-4 sm:grid-cols-2">
      <TextField label="Name" value={name} onChange={onRename} most={80} />
      <div>
        <TextField label="Hull identification number" value={hull} onChange={onRenumber} most={20} />
        <HullSays hull={hull} />
      </div>
      <TextField label="Maker" value={rig.maker} onChange={(maker) => set({ maker })} />
      <TextField label="Model" value={rig.model} onChange={(model) => set({ model })} />
      <NumberField
        label="Model year"
        value={rig.modelYear}
        onChange={(year) => year !== undefined && set({ modelYear: year })}
        least={1950}
        most={2100}
        isWhole
      />
      <PickField
        label="Kind of boat"
        value={rig.family}
        options={listFamilies()}
        onChange={(family) => set({ family })}
        why="Gives the drawing its form."
      />
      <RigFigure rig={rig} edit={edit} at="loaM" />
      <RigFigure rig={rig} edit={edit} at="beamM" />
      {rig.family === "pontoon" && (
        <PickField
          label="Tubes"
          value={String(rig.tubes ?? 2) as "2" | "3"}
          options={[
            ["2", "Two"],
            ["3", "Three"],
          ]}
          onChange={(tubes) => set({ tubes: tubes === "3" ? 3 : 2 })}
        />
      )}
      <TickField
        label="Fuel or engine in a closed space"
        value={rig.enclosedFuel}
        onChange={(enclosedFuel) => set({ enclosedFuel })}
        why={spell("Vapor gathers there: the walk then teaches blower and sniffing first.")}
      />
      <UsedFields rig={rig} edit={edit} />
      <WeightFields rig={rig} edit={edit} />
    </div>
  );
}

/** What a hull number says, and what about it looks wrong. */
export function HullSays({ hull }: { hull: string }) {
  const { built, modelYear, doubts, form } = readHullNumber(hull, new Date().getFullYear());
  if (doubts.length > 0) return <p className="text-sm text-amber">▲ {doubts.join(". ")}.</p>;
  return (
    <p className="text-sm text-soft">
      {form === "iso-14" ? "14 characters. " : "12 characters. "}
      Built {built === null ? "" : `${monthNames[built.month - 1]} ${built.year}`}, model year {modelYear}.
    </p>
  );
}

function UsedFields({ rig, edit }: Pick<SectionProps, "rig" | "edit">) {
  return (
    <>
      <TickField
        label="Used boat"
        value={rig.used !== undefined}
        onChange={(isUsed) => edit(({ used: _, ...now }) => (isUsed ? { ...now, used: { changes: [] } } : now))}
        why="Others had it before: what they changed is part of the walk, what was serviced is written down before it goes out."
      />
      {rig.used !== undefined && (
        <div className="sm:col-span-2">
          <TextField
            label="What others changed on it"
            value={rig.used.changes.join("\n")}
            onChange={(text) => edit((now) => ({ ...now, used: { changes: splitLines(text, 160, 20) } }))}
            becomes={(text) => splitLines(text, 160, 20).join("\n")}
            most={3200}
            isOptional
            isLong
            why="A line each, such as: second battery under the port seat, no fuse found."
          />
        </div>
      )}
    </>
  );
}

const weights = ["dryKg", "enginesKg", "gearKg", "ballastL", "sternDraftM"];

function WeightFields({ rig, edit }: Pick<SectionProps, "rig" | "edit">) {
  return (
    <>
      <h3 className="border-t border-ink pt-3 font-bold sm:col-span-2">Weights, from the maker's sheet</h3>
      {weights.map((name) => (
        <RigFigure key={name} rig={rig} edit={edit} at={`weights.${name}`} />
      ))}
    </>
  );
}
