import type { ReactNode } from "react";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { fieldLook, NumberField, PickField, TextField, TickField } from "../ui/fields.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { jacketOf } from "./jacketOf.ts";
import { RouteFields } from "./RouteFields.tsx";
import type { Trip, TripPort } from "./useTrip.ts";
import { WindFields } from "./WindFields.tsx";

interface FieldsProps {
  readonly trip: Trip;
  readonly port: TripPort;
}

/** What the day out is planned from, in the order in which it is asked; each part opens in place. */
export function TripFields({ trip, port }: FieldsProps) {
  const { draft, change, plan } = trip;
  return (
    <>
      <Part title="When" isOpen>
        <TextField label="Name of the trip" value={draft.name} most={80} onChange={(name) => change({ name })} />
        <div className="grid grid-cols-2 gap-3">
          <label className="text-soft">
            Day
            <DateInput
              value={draft.date}
              onDate={(date) => date !== null && change({ date })}
              className={fieldLook}
              required
            />
          </label>
          <label className="text-soft">
            Leaves at
            <input
              type="time"
              required
              value={draft.departAt}
              onChange={({ target }) => target.value !== "" && change({ departAt: target.value })}
              className={fieldLook}
            />
          </label>
        </div>
        <NumberField
          label="Stay there"
          unit="h"
          value={draft.stayH}
          onChange={(stayH) => stayH !== undefined && change({ stayH })}
          least={0}
          most={72}
        />
      </Part>
      <Part
        title={`Route${draft.legs.length === 0 ? "" : `: ${draft.legs.reduce((sum, { nm }) => sum + nm, 0).toFixed(1)} nm out`}`}
        isOpen
      >
        <RouteFields trip={trip} />
      </Part>
      <Part title="Speed and fuel" isOpen>
        <QuantityField
          label="Cruising speed"
          quantity="waterSpeed"
          value={draft.cruiseKn}
          onChange={(cruiseKn) => change({ cruiseKn })}
          least={1}
          most={80}
          isOptional
        />
        <QuantityField
          label="Burn at that speed, all engines"
          why="From the maker's sheet, or measured between two full tanks."
          quantity="flow"
          value={draft.burnLph}
          onChange={(burnLph) => change({ burnLph })}
          least={0.1}
          most={1000}
          isOptional
        />
        <QuantityField
          label="Fuel aboard"
          quantity="volume"
          value={draft.fuelL}
          onChange={(fuelL) => change({ fuelL })}
          least={0}
          most={5000}
          isOptional
        />
      </Part>
      <Part title={draft.wind.length === 0 ? "Wind: not checked" : "Wind"} isOpen={draft.wind.length === 0}>
        <WindFields trip={trip} port={port} />
      </Part>
      <Part title={`Who is aboard: ${draft.people.length}`}>
        <People trip={trip} />
      </Part>
      <Part title="Water and rules">
        <PickField
          label="Rules for gear"
          value={draft.gearPack}
          options={port.packs.map(({ id, name }) => [id, name])}
          onChange={(gearPack) => change({ gearPack })}
        />
        <NumberField
          label="Farthest from shore"
          unit="nm"
          value={draft.offshoreNm}
          onChange={(nm) => nm !== undefined && change({ offshoreNm: nm })}
          least={0}
          most={500}
        />
      </Part>
      <Part title="Anchor">
        <Anchor trip={trip} />
      </Part>
      <div className="sticky bottom-0 mt-4 flex flex-wrap items-center gap-2 border-t border-ink bg-sheet py-3">
        <Button look="primary" className="min-h-12 flex-1" disabled={plan === null || trip.isSaved} onClick={trip.save}>
          {trip.isSaved ? "Saved" : "Save the trip"}
        </Button>
        {trip.isKept && (
          <>
            <Button className="min-h-12" onClick={trip.begin}>
              New trip
            </Button>
            <Button look="quiet" className="min-h-12" onClick={trip.callOff}>
              Call it off
            </Button>
          </>
        )}
      </div>
    </>
  );
}

