import type { ReactNode } from "react";
import { Button } from "../ui/Button.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { fieldLook, NumberField, PickField, TextField, TickField } from "../ui/fields.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { useTell } from "../ui/tell.ts";
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
  const tell = useTell();
  const { draft, change, plan } = trip;
  return (
    <>
      <Part title={tell("When")} isOpen>
        <TextField
          label={tell("Name of the trip")}
          value={draft.name}
          most={80}
          onChange={(name) => change({ name })}
        />
        <div className="grid grid-cols-2 gap-3">
          <label className="text-soft">
            {tell("Day")}
            <DateInput
              value={draft.date}
              onDate={(date) => date !== null && change({ date })}
              className={fieldLook}
              required
            />
          </label>
          <label className="text-soft">
            {tell("Leaves at")}
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
          label={tell("Stay there")}
          unit="h"
          value={draft.stayH}
          onChange={(stayH) => stayH !== undefined && change({ stayH })}
          least={0}
          most={72}
        />
      </Part>
      <Part
        title={
          draft.legs.length === 0
            ? tell("Route")
            : tell("Route: {0} nm out", draft.legs.reduce((sum, { nm }) => sum + nm, 0).toFixed(1))
        }
        isOpen
      >
        <RouteFields trip={trip} />
      </Part>
      <Part title={tell("Speed and fuel")} isOpen>
        <QuantityField
          label={tell("Cruising speed")}
          quantity="waterSpeed"
          value={draft.cruiseKn}
          onChange={(cruiseKn) => change({ cruiseKn })}
          least={1}
          most={80}
          isOptional
        />
        <QuantityField
          label={tell("Burn at that speed, all engines")}
          why={tell("From the maker's sheet, or measured between two full tanks.")}
          quantity="flow"
          value={draft.burnLph}
          onChange={(burnLph) => change({ burnLph })}
          least={0.1}
          most={1000}
          isOptional
        />
        <QuantityField
          label={tell("Fuel aboard")}
          quantity="volume"
          value={draft.fuelL}
          onChange={(fuelL) => change({ fuelL })}
          least={0}
          most={5000}
          isOptional
        />
      </Part>
      <Part title={tell(draft.wind.length === 0 ? "Wind: not checked" : "Wind")} isOpen={draft.wind.length === 0}>
        <WindFields trip={trip} port={port} />
      </Part>
      <Part title={tell("Who is aboard: {0}", draft.people.length)}>
        <People trip={trip} />
      </Part>
      <Part title={tell("Water and rules")}>
        <PickField
          label={tell("Rules for gear")}
          value={draft.gearPack}
          options={port.packs.map(({ id, name }) => [id, tell(name)])}
          onChange={(gearPack) => change({ gearPack })}
        />
        <NumberField
          label={tell("Farthest from shore")}
          unit="nm"
          value={draft.offshoreNm}
          onChange={(nm) => nm !== undefined && change({ offshoreNm: nm })}
          least={0}
          most={500}
        />
      </Part>
      <Part title={tell("Anchor")}>
        <Anchor trip={trip} />
      </Part>
      <div className="sticky bottom-0 mt-4 flex flex-wrap items-center gap-2 border-t border-ink bg-sheet py-3">
        <Button look="primary" className="min-h-12 flex-1" disabled={plan === null || trip.isSaved} onClick={trip.save}>
          {tell(trip.isSaved ? "Saved" : "Save the trip")}
        </Button>
        {trip.isKept && (
          <>
            <Button className="min-h-12" onClick={trip.begin}>
              {tell("New trip")}
            </Button>
            <Button look="quiet" className="min-h-12" onClick={trip.callOff}>
              {tell("Call it off")}
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
  const tell = useTell();
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
              <TextField
                label={tell("Name {0}", i + 1)}
                value={person.name}
                most={80}
                onChange={(name) => set(i, { name })}
              />
              <div className="mt-1 flex flex-wrap items-end gap-3">
                <QuantityField
                  label={tell("Weight {0}", i + 1)}
                  quantity="mass"
                  value={person.kg}
                  onChange={(kg) =>
                    change({ people: draft.people.map((each, j) => (j === i ? weigh(each, kg) : each)) })
                  }
                  least={3}
                  most={250}
                  isOptional
                />
                <TickField label={tell("A child")} value={person.isChild} onChange={(isChild) => set(i, { isChild })} />
                <Button
                  look="quiet"
                  aria-label={tell("Not aboard: {0}", person.name)}
                  onClick={() => change({ people: draft.people.filter((_, j) => j !== i) })}
                >
                  {tell("Not aboard")}
                </Button>
              </div>
              {jacket !== null && (
                <p className="text-sm text-soft">{tell("By weight: {0}. Read the label inside it.", tell(jacket))}</p>
              )}
            </li>
          );
        })}
      </ul>
      <Button
        disabled={draft.people.length >= 40}
        onClick={() =>
          change({ people: [...draft.people, { name: tell("Guest {0}", draft.people.length + 1), isChild: false }] })
        }
      >
        {tell("One more person")}
      </Button>
    </>
  );
}

function weigh({ kg: _, ...person }: Trip["draft"]["people"][number], kg: number | undefined) {
  return kg === undefined ? person : { ...person, kg };
}

function Anchor({ trip: { draft, change } }: { trip: Trip }) {
  const tell = useTell();
  const { anchor } = draft;
  if (anchor === null)
    return (
      <Button onClick={() => change({ anchor: { depthM: 4, tideRiseM: 0, bowHeightM: 1, scope: 7 } })}>
        {tell("We will anchor")}
      </Button>
    );
  const set = (part: Partial<typeof anchor>) => change({ anchor: { ...anchor, ...part } });
  return (
    <>
      <QuantityField
        label={tell("Depth there")}
        quantity="length"
        value={anchor.depthM}
        onChange={(depthM) => depthM !== undefined && set({ depthM })}
        least={0}
        most={200}
      />
      <QuantityField
        label={tell("Tide still to rise")}
        quantity="length"
        value={anchor.tideRiseM}
        onChange={(tideRiseM) => tideRiseM !== undefined && set({ tideRiseM })}
        least={0}
        most={20}
      />
      <QuantityField
        label={tell("Bow above the water")}
        quantity="length"
        value={anchor.bowHeightM}
        onChange={(bowHeightM) => bowHeightM !== undefined && set({ bowHeightM })}
        least={0}
        most={10}
      />
      <NumberField
        label={tell("Rode for each of depth")}
        why={tell("5 with chain in quiet weather, 7 with rope, 10 when it blows.")}
        unit={tell("to 1")}
        value={anchor.scope}
        onChange={(scope) => scope !== undefined && set({ scope })}
        least={3}
        most={12}
      />
      <Button look="quiet" onClick={() => change({ anchor: null })}>
        {tell("We will not anchor")}
      </Button>
    </>
  );
}
