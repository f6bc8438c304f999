import { X } from "lucide-react";
import {
  addItem,
  changeItem,
  changePart,
  createItemId,
  findNearestStation,
  formatPartKind,
  isPowered,
  isReachDoubtful,
  type Part,
  partGroups,
  type Rig,
  removeItem,
  type Station,
  stationKinds,
} from "../../../core/rig/index.ts";
import { cutText } from "../../../core/text/index.ts";
import { partSigns } from "../../plan/partSigns.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField, TextField } from "../../ui/fields.tsx";
import { PhotoField } from "../../ui/PhotoField.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";
import { SheetList } from "./SheetList.tsx";
import type { PlacesProps } from "./section.ts";
import { WorksFields } from "./WorksFields.tsx";

const openings: readonly (readonly [string, string])[] = [
  ["", "does not open"],
  ["hinge", "hinges"],
  ["slide", "slides"],
  ["lift-out", "lifts out"],
  ["screw", "unscrews"],
  ["latch", "latches"],
];

/** Everything that can be pointed at: put it on the plan, say how it is reached, how it opens and what is in it. */
export function PlacesSection({ rig, edit, open, onOpen, armed, onArm, onPut }: PlacesProps) {
  const part = rig.parts.find(({ id }) => id === open);
  return (
    <div className="space-y-6">
      {armed !== null && (
        <div role="status" className="flex flex-wrap items-center gap-3 border-l-4 border-helm bg-panel px-4 py-3">
          <span className="mr-auto">
            <strong>{formatPartKind(armed)}:</strong> touch the plan where it is.
          </span>
          <Button onClick={() => onPut({ xM: Math.round(rig.loaM * 50) / 100, yM: 0 })}>Put it in the middle</Button>
          <Button look="quiet" onClick={() => onArm(null)}>
            Not now
          </Button>
        </div>
      )}
      {part !== undefined && (
        <PartForm
          key={part.id}
          rig={rig}
          part={part}
          edit={edit}
          onChange={(change) => edit((now) => changePart(now, part.id, change))}
          onRemove={() => {
            edit((now) => removeItem(now, "parts", part.id));
            onOpen(null);
          }}
          onClose={() => onOpen(null)}
        />
      )}
      <section aria-label="Put on the plan">
        <h3 className="font-bold">Put on the plan</h3>
        <div className="border-t border-ink">
          {partGroups.map(({ name, kinds }) => (
            <div key={name} className="grid grid-cols-[112px_1fr] border-b border-rule py-1">
              <span className="head pt-2.5 text-sm text-soft">{name}</span>
              <div className="flex flex-wrap gap-x-1">
                {kinds.map((kind) => {
                  const count = rig.parts.filter((each) => each.kind === kind).length;
                  const Sign = partSigns[kind];
                  return (
                    <button
                      key={kind}
                      type="button"
                      aria-pressed={armed === kind}
                      onClick={() => onArm(armed === kind ? null : kind)}
                      className={`min-h-11 rounded-md px-2 ${armed === kind ? "bg-ink font-bold text-sheet" : ""} ${count === 0 ? "text-soft" : ""}`}
                    >
                      <Sign size={16} className="mr-1 inline" aria-hidden />
                      {formatPartKind(kind)}
                      {count > 0 && <span className="num ml-1 font-bold">{count}</span>}
                    </button>
                  );
                })}
              </div>
            </div>
          ))}
        </div>
      </section>
      <section aria-label="On the plan">
        <h3 className="font-bold">
          On the plan <span className="num font-normal text-soft">{rig.parts.length}</span>
        </h3>
        {rig.stations.map((station) => {
          const here = rig.parts.filter((each) => each.station === station.id);
          if (here.length === 0) return null;
          return (
            <div key={station.id} className="border-t border-rule py-1">
              <p className="head text-sm text-soft">{station.label}</p>
              <div className="flex flex-wrap gap-x-4">
                {here.map(({ id, label, reach }) => (
                  <button
                    key={id}
                    type="button"
                    onClick={() => onOpen(id)}
                    aria-pressed={open === id}
                    className={`min-h-11 text-left underline decoration-rule underline-offset-4 ${open === id ? "font-bold" : ""}`}
                  >
                    {label}
                    {reach === undefined && <span className="text-soft"> ·</span>}
                  </button>
                ))}
              </div>
            </div>
          );
        })}
        <p className="text-sm text-soft">A dot stands where it is not said yet how to reach a thing.</p>
      </section>
      <Stations rig={rig} edit={edit} open={open} onOpen={onOpen} />
    </div>
  );
}

