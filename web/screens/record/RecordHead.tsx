import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { listWalkers, type WalkState } from "../../../core/walk/index.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";
import { RecordPapers } from "./RecordPapers.tsx";

interface HeadProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly nameOf: (id: string) => string;
}

/** Whose record it is, who walked it and when, and its papers. */
export function RecordHead({ delivery, state, nameOf }: HeadProps) {
  const walkers = listWalkers(state).map(nameOf);
  return (
    <div className="flex flex-wrap items-start justify-between gap-3">
      <div className="min-w-0 md:flex-1">
        <h1 className="text-2xl font-bold">Record of handover</h1>
        <p>
          {delivery.boatName} <span className="text-soft">{delivery.hull}</span>, {formatDayAndYear(delivery.date)}
        </p>
        <p className="break-words text-soft">
          {delivery.buyers.map(({ name }) => name).join(" and ")}; walked by {walkers.join(", ") || "nobody yet"}
          {state.startedAt !== null &&
            `, from ${formatClock(state.startedAt)} to ${formatClock(state.lastAt ?? state.startedAt)}`}
        </p>
      </div>
      {delivery.seal === null && (
        <div className="flex flex-wrap gap-2">
          <RecordPapers delivery={delivery} />
        </div>
      )}
    </div>
  );
}

/** The seal, or that there is none yet. */
export function SealLine({ delivery }: { delivery: Delivery }) {
  const { seal } = delivery;
  if (seal === null)
    return (
      <p className="mt-4 border-l-4 border-amber pl-3 text-amber">
        ◷ Not signed yet: this is a draft.{" "}
        <Link className="underline" to={`/deliveries/${delivery.id}/close`}>
          Close the handover
        </Link>
      </p>
    );
  return (
    <p className="mt-4 border-l-4 border-ink pl-3">
      Sealed {formatDayAndYear(storeDay(seal.sealedAt))}, {formatClock(seal.sealedAt)}.{" "}
      <span className="text-soft">SHA-256</span>{" "}
      <code className="num text-sm break-all" data-testid="seal">
        {seal.sha256}
      </code>
      {seal.from !== null && <TakenIn from={seal.from} />}
      {seal.key !== null && (
        <>
          <br />
          <span className="text-soft">Signed with {seal.from === null ? "this" : "that"} store's key</span>{" "}
          <code className="num text-sm break-all">{seal.key}</code>
        </>
      )}
    </p>
  );
}

/** Whose record it is, by whom it was taken in, and how it was checked then. */
function TakenIn({ from: { store, taken } }: { from: NonNullable<NonNullable<Delivery["seal"]>["from"]> }) {
  return (
    <span className="block">
      {taken === null ? (
        <>Sealed by {store}, another store. How it was checked when it was taken in was not noted.</>
      ) : (
        <>
          Sealed by {store}, another store; taken in {formatDayAndYear(storeDay(taken.at))} by {taken.by}.{" "}
          {taken.verdict === "signed"
            ? `Its signature was good${taken.knownSince === null ? "" : `, by a key known here since ${formatDayAndYear(taken.knownSince)}`}.`
            : "It bore no signature then."}
        </>
      )}
    </span>
  );
}
