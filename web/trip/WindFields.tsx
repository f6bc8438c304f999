import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Tell } from "../../core/language/index.ts";
import { readWind, type TripPlan, type WindFault } from "../../core/trip/index.ts";
import { ask } from "../app/client.ts";
import { Button } from "../ui/Button.tsx";
import { FileButton } from "../ui/FileButton.tsx";
import { fieldLook, NumberField } from "../ui/fields.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { storeDay } from "../ui/storeTime.ts";
import { useTell } from "../ui/tell.ts";
import type { Trip, TripPort } from "./useTrip.ts";

const writeWind = (wind: TripPlan["wind"]) =>
  wind.map(({ at, kn, fromDeg }) => [at, kn, ...(fromDeg === undefined ? [] : [fromDeg])].join("  ")).join("\n");

function sayFault(fault: WindFault, tell: Tell): string {
  switch (fault.code) {
    case "no-rows":
      return tell("No wind in it: write a time and the knots, one row each.");
    case "bad-row":
      return tell("Line {0} is no time with knots: “{1}”.", fault.line, fault.got);
    case "not-later":
      return tell("Line {0}: {1} is not later than the one before.", fault.line, fault.got);
  }
}

/** The wind through the day: written by hand, out of a table, or in the demo made up. Nothing of it is ever guessed. */
export function WindFields({ trip, port }: { trip: Trip; port: TripPort }) {
  const tell = useTell();
  const { draft, change } = trip;
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<WindFault | null>(null);
  const today = storeDay(Date.now());
  const take = (written: string, windSource: TripPlan["windSource"]) => {
    const read = readWind(written);
    setFault(read.ok ? null : read.error);
    if (!read.ok) return;
    setText(null);
    change({ wind: read.value, windSource, windOn: today });
  };
  const forecast = useMutation({
    mutationFn: () =>
      ask("wind", { query: { lat: String(draft.from!.lat), lon: String(draft.from!.lon), date: draft.date } }),
    onSuccess: ({ wind, source }) => change({ wind, windSource: source, windOn: today }),
  });
  return (
    <>
      <label className="block text-soft">
        {tell("Time and knots, a row each; the direction if you like")}
        <textarea
          rows={5}
          value={text ?? writeWind(draft.wind)}
          placeholder={"09:00  6\n12:00  11\n15:00  17"}
          onChange={(event) => setText(readPlain(event))}
          className={`${fieldLook} num py-2`}
        />
      </label>
      {fault !== null && (
        <p role="alert" className="text-magenta">
          ▲ {sayFault(fault, tell)}
        </p>
      )}
      <p className="flex flex-wrap gap-2">
        <Button disabled={text === null} onClick={() => take(text!, "typed")}>
          {tell("Take this wind")}
        </Button>
        <FileButton
          says={tell("From a CSV file")}
          accept=".csv,text/csv,text/plain"
          onFile={(file) => void file.text().then((read) => take(read, "file"))}
        />
        {port.hasForecast && (
          <Button disabled={draft.from === null || forecast.isPending} onClick={() => forecast.mutate()}>
            {tell("Made-up forecast")}
          </Button>
        )}
      </p>
      {port.hasForecast && draft.from === null && (
        <p className="text-sm text-soft">{tell("The made-up forecast wants to know where you start.")}</p>
      )}
      {draft.windSource === "made-up" && draft.wind.length > 0 && (
        <p className="font-semibold text-amber">{tell("Made up for the demo: nobody goes out by it.")}</p>
      )}
      {forecast.error !== null && <ErrorNotice error={forecast.error} />}
      {draft.windOn !== null && draft.windOn === today && draft.wind.length > 0 && (
        <p className="text-sm text-soft">{tell("Checked today.")}</p>
      )}
      <NumberField
        label={tell("Your limit")}
        unit="kn"
        value={draft.windLimitKn}
        onChange={(kn) => kn !== undefined && change({ windLimitKn: kn })}
        least={1}
        most={100}
      />
      {draft.wind.length > 0 && (
        <p className="flex flex-wrap gap-2">
          {draft.windOn !== draft.date && (
            <Button onClick={() => change({ windOn: today })}>{tell("I have checked it again today")}</Button>
          )}
          <Button look="quiet" onClick={() => change({ wind: [], windOn: null })}>
            {tell("Clear the wind")}
          </Button>
        </p>
      )}
    </>
  );
}
