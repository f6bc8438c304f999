import type { RigSheet } from "../../../api/index.ts";
import { addItem, changeItem, createItemId, type Rig, removeItem, sayFigure } from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField, TextField, TickField } from "../../ui/fields.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { RigFigure } from "./RigFigure.tsx";
import { SheetList } from "./SheetList.tsx";
import type { SectionProps } from "./section.ts";

type Engine = Rig["engines"][number];

const kinds = [
  ["outboard", "outboard"],
  ["kicker", "kicker, a small second outboard"],
  ["sterndrive", "sterndrive"],
  ["inboard", "inboard"],
] as const;

/** Engines with their rated band and the packs that say how they are broken in and when they come back. */
export function EnginesSection(props: SectionProps & { packs: Pick<RigSheet, "breakInPacks" | "servicePacks"> }) {
  const { rig, edit, open, onOpen, packs } = props;
  return (
    <div>
      <SheetList
        name="Engines"
        items={rig.engines}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ id, kind, ratedRpm }) =>
          [kind, sayFigure(rig, `engines.${id}.powerKw`, storeRegion()), `rated ${ratedRpm.from}–${ratedRpm.to} rpm`]
            .filter(Boolean)
            .join(", ")
        }
        onRemove={rig.engines.length > 1 ? (id) => edit((now) => removeItem(now, "engines", id)) : undefined}
        empty=""
      >
        {(engine) => (
          <EngineFields
            rig={rig}
            edit={edit}
            engine={engine}
            packs={packs}
            onChange={(change) => edit((now) => changeItem(now, "engines", engine.id, change))}
          />
        )}
      </SheetList>
      {rig.engines.length < 5 && (
        <Button
          className="mt-2"
          onClick={() => {
            const label = rig.engines.length === 1 ? "Second engine" : `Engine ${rig.engines.length + 1}`;
            const id = createItemId(rig, "engines", label);
            edit((now) => addItem(now, "engines", { ...now.engines[0]!, id, label }));
            onOpen(id);
          }}
        >
          Add an engine
        </Button>
      )}
    </div>
  );
}

interface EngineFieldsProps extends Pick<SectionProps, "rig" | "edit"> {
  readonly engine: Engine;
  readonly packs: Pick<RigSheet, "breakInPacks" | "servicePacks">;
  readonly onChange: (change: Partial<Engine>) => void;
}

function EngineFields({ rig, edit, engine, packs, onChange }: EngineFieldsProps) {
  const withNone = (list: readonly { id: string; title: string }[], now: string): [string, string][] => [
    ...(list.some(({ id }) => id === now) ? [] : [[now, "none picked yet"] as [string, string]]),
    ...list.map(({ id, title }): [string, string] => [id, title]),
  ];
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <TextField label="Called" most={40} value={engine.label} onChange={(label) => onChange({ label })} />
      <PickField label="Kind" value={engine.kind} options={kinds} onChange={(kind) => onChange({ kind })} />
      <PickField
        label="Fuel"
        value={engine.fuel ?? "petrol"}
        options={[
          ["petrol", spell("gasoline")],
          ["diesel", "diesel"],
        ]}
        onChange={(fuel) => onChange({ fuel })}
      />
      <PickField
        label="Started by"
        value={engine.start ?? "electric"}
        options={[
          ["electric", "key or button"],
          ["pull", "pulling a cord"],
        ]}
        onChange={(start) => onChange({ start })}
      />
      <PickField
        label="Oil"
        value={engine.twoStrokeOil ?? "four-stroke"}
        options={[
          ["four-stroke", "four-stroke: oil in the engine"],
          ["injected", "two-stroke: an oil tank of its own"],
          ["mixed", "two-stroke: oil mixed into the fuel"],
        ]}
        onChange={(oil) => onChange({ twoStrokeOil: oil === "four-stroke" ? undefined : oil } as Partial<Engine>)}
      />
      <TickField
        label="Digital controls (no cables)"
        value={engine.digitalControls ?? false}
        onChange={(digitalControls) => onChange({ digitalControls })}
      />
      <RigFigure rig={rig} edit={edit} at={`engines.${engine.id}.powerKw`} />
      <div className="flex gap-3">
        <RigFigure rig={rig} edit={edit} at={`engines.${engine.id}.ratedRpm.from`} />
        <RigFigure rig={rig} edit={edit} at={`engines.${engine.id}.ratedRpm.to`} />
      </div>
      <PickField
        label="Hour meter counts"
        value={engine.meter ?? "running"}
        options={[
          ["running", "while the engine runs"],
          ["key-on", "whenever the key is on"],
          ["after-first-hour", "while it runs, shown after the first hour"],
        ]}
        onChange={(meter) => onChange({ meter })}
      />
      <RigFigure rig={rig} edit={edit} at={`engines.${engine.id}.burnLph`} />
      <PickField
        label="Break-in"
        value={engine.breakInPack}
        options={withNone(packs.breakInPacks, engine.breakInPack)}
        onChange={(breakInPack) => onChange({ breakInPack })}
        why="The maker's manual decides."
      />
      <PickField
        label="Service"
        value={engine.servicePack}
        options={withNone(packs.servicePacks, engine.servicePack)}
        onChange={(servicePack) => onChange({ servicePack })}
      />
    </div>
  );
}
