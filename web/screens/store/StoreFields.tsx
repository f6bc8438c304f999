import { everyone, type StoreFacts } from "../../../api/index.ts";
import { formatTime, type Region, regions, unitSystems } from "../../../core/region/index.ts";
import { budgets } from "../../../core/route/index.ts";
import { PickField, TextField, TickField } from "../../ui/fields.tsx";
import { formatMinutes } from "../../ui/words.ts";

const systemWords: Record<(typeof unitSystems)[number], string> = {
  us: "US: feet, pounds, US gallons, °F, psi",
  imperial: "Imperial: feet, pounds, gallons of 4.5 litres, °C, psi",
  metric: "Metric: metres, kilograms, litres, °C, kPa",
};
const days = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;
const orders = [
  ["mdy", "December 31, 2026"],
  ["dmy", "31 December 2026"],
  ["ymd", "2026 December 31"],
] as const;
const zones = Intl.supportedValuesOf("timeZone").map((zone) => [zone, zone.replaceAll("_", " ")] as const);

type Said = Pick<StoreFacts, "store" | "place" | "phone" | "webAddress" | "timeZone">;

interface FieldsProps<F extends Said> {
  readonly facts: F;
  readonly onChange: (facts: F) => void;
}

/** What a store says of itself: on papers, in messages, on owners' pages. */
export function StoreFields<F extends Said>({ facts, onChange }: FieldsProps<F>) {
  const set = (change: Partial<Said>) => onChange({ ...facts, ...change });
  return (
    <div className="grid gap-x-6 gap-y-4 md:grid-cols-2">
      <TextField label="Name of the store" value={facts.store} most={80} onChange={(store) => set({ store })} />
      <TextField
        label="Phone"
        why="Buyers call it when they are stuck: it is on every paper and page of theirs."
        value={facts.phone}
        most={40}
        isOptional
        onChange={(phone) => set({ phone })}
      />
      <TextField
        label="Address"
        value={facts.place}
        most={300}
        isOptional
        isLong
        onChange={(place) => set({ place })}
      />
      <TextField
        label="Where browsers reach Ravik"
        why="Owners' pages and messages begin with it. Leave it empty until the address works: none are sent until then."
        placeholder="https://ravik.example.com"
        value={facts.webAddress ?? ""}
        most={200}
        isOptional
        onChange={(address) => set({ webAddress: address === "" ? null : address })}
      />
      <PickField
        label="Time zone"
        why="Days and times are those of the store, wherever a tablet is."
        value={facts.timeZone}
        options={zones.some(([zone]) => zone === facts.timeZone) ? zones : [[facts.timeZone, facts.timeZone], ...zones]}
        onChange={(timeZone) => set({ timeZone })}
      />
    </div>
  );
}

/** How the store measures, spells, counts and writes days. Choosing units brings what usually goes with them. */
export function RegionFields({ region, onChange }: { region: Region; onChange: (region: Region) => void }) {
  const set = (change: Partial<Region>) => onChange({ ...region, ...change });
  return (
    <div className="grid gap-x-6 gap-y-4 md:grid-cols-2">
      <PickField
        label="Units"
        value={region.units}
        options={unitSystems.map((system) => [system, systemWords[system]] as const)}
        onChange={(units) => onChange(regions[units])}
      />
      <PickField
        label="Spelling"
        value={region.spelling}
        options={[
          ["us", "tire, gasoline, harbor"],
          ["uk", "tyre, petrol, harbour"],
        ]}
        onChange={(spelling) => set({ spelling })}
      />
      <TextField
        label="Currency"
        why="Its three letters, such as USD."
        value={region.currency}
        most={3}
        onChange={(currency) => set({ currency: currency.toUpperCase() })}
      />
      <PickField
        label="Paper"
        value={region.paper}
        options={[
          ["letter", "Letter"],
          ["a4", "A4"],
        ]}
        onChange={(paper) => set({ paper })}
      />
      <PickField
        label="The week begins on"
        value={String(region.weekStart)}
        options={days.map((day, i) => [String(i), day] as const)}
        onChange={(day) => set({ weekStart: Number(day) })}
      />
      <PickField
        label="Days are written"
        value={region.dateOrder}
        options={orders}
        onChange={(dateOrder) => set({ dateOrder })}
      />
      <PickField
        label="Times are written"
        value={region.clock}
        options={[
          ["12", "1:30 pm"],
          ["24", "13:30"],
        ]}
        onChange={(clock) => set({ clock })}
      />
      <TextField
        label="Emergency number ashore"
        why="Printed on the owner's cards: whom to ring where life is in danger."
        value={region.emergency}
        most={20}
        onChange={(emergency) => set({ emergency })}
      />
    </div>
  );
}

/** When nothing is sent, and who may let a boat go that is not ready. */
export function RuleFields({ facts, onChange }: { facts: StoreFacts; onChange: (facts: StoreFacts) => void }) {
  const { quietHours, usualMin, allowers } = facts;
  const hours = Array.from(
    { length: 24 },
    (_, hour) => [String(hour), formatTime(hour * 60, facts.region.clock)] as const,
  );
  return (
    <div className="grid gap-x-6 gap-y-4 md:grid-cols-2">
      <fieldset>
        <legend className="text-soft">No message is sent</legend>
        <div className="grid grid-cols-2 gap-3">
          <PickField
            label="from"
            value={String(quietHours.from)}
            options={hours}
            onChange={(from) => onChange({ ...facts, quietHours: { ...quietHours, from: Number(from) } })}
          />
          <PickField
            label="until"
            value={String(quietHours.to)}
            options={hours}
            onChange={(to) => onChange({ ...facts, quietHours: { ...quietHours, to: Number(to) } })}
          />
        </div>
        <p className="text-sm text-soft">
          {quietHours.from === quietHours.to
            ? "Messages may go at any hour."
            : "What falls into it goes the next morning."}
        </p>
      </fieldset>
      <PickField
        label="Time for a walk"
        why="A new plan begins with it; each can be given its own."
        value={String(usualMin)}
        options={budgets.map(
          (minutes) => [String(minutes), minutes === null ? "all it takes" : formatMinutes(minutes)] as const,
        )}
        onChange={(minutes) => onChange({ ...facts, usualMin: minutes === "null" ? null : Number(minutes) })}
      />
      <fieldset>
        <legend className="text-soft">May let a walk begin on a boat that is not ready, with a reason</legend>
        {everyone.map((role) => (
          <TickField
            key={role}
            label={role === "owner" ? "owner (always)" : role}
            value={allowers.includes(role)}
            onChange={(may) =>
              onChange({
                ...facts,
                allowers: everyone.filter(
                  (each) => each === "owner" || (each === role ? may : allowers.includes(each)),
                ),
              })
            }
          />
        ))}
      </fieldset>
    </div>
  );
}
