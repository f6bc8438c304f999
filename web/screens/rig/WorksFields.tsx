import {
  completeWorks,
  drawBy,
  feedBy,
  findWorks,
  guardBy,
  isPumped,
  isSwitchedOnPanel,
  isWatered,
  listMissingWorks,
  type Part,
  type Rig,
  switchBy,
} from "../../../core/rig/index.ts";
import { joinWords } from "../../../core/text/index.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField } from "../../ui/fields.tsx";

interface WorksProps {
  readonly rig: Rig;
  readonly part: Part;
  readonly edit: (change: (now: Rig) => Rig) => void;
}

const none = "";
const fresh = "+";

/** What a thing works by, in one place: its pump, its switch, its breaker, the valve its water comes through. */
export function WorksFields({ rig, part, edit }: WorksProps) {
  const { loads, switches, breakers, valves } = findWorks(rig, part);
  const ids = loads.map(({ id }) => id);
  const pump = `${part.label} pump`;
  const isAlways = loads.length > 0 && loads.every(({ always }) => always);
  const missing = listMissingWorks(rig, part);
  const choices = (items: readonly { id: string; label: string | null }[], newOne: string) => [
    [none, "not described"] as const,
    ...items.map(({ id, label }, i) => [id, label ?? `no label, place ${i + 1}`] as const),
    [fresh, `a new one, “${newOne}”`] as const,
  ];
  const named = (value: string, label: string) => (value === fresh ? { label } : value);
  return (
    <fieldset className="mt-4 border-t border-rule pt-3">
      <legend className="pr-3 font-bold">What it works by</legend>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <PickField
          label={isPumped(part) ? "Pump" : "Draws power as"}
          value={ids[0] ?? none}
          options={choices(rig.loads, isPumped(part) ? pump : part.label)}
          onChange={(value) =>
            value !== none && edit((now) => feedBy(now, part, named(value, isPumped(part) ? pump : part.label)))
          }
          {...(loads.length > 1 ? { why: `Together: ${joinWords(loads.map(({ label }) => label))}.` } : {})}
        />
        {loads.length > 0 && (
          <>
            <PickField
              label="Switch"
              value={switches[0]?.id ?? none}
              options={choices(
                rig.panel.filter(({ kind }) => kind !== "lamp"),
                part.label,
              )}
              onChange={(value) => value !== none && edit((now) => switchBy(now, ids, named(value, part.label)))}
              {...(switches.length > 0
                ? {}
                : isAlways
                  ? { why: "Live with every switch off." }
                  : isSwitchedOnPanel(part)
                    ? {}
                    : { why: "None, if it has a button of its own." })}
            />
            <PickField
              label="Breaker or fuse"
              value={breakers[0]?.id ?? none}
              options={choices(rig.breakers, part.label)}
              onChange={(value) => value !== none && edit((now) => guardBy(now, ids, named(value, part.label)))}
            />
          </>
        )}
        {isWatered(part) && (
          <PickField
            label="Valve its water comes through"
            value={valves[0]?.part ?? none}
            options={[
              [none, rig.throughHulls.length === 0 ? "none: put a through-hull on the plan first" : "not described"],
              ...rig.throughHulls.map(({ part: valve, label }) => [valve, label] as const),
            ]}
            onChange={(value) =>
              edit((now) => drawBy(now, part, now.throughHulls.find((each) => each.part === value)?.id ?? null))
            }
          />
        )}
      </div>
      {missing.length > 0 && (
        <Button className="mt-3" onClick={() => edit((now) => completeWorks(now, part))}>
          Add its {joinWords(missing)}
        </Button>
      )}
    </fieldset>
  );
}