interface PartFormProps {
  readonly rig: Rig;
  readonly part: Part;
  readonly edit: PlacesProps["edit"];
  readonly onChange: (change: Partial<Part>) => void;
  readonly onRemove: () => void;
  readonly onClose: () => void;
}

function PartForm({ rig, part, edit, onChange, onRemove, onClose }: PartFormProps) {
  return (
    <section aria-label={part.label} className="border-l-4 border-helm bg-panel px-4 pt-2 pb-4">
      <div className="flex items-center justify-between">
        <h3 className="text-lg font-bold">{formatPartKind(part.kind)}</h3>
        <span className="flex gap-2">
          <Button look="quiet" onClick={onRemove}>
            Take it off the plan
          </Button>
          <Button look="quiet" className="w-11 px-0!" aria-label="Close these fields" onClick={onClose}>
            <X size={18} aria-hidden />
          </Button>
        </span>
      </div>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField label="Called" value={part.label} onChange={(label) => onChange({ label })} />
        <PickField
          label="Explained at"
          value={part.station}
          options={rig.stations.map(({ id, label }) => [id, label] as const)}
          onChange={(station) => onChange({ station })}
          why="Where people stand when it is shown."
        />
        <TextField
          label="How to reach it"
          value={part.reach ?? ""}
          onChange={(reach) => onChange({ reach: reach === "" ? undefined : reach } as Partial<Part>)}
          most={160}
          isOptional
          placeholder="Under the helm seat, port side"
          why="Said aloud in the walk and printed on the cards."
        />
        {part.usual === true && (
          <ToConfirm
            says="It was put where such boats usually have it. Move it on the plan, or"
            yes="it stands right"
            onYes={() => onChange({ usual: undefined } as Partial<Part>)}
          />
        )}
        {isReachDoubtful(part) && (
          <ToConfirm
            says="It was moved since this was written. Write it anew, or"
            yes="it still holds"
            onYes={() => onChange({ reachAt: undefined } as Partial<Part>)}
          />
        )}
        <PickField
          label="Opens"
          value={part.opens ?? ""}
          options={openings}
          onChange={(opens) => onChange({ opens: opens === "" ? undefined : opens } as Partial<Part>)}
        />
        <TextField
          label="What is in it"
          value={(part.holds ?? []).join(", ")}
          onChange={(text) => onChange({ holds: splitList(text) } as Partial<Part>)}
          becomes={(text) => (splitList(text) ?? []).join(", ")}
          most={400}
          isOptional
          placeholder="four jackets, first aid box"
          why="Things with commas between."
        />
        <PhotoField label="Photo of it" value={part.photo} onChange={(photo) => onChange({ photo } as Partial<Part>)} />
        <div className="flex gap-3">
          <QuantityField
            label="Forward of transom"
            quantity="length"
            value={part.at.xM}
            onChange={(xM) => xM !== undefined && onChange({ at: { ...part.at, xM } })}
            least={-5}
            most={40}
          />
          <QuantityField
            label="To starboard"
            quantity="length"
            value={part.at.yM}
            onChange={(yM) => yM !== undefined && onChange({ at: { ...part.at, yM } })}
            least={-8}
            most={8}
          />
        </div>
      </div>
      {isPowered(part) && <WorksFields rig={rig} part={part} edit={edit} />}
    </section>
  );
}

