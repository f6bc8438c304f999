import {
  addItem,
  changeItem,
  createItemId,
  isStandIn,
  type Rig,
  removeItem,
  sayFigure,
} from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField, TextField } from "../../ui/fields.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { RigFigure } from "./RigFigure.tsx";
import { SheetList } from "./SheetList.tsx";
import { partOptions, type SectionProps } from "./section.ts";

type Tank = Rig["tanks"][number];

const tankKinds: Record<Tank["kind"], string> = {
  petrol: "gasoline",
  diesel: "diesel",
  "fresh-water": "fresh water",
  waste: "waste",
};

/** Tanks with where they are filled or emptied, and every through-hull valve with what it serves. */
export function TanksSection({ rig, edit, open, onOpen }: SectionProps) {
  const fills = partOptions(rig, ["fill", "pump-out", "portable-tank"]);
  return (
    <div className="space-y-6">
      <section aria-label="Tanks">
        <h3 className="font-bold">Tanks</h3>
        <SheetList
          name="Tanks"
          items={rig.tanks}
          open={open}
          onOpen={onOpen}
          titleOf={({ label }) => label}
          lineOf={({ id, kind, fill }) =>
            [
              spell(tankKinds[kind]),
              isStandIn(rig, `tanks.${id}.litres`)
                ? "not read yet"
                : sayFigure(rig, `tanks.${id}.litres`, storeRegion()),
              fill === undefined && "no fill yet",
            ]
              .filter(Boolean)
              .join(", ")
          }
          onRemove={(id) => edit((now) => removeItem(now, "tanks", id))}
          empty="No tank yet."
        >
          {(tank) => (
            <TankFields
              rig={rig}
              edit={edit}
              tank={tank}
              fills={fills}
              set={(change) => edit((now) => changeItem(now, "tanks", tank.id, change))}
            />
          )}
        </SheetList>
        <Button
          className="mt-2"
          onClick={() => {
            const kind = rig.tanks.some((tank) => tank.kind === "petrol") ? "fresh-water" : "petrol";
            const label = kind === "petrol" ? "Fuel" : "Fresh water";
            const id = createItemId(rig, "tanks", label);
            edit((now) => addItem(now, "tanks", { id, kind, label, litres: 100, usual: true }));
            onOpen(id);
          }}
        >
          Add a tank
        </Button>
      </section>
      <ThroughHulls rig={rig} edit={edit} open={open} onOpen={onOpen} />
    </div>
  );
}

function ThroughHulls({ rig, edit, open, onOpen }: SectionProps) {
  const free = rig.parts.filter(
    ({ id, kind }) => kind === "through-hull" && !rig.throughHulls.some(({ part }) => part === id),
  );
  return (
    <section aria-label="Through-hulls">
      <h3 className="font-bold">Through-hulls</h3>
      <p className="text-sm text-soft">
        Each is a place where water could come in: the buyer must find its valve first.
      </p>
      <SheetList
        name="Through-hulls"
        items={rig.throughHulls}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ serves }) => serves}
        onRemove={(id) => edit((now) => removeItem(now, "throughHulls", id))}
        empty="None is named yet. Put a through-hull on the plan, under Places, then name it here."
      >
        {(valve) => (
          <ValveFields
            rig={rig}
            valve={valve}
            set={(change) => edit((now) => changeItem(now, "throughHulls", valve.id, change))}
          />
        )}
      </SheetList>
      {free.map((part) => (
        <Button
          key={part.id}
          className="mt-2 mr-2"
          onClick={() => {
            const id = createItemId(rig, "throughHulls", part.label);
            edit((now) =>
              addItem(now, "throughHulls", { id, label: part.label, part: part.id, serves: "Not said yet" }),
            );
            onOpen(id);
          }}
        >
          Name what {part.label.toLowerCase()} serves
        </Button>
      ))}
    </section>
  );
}

interface TankProps extends Pick<SectionProps, "rig" | "edit"> {
  readonly tank: Tank;
  readonly fills: ReturnType<typeof partOptions>;
  readonly set: (change: Partial<Tank>) => void;
}

function TankFields({ rig, edit, tank, fills, set }: TankProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <TextField label="Called" most={40} value={tank.label} onChange={(label) => set({ label })} />
      <PickField
        label="Holds"
        value={tank.kind}
        options={(Object.entries(tankKinds) as [Tank["kind"], string][]).map(([kind, says]) => [kind, spell(says)])}
        onChange={(kind) => set({ kind })}
      />
      <RigFigure rig={rig} edit={edit} at={`tanks.${tank.id}.litres`} />
      <PickField
        label="Filled or emptied at"
        value={tank.fill ?? ""}
        options={[["", "not placed yet"], ...fills]}
        onChange={(fill) => set({ fill: fill === "" ? undefined : fill } as Partial<Tank>)}
        why="The wrong cap is the costly mistake; put a fill on the plan for each."
      />
    </div>
  );
}

type Valve = Rig["throughHulls"][number];

interface ValveProps {
  readonly rig: Rig;
  readonly valve: Valve;
  readonly set: (change: Partial<Valve>) => void;
}

function ValveFields({ rig, valve, set }: ValveProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <TextField label="Called" value={valve.label} onChange={(label) => set({ label })} />
      <PickField
        label="Stands at"
        value={valve.part}
        options={partOptions(rig, ["through-hull"])}
        onChange={(part) => set({ part })}
      />
      <TextField label="Serves" most={80} value={valve.serves} onChange={(serves) => set({ serves })} />
    </div>
  );
}
