import { createTrailer, type Rig, type Station } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { NumberField, PickField, TickField } from "../../ui/fields.tsx";
import type { SectionProps } from "./section.ts";

type Trailer = NonNullable<Rig["trailer"]>;
type NumberName = { [K in keyof Trailer]-?: number extends Trailer[K] ? K : never }[keyof Trailer];

interface Asked {
  readonly name: NumberName;
  readonly label: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly why?: string;
  readonly isWhole?: boolean;
}

const towNumbers: readonly Asked[] = [
  { name: "kg", label: "Trailer alone", unit: "kg", least: 50, most: 5000 },
  { name: "axleLimitKg", label: "Axles, limit in all", unit: "kg", least: 100, most: 20_000 },
  { name: "tyres", label: "Tires", unit: "", least: 2, most: 6, isWhole: true },
  { name: "tyreLimitKg", label: "Limit of one tire", unit: "kg", least: 50, most: 5000, why: "Moulded into its side." },
  { name: "couplerLimitKg", label: "Coupler, limit", unit: "kg", least: 100, most: 20_000, why: "Stamped on top." },
  { name: "tongueLimitKg", label: "Tongue, limit", unit: "kg", least: 10, most: 2000 },
  {
    name: "tongueKg",
    label: "Tongue weight as it stands",
    unit: "kg",
    least: 1,
    most: 2000,
    why: "Weighed at the coupler with this boat on.",
  },
];
const rampNumbers: readonly Asked[] = [
  { name: "bunkHeightM", label: "Bunks above the ground", unit: "m", least: 0.1, most: 3, why: "At the stern end." },
  {
    name: "fenderFromTransomM",
    label: "Fender ahead of transom",
    unit: "m",
    least: 0.1,
    most: 12,
    why: "To its middle.",
  },
  { name: "fenderHeightM", label: "Top of fender above the ground", unit: "m", least: 0.1, most: 2 },
];

/** The trailer: what a driver must match, and every number the tow and ramp cards add up. */
export function TrailerSection({ rig, edit }: Pick<SectionProps, "rig" | "edit">) {
  const { trailer } = rig;
  if (trailer === null)
    return (
      <div>
        <p className="mb-3">This boat is sold without a trailer.</p>
        <Button onClick={() => edit(addTrailer)}>It has a trailer</Button>
      </div>
    );
  const set = (change: Partial<Trailer>) =>
    edit((now) => ({ ...now, trailer: now.trailer === null ? null : tidy({ ...now.trailer, ...change }) }));
  const numbers = (asked: readonly Asked[]) =>
    asked.map(({ name, ...rest }) => (
      <NumberField
        key={name}
        {...rest}
        value={trailer[name]}
        onChange={(value) => set({ [name]: value } as Partial<Trailer>)}
        isOptional
      />
    ));
  return (
    <div className="space-y-6">
      <HitchFields trailer={trailer} set={set} />
      <section aria-labelledby="tow-numbers">
        <h3 id="tow-numbers" className="border-t border-ink pt-3 font-bold">
          For the tow card, from the plates
        </h3>
        <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">{numbers(towNumbers)}</div>
      </section>
      <section aria-labelledby="ramp-numbers">
        <h3 id="ramp-numbers" className="border-t border-ink pt-3 font-bold">
          For the ramp card, measured
        </h3>
        <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">{numbers(rampNumbers)}</div>
      </section>
      <Button look="quiet" onClick={() => edit(removeTrailer)}>
        Sold without a trailer
      </Button>
    </div>
  );
}

const tidy = (trailer: Trailer): Trailer =>
  Object.fromEntries(Object.entries(trailer).filter(([, value]) => value !== undefined)) as Trailer;

const trailerPlaces: readonly Station["kind"][] = ["coupler", "winch", "wheels"];