/** What somebody has to look at: mended in its field, or said to be right. */
function ToConfirm({ says, yes, onYes }: { says: string; yes: string; onYes: () => void }) {
  return (
    <p role="status" className="self-center border-l-4 border-amber pl-3">
      {says}{" "}
      <button type="button" className="min-h-11 underline" onClick={onYes}>
        {yes}
      </button>
      .
    </p>
  );
}

function splitList(text: string): string[] | undefined {
  const things = text
    .split(",")
    .map((thing) => cutText(thing.trim(), 80))
    .filter((thing) => thing !== "")
    .slice(0, 30);
  return things.length === 0 ? undefined : things;
}

const stationOptions = stationKinds.map((kind) => [kind, kind[0]!.toUpperCase() + kind.slice(1)] as const);

function Stations({ rig, edit, open, onOpen }: Omit<PlacesProps, "armed" | "onArm" | "onPut">) {
  const change = (id: string, facts: Partial<Station>) => edit((now) => changeItem(now, "stations", id, facts));
  return (
    <section aria-label="Places to stand">
      <h3 className="font-bold">Places to stand</h3>
      <p className="text-sm text-soft">Stops of the walk. Each thing is explained at one of them.</p>
      <SheetList
        name="Places to stand"
        items={rig.stations}
        open={open}
        onOpen={onOpen}
        titleOf={({ label }) => label}
        lineOf={({ id, level }) =>
          `${level === "aboard" ? "aboard" : "on the ground"}, ${rig.parts.filter(({ station }) => station === id).length} things`
        }
        onRemove={(id) => edit((now) => removeItem(now, "stations", id))}
        empty=""
      >
        {(station) => (
          <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
            <TextField
              label="Called"
              most={40}
              value={station.label}
              onChange={(label) => change(station.id, { label })}
            />
            <PickField
              label="Is the"
              value={station.kind}
              options={stationOptions}
              onChange={(kind) => change(station.id, { kind })}
              why="Topics are explained at kinds of places."
            />
            <QuantityField
              label="Forward of transom"
              quantity="length"
              value={station.at.xM}
              onChange={(xM) => xM !== undefined && change(station.id, { at: { ...station.at, xM } })}
              least={-5}
              most={40}
            />
            <QuantityField
              label="To starboard"
              quantity="length"
              value={station.at.yM}
              onChange={(yM) => yM !== undefined && change(station.id, { at: { ...station.at, yM } })}
              least={-8}
              most={8}
            />
            {rig.parts.some((part) => part.station === station.id) && (
              <p className="text-sm text-soft sm:col-span-2">
                It stays while things are explained here.{" "}
                <button
                  type="button"
                  className="min-h-11 underline"
                  onClick={() =>
                    edit((now) =>
                      removeItem(
                        {
                          ...now,
                          parts: now.parts.map((part) =>
                            part.station === station.id
                              ? { ...part, station: nearestOther(now, station.id, part) }
                              : part,
                          ),
                        },
                        "stations",
                        station.id,
                      ),
                    )
                  }
                >
                  Tell them at the nearest other place, and remove this one
                </button>
              </p>
            )}
          </div>
        )}
      </SheetList>
      <Button
        className="mt-2"
        onClick={() => {
          const id = createItemId(rig, "stations", "place");
          const at = { xM: Math.round(rig.loaM * 50) / 100, yM: 0 };
          edit((now) => addItem(now, "stations", { id, kind: "cockpit", label: "New place", at, level: "aboard" }));
          onOpen(id);
        }}
      >
        Add a place to stand
      </Button>
    </section>
  );
}

const nearestOther = (rig: Rig, gone: string, { at }: Part) =>
  findNearestStation({ ...rig, stations: rig.stations.filter(({ id }) => id !== gone) }, at);
