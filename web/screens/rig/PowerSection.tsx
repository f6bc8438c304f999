import { createWiring, listNodes, listSwitches, type WiringLink } from "../../../core/power/index.ts";
import {
  changeItem,
  isStandIn,
  type PowerChoice,
  powerSchemes,
  type Rig,
  readPower,
  removeItem,
  schemeNames,
  setPower,
} from "../../../core/rig/index.ts";
import { capitalize } from "../../../core/text/index.ts";
import { Button } from "../../ui/Button.tsx";
import { ManyField, PickField, TextField, TickField } from "../../ui/fields.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { RigFigure } from "./RigFigure.tsx";
import { SheetList } from "./SheetList.tsx";
import { partOptions, type SectionProps } from "./section.ts";

const uses = [
  ["start", "starts the engine"],
  ["house", "feeds the boat"],
  ["bow-motor", "bow motor's own"],
] as const;
const chemistries = [
  ["flooded", "flooded, can be topped up"],
  ["agm", "AGM, sealed"],
  ["lifepo4", "lithium (LiFePO4)"],
] as const;

/** Batteries, their switches, and the wiring that follows from the scheme. */
export function PowerSection({ rig, edit, open, onOpen, by }: SectionProps & { readonly by: string }) {
  const power = readPower(rig);
  const set = (change: Partial<PowerChoice>) => edit((now) => setPower(now, { ...readPower(now), ...change }));
  return (
    <div className="space-y-6">
      <SchemeFields power={power} onChange={set} />
      {rig.powerSwitches.length === 0 && (
        <Button onClick={() => set({})}>Add the battery and switch this scheme needs</Button>
      )}
      <Batteries rig={rig} edit={edit} open={open} onOpen={onOpen} />
      <BatterySwitches rig={rig} edit={edit} open={open} onOpen={onOpen} />
      <Wiring rig={rig} edit={edit} open={open} onOpen={onOpen} />
      <TickField
        label="Looked at on this boat: it is wired so"
        value={rig.wiringChecked !== undefined}
        onChange={(isChecked) =>
          edit(({ wiringChecked: _, ...now }) =>
            isChecked ? { ...now, wiringChecked: { by, on: storeDay(Date.now()) } } : now,
          )
        }
        why="Until then the power map says that its wiring is assumed."
      />
    </div>
  );
}

/** The wiring as a table: what the scheme gives, until somebody changes it. */
function Wiring({ rig, edit, open, onOpen }: SectionProps) {
  const links = rig.wiring ?? createWiring(rig);
  const nodes = listNodes(rig).map((node) => [node, formatNode(rig, node)] as const);
  const switches = listSwitches(rig);
  const change = (id: string, facts: Partial<WiringLink>) =>
    edit(({ wiringChecked: _, ...now }) => ({
      ...now,
      wiring: (now.wiring ?? createWiring(now)).map((link) => (link.id === id ? { ...link, ...facts } : link)),
    }));
  return (
    <details className="border-t border-ink">
      <summary className="head flex min-h-11 items-center justify-between font-bold">
        Wiring, wire by wire
        <span className="font-text font-normal text-soft">
          {links.length} links, {rig.wiring === undefined ? "as the scheme has it" : "changed by hand"}
        </span>
      </summary>
      {rig.wiring !== undefined && (
        <Button
          className="my-2"
          onClick={() =>
            edit((now) => {
              const { wiring: _, ...rest } = now;
              return rest;
            })
          }
        >
          Back to what the scheme gives
        </Button>
      )}
      <SheetList
        name="Wiring"
        items={links}
        open={open}
        onOpen={onOpen}
        titleOf={({ a, b }) => `${formatNode(rig, a)} – ${formatNode(rig, b)}`}
        lineOf={({ kind, switch: of, closedIn }) =>
          kind === "switch"
            ? `${switches.find(({ id }) => id === of)?.label ?? "switch"}: ${(closedIn ?? []).join(", ")}`
            : kind
        }
        onRemove={(id) =>
          edit((now) => ({ ...now, wiring: (now.wiring ?? createWiring(now)).filter((link) => link.id !== id) }))
        }
        empty="Nothing is wired yet."
      >
        {(link) => (
          <LinkFields link={link} nodes={nodes} switches={switches} onChange={(facts) => change(link.id, facts)} />
        )}
      </SheetList>
      <Button
        className="my-2"
        onClick={() => {
          const id = `by-hand-${links.length + 1}`;
          const a = nodes[0]![0];
          edit((now) => ({
            ...now,
            wiring: [...(now.wiring ?? createWiring(now)), { id, kind: "wire", a, b: nodes[1]?.[0] ?? a }],
          }));
          onOpen(id);
        }}
      >
        Add a link
      </Button>
    </details>
  );
}

