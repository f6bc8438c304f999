import { type JudgedTrip, type TripPlan, writeAshoreMessage } from "../../core/trip/index.ts";
import { linkLook } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { TextField } from "../ui/fields.tsx";
import { PaperLinks } from "../ui/PaperLinks.tsx";
import { useIdiom, useReader } from "../ui/tell.ts";
import { formatDay } from "../ui/words.ts";
import { isHalfAshore, type Trip, type TripPort } from "./useTrip.ts";

interface AshoreNoteProps {
  readonly trip: Trip;
  readonly plan: TripPlan;
  readonly judged: JudgedTrip;
  readonly port: TripPort;
}

/** Who waits ashore, and what they get: the message as it is sent, and the float plan to print. */
export function AshoreNote({ trip, plan, judged, port }: AshoreNoteProps) {
  const reader = useReader();
  const { tell } = reader;
  const { boatName, hull } = port;
  const message = writeAshoreMessage(plan, judged, { boatName, hull, day: formatDay(plan.date, reader) }, useIdiom());
  const { ashore } = trip.draft;
  const isPrintable = trip.isKept && trip.isSaved && port.isAtYard(trip.trip);
  const change = (part: Partial<NonNullable<TripPlan["ashore"]>>) => {
    const next = { name: ashore?.name ?? "", phone: ashore?.phone ?? "", ...part };
    trip.change({ ashore: next.name.trim() === "" && next.phone.trim() === "" ? null : next });
  };
  return (
    <section aria-labelledby="ashore" className="mt-6">
      <h2 id="ashore" className="text-lg font-bold">
        {tell("Somebody ashore")}
      </h2>
      <div className="grid gap-3 border-t border-ink pt-2 sm:grid-cols-2">
        <TextField
          label={tell("Who waits for your call")}
          value={ashore?.name ?? ""}
          most={80}
          isOptional
          onChange={(name) => change({ name })}
        />
        <TextField
          label={tell("Their phone")}
          value={ashore?.phone ?? ""}
          most={40}
          isOptional
          onChange={(phone) => change({ phone })}
        />
      </div>
      {isHalfAshore(trip.draft) && (
        <p role="status" className="mt-1 text-magenta">
          ▲ {tell("Enter both, the name and the phone: until then nobody can be rung.")}
        </p>
      )}
      <p className="mt-3 rounded-md border border-ink bg-panel px-4 py-3">{message}</p>
      <p className="mt-2 flex flex-wrap gap-2">
        <a
          className={linkLook("plain")}
          href={`sms:${encodeURIComponent(ashore?.phone.trim() ?? "")}?&body=${encodeURIComponent(message)}`}
        >
          {tell("Write it to them")}
        </a>
        <CopyButton text={message} says={tell("Copy it")} />
        {isPrintable && (
          <PaperLinks says={tell("Float plan as PDF")} href={port.pdfOf(trip.trip)} language={port.language} />
        )}
      </p>
      {!isPrintable && (
        <p className="mt-1 text-soft">
          {tell(
            trip.isKept && trip.isSaved
              ? "The float plan can be printed as soon as there is signal."
              : "Save the trip, and its float plan can be printed.",
          )}
        </p>
      )}
    </section>
  );
}
