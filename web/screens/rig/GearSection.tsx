import { addItem, changeItem, createItemId, type Rig, removeItem } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { NumberField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { SheetList } from "./SheetList.tsx";
import type { SectionProps } from "./section.ts";

type Gear = Rig["gear"][number];

const groups: Record<Gear["group"], string> = {
  keys: "Keys",
  papers: "Papers",
  safety: "Safety",
  water: "Water and hoses",
  deck: "Deck",
  trailer: "Trailer",
};

/** What is handed over loose, to be counted when the walk is closed. */
export function GearSection({ rig, edit, open, onOpen }: SectionProps) {
  return (
    <div>
      <SheetList
        name="Loose gear"
        items={rig.gear}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ group, count, must }) => `${count}, ${groups[group].toLowerCase()}${must ? ", must be there" : ""}`}
        onRemove={(id) => edit((now) => removeItem(now, "gear", id))}
        onMove={undefined}
        empty="Nothing yet. Keys and papers first."
      >
        {(item) => {
          const set = (change: Partial<Gear>) => edit((now) => changeItem(now, "gear", item.id, change));
          return (
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <TextField label="What" value={item.label} onChange={(label) => set({ label })} />
              <PickField
                label="Counted with"
                value={item.group}
                options={Object.entries(groups) as [Gear["group"], string][]}
                onChange={(group) => set({ group })}
              />
              <NumberField
                label="How many"
                value={item.count}
                onChange={(count) => count !== undefined && set({ count })}
                least={1}
                most={99}
                isWhole
              />
              <TickField
                label="Must be there"
                value={item.must}
                onChange={(must) => set({ must })}
                why="Short of it, the handover cannot be closed without a reason."
              />
            </div>
          );
        }}
      </SheetList>
      <Button
        className="mt-2"
        onClick={() => {
          const id = createItemId(rig, "gear", "gear");
          edit((now) => addItem(now, "gear", { id, label: "New thing", group: "deck", count: 1, must: false }));
          onOpen(id);
        }}
      >
        Add loose gear
      </Button>
    </div>
  );
}