/** "load:horn" → "Horn". */
function formatNode(rig: Rig, node: string): string {
  const [kind, id = ""] = node.split(":");
  const label = (list: readonly { id: string; label: string }[]) => list.find((item) => item.id === id)?.label;
  if (kind === "battery") return label(rig.batteries) ?? node;
  if (kind === "load") return label(rig.loads) ?? node;
  if (kind === "bus") return `bus of ${(label(rig.batteries) ?? id).toLowerCase()}`;
  const breaker = rig.breakers.find((each) => id === each.id || id.startsWith(`${each.id}-`));
  return breaker === undefined ? node : `after ${breaker.label.toLowerCase()} breaker`;
}

interface SchemeProps {
  readonly power: PowerChoice;
  readonly onChange: (change: Partial<PowerChoice>) => void;
}

function SchemeFields({ power, onChange }: SchemeProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <PickField
        label="Selector scheme"
        value={power.scheme}
        options={powerSchemes.map((scheme) => [scheme, capitalize(schemeNames[scheme])] as const)}
        onChange={(scheme) => onChange({ scheme })}
        why="Batteries and switches it needs are added; then put them where they are."
      />
      <PickField
        label="Charging the banks"
        value={power.join}
        options={[
          ["none", "each by its own, or one only"],
          ["isolator", "through an isolator"],
          ["combiner", "through a combiner relay"],
        ]}
        onChange={(join) => onChange({ join })}
      />
      <PickField
        label="Bow motor batteries"
        value={String(power.bowMotorBatteries) as "0" | "1" | "2" | "3"}
        options={[
          ["0", "none"],
          ["1", "one (12 V)"],
          ["2", "two in a row (24 V)"],
          ["3", "three in a row (36 V)"],
        ]}
        onChange={(count) => onChange({ bowMotorBatteries: Number(count) as PowerChoice["bowMotorBatteries"] })}
        why="The engine does not charge them."
      />
      <TickField
        label="Shore charger aboard"
        value={power.hasShoreCharger}
        onChange={(hasShoreCharger) => onChange({ hasShoreCharger })}
      />
    </div>
  );
}

function Batteries({ rig, edit, open, onOpen }: SectionProps) {
  return (
    <section aria-label="Batteries">
      <h3 className="font-bold">Batteries</h3>
      <SheetList
        name="Batteries"
        items={rig.batteries}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ id, capacityAh, chemistry, use }) =>
          [
            isStandIn(rig, `batteries.${id}.capacityAh`) ? "not read yet" : `${capacityAh} Ah`,
            chemistry,
            uses.find(([id]) => id === use)?.[1],
          ]
            .filter(Boolean)
            .join(", ")
        }
        onRemove={(id) => edit((now) => removeItem(now, "batteries", id))}
        empty="No battery is described yet."
      >
        {(battery) => (
          <BatteryFields
            rig={rig}
            edit={edit}
            battery={battery}
            onChange={(change) => edit((now) => changeItem(now, "batteries", battery.id, change))}
          />
        )}
      </SheetList>
    </section>
  );
}

interface BatteryProps extends Pick<SectionProps, "rig" | "edit"> {
  readonly battery: Rig["batteries"][number];
  readonly onChange: (change: Partial<Rig["batteries"][number]>) => void;
}