function Part({ title, isOpen = false, children }: { title: string; isOpen?: boolean; children: ReactNode }) {
  return (
    <details className="border-t border-rule py-1" open={isOpen}>
      <summary className="flex min-h-11 cursor-pointer items-center font-bold">{title}</summary>
      <div className="space-y-3 pb-2">{children}</div>
    </details>
  );
}

function People({ trip: { draft, change } }: { trip: Trip }) {
  const set = (at: number, part: Partial<(typeof draft.people)[number]>) =>
    change({ people: draft.people.map((person, i) => (i === at ? { ...person, ...part } : person)) });
  return (
    <>
      <ul className="space-y-3">
        {draft.people.map((person, i) => {
          const jacket = jacketOf(person);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: people are known by their place; names may be alike
            <li key={i} className="border-b border-rule pb-2">
              <TextField label={`Name ${i + 1}`} value={person.name} most={80} onChange={(name) => set(i, { name })} />
              <div className="mt-1 flex flex-wrap items-end gap-3">
                <QuantityField
                  label={`Weight ${i + 1}`}
                  quantity="mass"
                  value={person.kg}
                  onChange={(kg) =>
                    change({ people: draft.people.map((each, j) => (j === i ? weigh(each, kg) : each)) })
                  }
                  least={3}
                  most={250}
                  isOptional
                />
                <TickField label="A child" value={person.isChild} onChange={(isChild) => set(i, { isChild })} />
                <Button
                  look="quiet"
                  aria-label={`Not aboard: ${person.name}`}
                  onClick={() => change({ people: draft.people.filter((_, j) => j !== i) })}
                >
                  Not aboard
                </Button>
              </div>
              {jacket !== null && <p className="text-sm text-soft">By weight: {jacket}. Read the label inside it.</p>}
            </li>
          );
        })}
      </ul>
      <Button
        disabled={draft.people.length >= 40}
        onClick={() =>
          change({ people: [...draft.people, { name: `Guest ${draft.people.length + 1}`, isChild: false }] })
        }
      >
        One more person
      </Button>
    </>
  );
}

function weigh({ kg: _, ...person }: Trip["draft"]["people"][number], kg: number | undefined) {
  return kg === undefined ? person : { ...person, kg };
}

function Anchor({ trip: { draft, change } }: { trip: Trip }) {
  const { anchor } = draft;
  if (anchor === null)
    return (
      <Button onClick={() => change({ anchor: { depthM: 4, tideRiseM: 0, bowHeightM: 1, scope: 7 } })}>
        We will anchor
      </Button>
    );
  const set = (part: Partial<typeof anchor>) => change({ anchor: { ...anchor, ...part } });
  return (
    <>
      <QuantityField
        label="Depth there"
        quantity="length"
        value={anchor.depthM}
        onChange={(depthM) => depthM !== undefined && set({ depthM })}
        least={0}
        most={200}
      />
      <QuantityField
        label="Tide still to rise"
        quantity="length"
        value={anchor.tideRiseM}
        onChange={(tideRiseM) => tideRiseM !== undefined && set({ tideRiseM })}
        least={0}
        most={20}
      />
      <QuantityField
        label="Bow above the water"
        quantity="length"
        value={anchor.bowHeightM}
        onChange={(bowHeightM) => bowHeightM !== undefined && set({ bowHeightM })}
        least={0}
        most={10}
      />
      <NumberField
        label="Rode for each of depth"
        why="5 with chain in quiet weather, 7 with rope, 10 when it blows."
        unit="to 1"
        value={anchor.scope}
        onChange={(scope) => scope !== undefined && set({ scope })}
        least={3}
        most={12}
      />
      <Button look="quiet" onClick={() => change({ anchor: null })}>
        We will not anchor
      </Button>
    </>
  );
}
