import {
  addItem,
  changeItem,
  createItemId,
  hasBehind,
  moveItem,
  type PanelSwitch,
  type Rig,
  removeItem,
  switchKinds,
} from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { ManyField, NumberField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { addLoad, loadOptions, readRuns, runOptions, writeRuns } from "./loads.ts";
import { SheetList } from "./SheetList.tsx";
import type { SectionProps } from "./section.ts";

const kindNames: Record<PanelSwitch["kind"], string> = {
  "two-position": "two positions",
  "three-position": "three positions, middle off",
  momentary: "momentary (springs back)",
  "press-and-hold": "press and hold",
  "push-to-cycle": "push to go through",
  lamp: "only a lamp",
};
const usualPositions: Record<PanelSwitch["kind"], readonly string[]> = {
  "two-position": ["On", "Off"],
  "three-position": ["Up", "Off", "Down"],
  momentary: ["Pressed"],
  "press-and-hold": ["Held"],
  "push-to-cycle": ["First", "Second", "Off"],
  lamp: [],
};

/** The switch panel in physical order, left to right and top to bottom, as one reads it at the helm. */
export function PanelSection({ rig, edit, open, onOpen }: SectionProps) {
  const labelOf = new Map(loadOptions(rig));
  return (
    <div className="space-y-6">
      <PanelPicture rig={rig} open={open} onOpen={onOpen} />
      <section aria-label="Switches">
        <h3 className="font-bold">Switches, in their order</h3>
        <SheetList
          name="Switches"
          items={rig.panel}
          open={open}
          onOpen={onOpen}
          titleOf={({ label }, i) => `${i + 1}  ${label ?? "no label"}`}
          lineOf={(item) =>
            hasBehind(item)
              ? item.positions
                  .filter(({ powers }) => powers.length > 0)
                  .map(({ label, powers }) => `${label}: ${powers.map((id) => labelOf.get(id)).join(", ")}`)
                  .join("; ")
              : item.kind === "lamp"
                ? "a lamp"
                : "nothing behind it"
          }
          onRemove={(id) => edit((now) => removeItem(now, "panel", id))}
          onMove={(id, to) => edit((now) => moveItem(now, "panel", id, to))}
          empty="No switch yet. Begin top left and go as you read."
        >
          {(item) => <SwitchFields rig={rig} item={item} edit={edit} />}
        </SheetList>
        <Button
          className="mt-2"
          onClick={() => {
            const id = createItemId(rig, "panel", "switch");
            edit((now) => addItem(now, "panel", createSwitch(id)));
            onOpen(id);
          }}
        >
          Add a switch
        </Button>
      </section>
      <Loads rig={rig} edit={edit} open={open} onOpen={onOpen} />
    </div>
  );
}

const createSwitch = (id: string): PanelSwitch => ({
  id,
  label: "New switch",
  kind: "two-position",
  positions: usualPositions["two-position"].map((label) => ({ label, powers: [] })),
  lamp: false,
});

function SwitchFields({ rig, item, edit }: { rig: Rig; item: PanelSwitch; edit: SectionProps["edit"] }) {
  const set = (change: Partial<PanelSwitch>) => edit((now) => changeItem(now, "panel", item.id, change));
  const setPosition = (i: number, change: Partial<PanelSwitch["positions"][number]>) =>
    set({ positions: item.positions.map((each, j) => (j === i ? { ...each, ...change } : each)) });
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <div>
        {item.label !== null && (
          <TextField label="Printed label" most={40} value={item.label} onChange={(label) => set({ label })} />
        )}
        <TickField
          label="No label on it"
          value={item.label === null}
          onChange={(isBare) => set({ label: isBare ? null : "New switch" })}
        />
      </div>
      <PickField
        label="Kind"
        value={item.kind}
        options={switchKinds.map((kind) => [kind, kindNames[kind]] as const)}
        onChange={(kind) =>
          set({
            kind,
            positions: usualPositions[kind].map((label, i) => ({ label, powers: item.positions[i]?.powers ?? [] })),
          })
        }
      />
      {item.positions.map((position, i) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: a position is known by its place
          key={i}
          className="grid grid-cols-[110px_1fr] gap-3 sm:col-span-2"
        >
          <TextField
            label={`Position ${i + 1}`}
            most={20}
            value={position.label}
            onChange={(label) => setPosition(i, { label })}
          />
          <ManyField
            label={`“${position.label}” powers`}
            value={position.powers}
            options={loadOptions(rig)}
            onChange={(powers) => setPosition(i, { powers })}
            onCreate={(label) =>
              edit((now) => {
                const { rig: next, id } = addLoad(now, label);
                const positions = item.positions.map((each, j) =>
                  j === i ? { ...each, powers: [...each.powers, id] } : each,
                );
                return changeItem(next, "panel", item.id, { positions });
              })
            }
          />
        </div>
      ))}
      <TickField label="Has a lamp that lights" value={item.lamp} onChange={(lamp) => set({ lamp })} />
      <TextField
        label="Note"
        most={200}
        isOptional
        value={item.note ?? ""}
        onChange={(note) => set({ note: note === "" ? undefined : note } as Partial<PanelSwitch>)}
        placeholder="Lights by itself when the float is up"
      />
      {!hasBehind(item) && item.kind !== "lamp" && (
        <p className="text-sm text-soft sm:col-span-2">
          Nothing behind it: the walk says so, so that nobody wonders what it does.
        </p>
      )}
    </div>
  );
}