function BatteryFields({ rig, edit, battery, onChange }: BatteryProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <TextField label="Called" most={40} value={battery.label} onChange={(label) => onChange({ label })} />
      <PickField
        label="Stands at"
        value={battery.part}
        options={partOptions(rig, ["battery"])}
        onChange={(part) => onChange({ part })}
      />
      <RigFigure rig={rig} edit={edit} at={`batteries.${battery.id}.capacityAh`} />
      <PickField
        label="Kind"
        value={battery.chemistry}
        options={chemistries}
        onChange={(chemistry) => onChange({ chemistry })}
      />
      <PickField label="Use" value={battery.use ?? "start"} options={uses} onChange={(use) => onChange({ use })} />
    </div>
  );
}

function BatterySwitches({ rig, edit, open, onOpen }: SectionProps) {
  return (
    <section aria-label="Battery switches">
      <h3 className="font-bold">Battery switches</h3>
      <SheetList
        name="Battery switches"
        items={rig.powerSwitches}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ positions }) => positions.map(({ label }) => label).join(" · ")}
        onRemove={(id) => edit((now) => removeItem(now, "powerSwitches", id))}
        empty="No battery switch is described yet."
      >
        {(item) => (
          <SwitchFields
            rig={rig}
            item={item}
            onChange={(change) => edit((now) => changeItem(now, "powerSwitches", item.id, change))}
          />
        )}
      </SheetList>
    </section>
  );
}

interface SwitchProps {
  readonly rig: Rig;
  readonly item: Rig["powerSwitches"][number];
  readonly onChange: (change: Partial<Rig["powerSwitches"][number]>) => void;
}

function SwitchFields({ rig, item, onChange }: SwitchProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <TextField label="Called" most={40} value={item.label} onChange={(label) => onChange({ label })} />
      <PickField
        label="Stands at"
        value={item.part}
        options={partOptions(rig, ["selector"])}
        onChange={(part) => onChange({ part })}
      />
      {item.positions.map((position, i) => (
        <TextField
          // biome-ignore lint/suspicious/noArrayIndexKey: a position is known by its place
          key={i}
          label={`“${position.label}” does`}
          most={160}
          value={position.does}
          onChange={(does) =>
            onChange({ positions: item.positions.map((each, j) => (j === i ? { ...each, does } : each)) })
          }
        />
      ))}
    </div>
  );
}

interface LinkProps {
  readonly link: WiringLink;
  readonly nodes: readonly (readonly [string, string])[];
  readonly switches: ReturnType<typeof listSwitches>;
  readonly onChange: (facts: Partial<WiringLink>) => void;
}

function LinkFields({ link, nodes, switches, onChange }: LinkProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
      <PickField label="From" value={link.a} options={nodes} onChange={(a) => onChange({ a })} />
      <PickField label="To" value={link.b} options={nodes} onChange={(b) => onChange({ b })} />
      <PickField
        label="Through a"
        value={link.kind}
        options={(["wire", "fuse", "breaker", "switch"] as const).map((kind) => [kind, kind] as const)}
        onChange={(kind) =>
          onChange(
            kind === "switch"
              ? { kind, switch: switches[0]?.id ?? "", closedIn: [] }
              : ({ kind, switch: undefined, closedIn: undefined } as Partial<WiringLink>),
          )
        }
      />
      {link.kind === "switch" && (
        <>
          <PickField
            label="Switch"
            value={link.switch ?? ""}
            options={switches.map(({ id, label }) => [id, label] as const)}
            onChange={(of) => onChange({ switch: of, closedIn: [] })}
          />
          <ManyField
            label="Conducts in"
            value={link.closedIn ?? []}
            options={(switches.find(({ id }) => id === link.switch)?.positions ?? []).map(
              (position) => [position, position] as const,
            )}
            onChange={(closedIn) => onChange({ closedIn })}
          />
        </>
      )}
    </div>
  );
}