/** With a trailer come the places people stand at to be told of it. */
function addTrailer(rig: Rig): Rig {
  const has = new Set(rig.stations.map(({ kind }) => kind));
  const besideM = rig.beamM / 2 + 0.7;
  const spots: Record<string, { label: string; xM: number; yM: number }> = {
    coupler: { label: "Coupler", xM: rig.loaM + 1.45, yM: 0 },
    winch: { label: "Winch post", xM: rig.loaM + 0.1, yM: -0.7 },
    wheels: { label: "Wheels, port side", xM: rig.loaM * 0.32, yM: -besideM },
  };
  const missing = trailerPlaces
    .filter((kind) => !has.has(kind))
    .map((kind): Station => {
      const { label, xM, yM } = spots[kind]!;
      const at = { xM: Math.round(xM * 100) / 100, yM: Math.round(yM * 100) / 100 };
      return { id: kind, kind, label, at, level: "ground" };
    });
  return { ...rig, trailer: createTrailer(rig.loaM), stations: [...missing, ...rig.stations] };
}

function removeTrailer(rig: Rig): Rig {
  const used = new Set(rig.parts.map(({ station }) => station));
  const stations = rig.stations.filter(({ id, kind }) => !trailerPlaces.includes(kind) || used.has(id));
  return { ...rig, trailer: null, stations };
}

interface HitchProps {
  readonly trailer: Trailer;
  readonly set: (change: Partial<Trailer>) => void;
}

/** What a driver must match. */
function HitchFields({ trailer, set }: HitchProps) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">
      <PickField
        label="Axles"
        value={String(trailer.axles) as "1" | "2" | "3"}
        options={[
          ["1", "one"],
          ["2", "two"],
          ["3", "three"],
        ]}
        onChange={(axles) => set({ axles: Number(axles) })}
      />
      <PickField
        label="Brakes"
        value={trailer.brakes}
        options={[
          ["none", "none"],
          ["surge", "surge"],
          ["electric", "electric"],
        ]}
        onChange={(brakes) => set({ brakes })}
      />
      <PickField
        label="Backing up with surge brakes"
        value={trailer.lockOut}
        options={[
          ["none", "nothing noted"],
          ["pin", "lock-out pin"],
          ["reverse-wire", "reverse wire in the plug"],
        ]}
        onChange={(lockOut) => set({ lockOut })}
        why="Surge brakes hold against backing uphill unless locked out."
      />
      <HitchNumbers trailer={trailer} set={set} />
      <TickField
        label="Swing tongue"
        value={trailer.swingTongue ?? false}
        onChange={(swingTongue) => set({ swingTongue })}
      />
    </div>
  );
}

function HitchNumbers({ trailer, set }: HitchProps) {
  return (
    <>
      <NumberField
        label="Ball"
        unit="mm"
        value={trailer.ballMm}
        onChange={(ballMm) => set({ ballMm } as Partial<Trailer>)}
        isOptional
        least={20}
        most={100}
        why="Stamped on the coupler; must match the vehicle's."
      />
      <NumberField
        label="Pins of the plug"
        value={trailer.pins}
        onChange={(pins) => pins !== undefined && set({ pins })}
        least={4}
        most={7}
        isWhole
      />
      <NumberField
        label="Tire pressure, cold"
        unit="kPa"
        value={trailer.tyreKpa}
        onChange={(tyreKpa) => set({ tyreKpa } as Partial<Trailer>)}
        isOptional
        least={50}
        most={1000}
        why="From the trailer's plate."
      />
      <NumberField
        label="Ball to transom"
        unit="m"
        value={trailer.hitchToTransomM}
        onChange={(hitch) => hitch !== undefined && set({ hitchToTransomM: hitch })}
        least={1}
        most={25}
      />
      <NumberField
        label="Gross limit"
        unit="kg"
        value={trailer.grossLimitKg}
        onChange={(grossLimitKg) => set({ grossLimitKg } as Partial<Trailer>)}
        isOptional
        least={100}
        most={20_000}
        why="Boat and trailer together, from the plate."
      />
    </>
  );
}