/** The panel as it looks: four across. */
function PanelPicture({ rig, open, onOpen }: { rig: Rig; open: string | null; onOpen: (id: string) => void }) {
  if (rig.panel.length === 0) return null;
  return (
    <div className="grid grid-cols-4 gap-1 rounded-md border border-ink bg-shoal p-2 lg:grid-cols-7" aria-hidden>
      {rig.panel.map((item, i) => (
        <button
          key={item.id}
          type="button"
          tabIndex={-1}
          onClick={() => onOpen(item.id)}
          className={`flex min-h-16 flex-col items-center justify-between rounded-sm border px-1 py-1 text-center text-xs ${open === item.id ? "border-2 border-helm" : "border-soft"} ${hasBehind(item) || item.kind === "lamp" ? "bg-panel" : "border-dashed bg-transparent text-soft"}`}
        >
          <span className="num self-start text-soft">{i + 1}</span>
          <span className="leading-tight font-semibold">{item.label ?? "–"}</span>
          <span className="flex h-3 items-center gap-0.5">
            {item.positions.map((position, j) => (
              <span
                // biome-ignore lint/suspicious/noArrayIndexKey: a position is known by its place
                key={j}
                className={`size-1.5 rounded-full border border-ink ${position.powers.length > 0 ? "bg-ink" : ""}`}
              />
            ))}
            {item.lamp && <span className="ml-1 size-2 bg-amber" />}
          </span>
        </button>
      ))}
    </div>
  );
}

/** Everything that uses power: what it draws, whether it is always live, what it runs. */
function Loads({ rig, edit, open, onOpen }: SectionProps) {
  return (
    <section aria-label="What uses power">
      <h3 className="font-bold">What uses power</h3>
      <SheetList
        name="What uses power"
        items={rig.loads}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ amps, always }) => `${amps} A${always ? ", live with everything off" : ""}`}
        onRemove={(id) => edit((now) => removeItem(now, "loads", id))}
        empty="Nothing yet. Type a new name under what a switch powers."
      >
        {(load) => {
          const set = (change: Partial<typeof load>) => edit((now) => changeItem(now, "loads", load.id, change));
          return (
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <TextField label="Called" value={load.label} onChange={(label) => set({ label })} />
              <NumberField
                label="Draws"
                unit="A"
                value={load.amps}
                onChange={(amps) => amps !== undefined && set({ amps })}
                least={0.01}
                most={2000}
                why="From its label or manual; the flat-battery arithmetic uses it."
              />
              <ManyField
                label="Runs"
                value={readRuns(load, rig)}
                options={runOptions(rig)}
                onChange={(picked) => set(writeRuns(picked, rig) as Partial<typeof load>)}
                why="The thing aboard that goes dead without it."
              />
              <PickField
                label="Fed from"
                value={load.from ?? ""}
                options={[["", "the usual battery"], ...rig.batteries.map(({ id, label }) => [id, label] as const)]}
                onChange={(from) => set({ from: from === "" ? undefined : from } as Partial<typeof load>)}
              />
              <TickField
                label="Measured on this boat"
                value={load.measured ?? false}
                onChange={(measured) => set({ measured: measured || undefined } as Partial<typeof load>)}
                why="Else it counts as what such a thing usually draws."
              />
              <TickField
                label="Live with every switch off"
                value={load.always}
                onChange={(always) => set({ always })}
                why="An automatic bilge pump, a stereo's memory."
              />
            </div>
          );
        }}
      </SheetList>
      <Button
        className="mt-2"
        onClick={() => {
          const { rig: next, id } = addLoad(rig, "New consumer");
          edit(() => next);
          onOpen(id);
        }}
      >
        Add what uses power
      </Button>
    </section>
  );
}
