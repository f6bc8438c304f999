import { useMutation } from "@tanstack/react-query";
import { formatWhole } from "../../core/language/index.ts";
import type { GpxFault, ReadRoute } from "../../core/trip/index.ts";
import { Button } from "../ui/Button.tsx";
import { FileButton } from "../ui/FileButton.tsx";
import { NumberField, TextField } from "../ui/fields.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import type { GpxReading, GpxWorker } from "../workers/gpx.ts";
import { useWorker } from "../workers/useWorker.ts";
import type { Trip } from "./useTrip.ts";

const createGpxWorker = () => new Worker(new URL("../workers/gpx.ts", import.meta.url), { type: "module" });
const mostLegs = 30;

const faultWords: Record<GpxFault["code"], string> = {
  "not-gpx": "This is no GPX file, or it is broken off.",
  "no-points": "There is no route in it: it has fewer than two points.",
  "bad-position": "A position in it cannot be on the earth.",
  "too-many-points": "It holds more points than can be read.",
};

/** Where to and how far: legs by hand, or a route out of a chart plotter or app. */
export function RouteFields({ trip }: { trip: Trip }) {
  const { tell, language } = useReader();
  const { draft, change } = trip;
  const getWorker = useWorker<GpxWorker>(createGpxWorker);
  const take = ({ name, from, legs }: ReadRoute) =>
    change({
      from,
      legs: legs.map(({ to, nm, courseDeg }) => ({ to, nm, ...(courseDeg === undefined ? {} : { courseDeg }) })),
      ...(name === "" ? {} : { name }),
    });
  const read = useMutation({
    mutationFn: (file: File): Promise<GpxReading> => getWorker().read(file),
    onSuccess: (reading) => reading.ok && take(reading.route),
  });
  const set = (at: number, part: Partial<(typeof draft.legs)[number]>) =>
    change({ legs: draft.legs.map((leg, i) => (i === at ? { ...leg, ...part } : leg)) });
  return (
    <>
      <ol className="space-y-2">
        {draft.legs.map((leg, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: legs are known by their place
          <li key={i} className="flex flex-wrap items-end gap-2 border-b border-rule pb-2">
            <span className="min-w-36 flex-1">
              <TextField label={tell("Leg {0} to", i + 1)} value={leg.to} most={60} onChange={(to) => set(i, { to })} />
            </span>
            <NumberField
              label={tell("Miles {0}", i + 1)}
              unit="nm"
              value={leg.nm}
              onChange={(nm) => nm !== undefined && set(i, { nm })}
              least={0}
              most={500}
            />
            <Button
              look="quiet"
              aria-label={tell("Delete leg {0}", i + 1)}
              onClick={() => change({ legs: draft.legs.filter((_, j) => j !== i) })}
            >
              {tell("Delete")}
            </Button>
          </li>
        ))}
      </ol>
      <p className="flex flex-wrap gap-2">
        <Button
          disabled={draft.legs.length >= mostLegs}
          onClick={() => change({ legs: [...draft.legs, { to: tell("Leg {0}", draft.legs.length + 1), nm: 1 }] })}
        >
          {tell("Add a leg")}
        </Button>
        <FileButton
          says={tell(read.isPending ? "Reading …" : "Route from a GPX file")}
          accept=".gpx"
          isBusy={read.isPending}
          onFile={(file) => read.mutate(file)}
        />
      </p>
      {read.data?.ok === true && (
        <p role="status">
          {tell(
            "{0} points read, {1} legs.",
            formatWhole(read.data.route.points, language),
            read.data.route.legs.length,
          )}
        </p>
      )}
      {read.data?.ok === false && (
        <p role="alert" className="text-magenta">
          ▲ {faultWords[read.data.fault.code]}
          {read.data.fault.code === "bad-position" && tell(" Line {0}.", read.data.fault.line)}
        </p>
      )}
      {read.error !== null && (
        <p role="alert" className="text-magenta">
          {tell("▲ The file could not be read.")}
        </p>
      )}
      <Position trip={trip} />
    </>
  );
}

/** Where it begins, for sunrise and sunset: by hand in degrees, or where the phone is. */
function Position({ trip: { draft, change } }: { trip: Trip }) {
  const tell = useTell();
  const find = useMutation({
    mutationFn: () =>
      new Promise<GeolocationPosition>((resolve, reject) =>
        navigator.geolocation.getCurrentPosition(resolve, reject, { timeout: 15_000, maximumAge: 600_000 }),
      ),
    onSuccess: ({ coords }) => change({ from: { lat: coords.latitude, lon: coords.longitude } }),
  });
  const set = (part: { lat?: number | undefined; lon?: number | undefined }) => {
    const next = { lat: draft.from?.lat ?? 0, lon: draft.from?.lon ?? 0, ...part };
    change({ from: { lat: next.lat ?? 0, lon: next.lon ?? 0 } });
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberField
        label={tell("Start, north")}
        unit="°"
        value={draft.from === null ? undefined : round(draft.from.lat)}
        onChange={(lat) => set({ lat })}
        least={-90}
        most={90}
        isOptional
      />
      <NumberField
        label={tell("Start, east")}
        unit="°"
        value={draft.from === null ? undefined : round(draft.from.lon)}
        onChange={(lon) => set({ lon })}
        least={-180}
        most={180}
        isOptional
      />
      {"geolocation" in navigator && (
        <Button disabled={find.isPending} onClick={() => find.mutate()}>
          {tell(find.isPending ? "Looking …" : "Where I am")}
        </Button>
      )}
      {find.error !== null && (
        <p className="text-magenta">
          {tell("▲ The phone does not say where it is. Enter it by hand: south and west are negative.")}
        </p>
      )}
    </div>
  );
}
const round = (deg: number) => Math.round(deg * 10_000) / 10_000;
