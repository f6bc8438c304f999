import { createTrailer, type Rig, type Station } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { NumberField, PickField, TickField } from "../../ui/fields.tsx";
import { RigFigure } from "./RigFigure.tsx";
import type { SectionProps } from "./section.ts";

type Trailer = NonNullable<Rig["trailer"]>;
const towFigures = ["kg", "axleLimitKg", "tyreLimitKg", "couplerLimitKg", "tongueLimitKg", "tongueKg", "tyres"];
const rampFigures = ["bunkHeightM", "fenderFromTransomM", "fenderHeightM"];

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
  const figures = (names: readonly string[]) =>
    names.map((name) => <RigFigure key={name} rig={rig} edit={edit} at={`trailer.${name}`} />);
  return (
    <div className="space-y-6">
      <HitchFields rig={rig} edit={edit} trailer={trailer} set={set} />
      <section aria-labelledby="tow-numbers">
        <h3 id="tow-numbers" className="border-t border-ink pt-3 font-bold">
          For the tow card, from the plates
        </h3>
        <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">{figures(towFigures)}</div>
      </section>
      <section aria-labelledby="ramp-numbers">
        <h3 id="ramp-numbers" className="border-t border-ink pt-3 font-bold">
          For the ramp card, measured
        </h3>
        <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2 lg:grid-cols-3">{figures(rampFigures)}</div>
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

interface HitchProps extends Pick<SectionProps, "rig" | "edit"> {
  readonly trailer: Trailer;
  readonly set: (change: Partial<Trailer>) => void;
}

/** What a driver must match. */
function HitchFields({ rig, edit, trailer, set }: HitchProps) {
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
      <HitchNumbers rig={rig} edit={edit} trailer={trailer} set={set} />
      <TickField
        label="Swing tongue"
        value={trailer.swingTongue ?? false}
        onChange={(swingTongue) => set({ swingTongue })}
      />
    </div>
  );
}

function HitchNumbers({ rig, edit, trailer, set }: HitchProps) {
  return (
    <>
      <RigFigure rig={rig} edit={edit} at="trailer.ballMm" />
      <NumberField
        label="Pins of the plug"
        value={trailer.pins}
        onChange={(pins) => pins !== undefined && set({ pins })}
        least={4}
        most={7}
        isWhole
      />
      {["tyreKpa", "hitchToTransomM", "grossLimitKg"].map((name) => (
        <RigFigure key={name} rig={rig} edit={edit} at={`trailer.${name}`} />
      ))}
    </>
  );
}
