import { addItem, changeItem, createItemId, moveItem, removeItem } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { ManyField, NumberField, PickField, TextField } from "../../ui/fields.tsx";
import { addLoad, loadOptions } from "./loads.ts";
import { SheetList } from "./SheetList.tsx";
import { partOptions, type SectionProps } from "./section.ts";

const resets = [
  ["push-in", "button: push it in"],
  ["flip", "lever: flip it off, then on"],
  ["lever", "colored tab: swing it back"],
] as const;

/** Breakers and fuses by place, label and rating: how each resets, what goes dead when it trips. */
export function BreakersSection({ rig, edit, open, onOpen }: SectionProps) {
  const places = partOptions(rig, ["breakers", "fuse-block", "battery", "selector", "panel"]);
  const labelOf = new Map(loadOptions(rig));
  return (
    <div>
      <SheetList
        name="Breakers"
        items={rig.breakers}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ ratingA, feeds }) =>
          `${ratingA} A, feeds ${feeds.map((id) => labelOf.get(id)).join(", ") || "nothing yet"}`
        }
        onRemove={(id) => edit((now) => removeItem(now, "breakers", id))}
        onMove={(id, to) => edit((now) => moveItem(now, "breakers", id, to))}
        empty="No breaker or fuse yet."
      >
        {(breaker) => {
          const set = (change: Partial<typeof breaker>) =>
            edit((now) => changeItem(now, "breakers", breaker.id, change));
          return (
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <TextField label="Printed label" most={40} value={breaker.label} onChange={(label) => set({ label })} />
              <PickField label="Stands at" value={breaker.part} options={places} onChange={(part) => set({ part })} />
              <NumberField
                label="Rating"
                unit="A"
                value={breaker.ratingA}
                onChange={(ratingA) => ratingA !== undefined && set({ ratingA })}
                least={0.1}
                most={2000}
              />
              <PickField
                label="How it resets"
                value={breaker.resets}
                options={resets}
                onChange={(way) => set({ resets: way })}
              />
              <div className="sm:col-span-2">
                <ManyField
                  label="Feeds"
                  value={breaker.feeds}
                  options={loadOptions(rig)}
                  onChange={(feeds) => set({ feeds })}
                  onCreate={(label) =>
                    edit((now) => {
                      const { rig: next, id } = addLoad(now, label);
                      return changeItem(next, "breakers", breaker.id, { feeds: [...breaker.feeds, id] });
                    })
                  }
                />
              </div>
            </div>
          );
        }}
      </SheetList>
      {places.length === 0 ? (
        <p className="mt-2 text-soft">Put a breaker panel or a fuse block on the plan first, under Places.</p>
      ) : (
        <Button
          className="mt-2"
          onClick={() => {
            const id = createItemId(rig, "breakers", "breaker");
            const part = places[0]![0];
            edit((now) =>
              addItem(now, "breakers", { id, label: "New breaker", part, ratingA: 10, resets: "push-in", feeds: [] }),
            );
            onOpen(id);
          }}
        >
          Add a breaker or fuse
        </Button>
      )}
    </div>
  );
}
