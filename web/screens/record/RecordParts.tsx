import type { Delivery } from "../../../api/index.ts";
import { formatMeasure, judgeMeasure, listMeasures } from "../../../core/measure/index.ts";
import { formatEntry, listPutRight, listSetAside, type WalkState } from "../../../core/walk/index.ts";
import { spell } from "../../ui/amounts.ts";
import { SignatureImage } from "../../ui/SignatureImage.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDay, formatDayAndYear } from "../../ui/words.ts";
import { sayReceipt } from "./receiptWords.ts";

interface PartProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
}

export function HoursAndGear({ delivery, state }: PartProps) {
  return (
    <section aria-labelledby="read">
      <h2 id="read" className="text-lg font-bold">
        Hours and gear
      </h2>
      <ul className="border-t border-ink">
        {delivery.rig.engines.map(({ id, label }) => (
          <li key={id} className="flex justify-between border-b border-rule py-1.5">
            {label}
            <span className="num font-semibold">
              {state.hours.get(id)?.hours.toFixed(1) ?? "–"} <span className="font-normal text-soft">h</span>
            </span>
          </li>
        ))}
        {delivery.rig.gear.map(({ id, label, count }) => {
          const counted = state.gear.get(id)?.count;
          return (
            <li key={id} className="flex justify-between gap-3 border-b border-rule py-1">
              {label}
              <span
                className={`num whitespace-nowrap ${counted !== undefined && counted < count ? "font-semibold text-magenta" : ""}`}
              >
                {counted !== undefined && counted < count && "▲ "}
                {counted ?? "–"} <span className="text-soft">of {count}</span>
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What was read off the boat, and what of it does not fit. */
export function Measured({ delivery, state }: PartProps) {
  if (state.measures.size === 0) return null;
  return (
    <section aria-labelledby="measured">
      <h2 id="measured" className="text-lg font-bold">
        Measured
      </h2>
      <ul className="border-t border-ink">
        {listMeasures(delivery.rig).map((measure) => {
          const taken = state.measures.get(measure.id);
          if (taken === undefined) return null;
          const { verdict, says } = judgeMeasure(measure, taken);
          return (
            <li key={measure.id} className="border-b border-rule py-1">
              <span className="flex justify-between gap-3">
                {spell(measure.label)}
                <span className="num font-semibold whitespace-nowrap">{formatMeasure(measure, taken)}</span>
              </span>
              {verdict !== "fits" && <span className="text-sm text-amber">◷ {says}</span>}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

export function Arrived({ delivery, state }: PartProps) {
  if (state.inspected.size === 0) return null;
  return (
    <section aria-labelledby="arrived">
      <h2 id="arrived" className="text-lg font-bold">
        Looked at on arrival
      </h2>
      <ul className="border-t border-ink">
        {delivery.arrival.map(({ id, title }) => {
          const entry = state.inspected.get(id);
          return (
            <li key={id} className={`border-b border-rule py-1 ${entry?.ok === false ? "text-magenta" : ""}`}>
              {title}:{" "}
              {entry === undefined
                ? "not looked at"
                : entry.ok
                  ? "in order"
                  : `▲ damaged${entry.note === undefined ? "" : `, ${entry.note}`}`}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const roleWords = { buyer: "buyer", staff: "walked it", countersign: "witness" } as const;

export function Signed({ delivery, state, nameOf }: PartProps & { readonly nameOf: (id: string) => string }) {
  const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)?.title ?? id;
  return (
    <section aria-labelledby="signed">
      <h2 id="signed" className="text-lg font-bold">
        Signed
      </h2>
      <div className="border-t border-ink pt-2">
        {state.signatures.length === 0 && <p className="py-2 text-soft">Nobody has signed yet.</p>}
        {state.refusals.map((refusal) => (
          <p key={refusal.id} className="mb-2 text-magenta">
            ▲ {refusal.name} did not sign (
            {[formatClock(refusal.at), sayReceipt(delivery, refusal)].filter(Boolean).join("; ")}): {refusal.reason}
          </p>
        ))}
        {state.takenBack.map(({ sign, by }) => (
          <p key={sign.id} className="mb-2 text-soft">
            {sign.name} signed at {formatClock(sign.at)} and took it back at {formatClock(by.at)}.
          </p>
        ))}
        {state.undone.map(({ what, by }) => (
          <p key={what.id} className="mb-2 text-soft">
            {formatEntry(what, delivery, titleOf)}. Taken back by {nameOf(by.by)} at {formatClock(by.at)}
            {by.reason === undefined ? "." : `: ${by.reason}`}
          </p>
        ))}
        {listSetAside(state, delivery.entries).map((entry) => (
          <p key={entry.id} className="mb-2 break-words text-magenta">
            ▲ Unknown to whoever signed: {formatEntry(entry, delivery, titleOf)} ({nameOf(entry.by)},{" "}
            {formatDayAndYear(storeDay(entry.at))})
          </p>
        ))}
        {state.signatures.map((sign) => (
          <div key={sign.id} className="mb-3">
            <SignatureImage sign={sign} className="h-20 w-full border-b border-ink" />
            <p className="break-words">
              <strong>{sign.name}</strong>{" "}
              <span className="text-soft">
                {roleWords[sign.role]}, {formatClock(sign.at)}
                {sayReceipt(delivery, sign) !== null && `; ${sayReceipt(delivery, sign)}`}
              </span>
            </p>
            {(sign.signsFor ?? []).map((line) => (
              <p key={line} className="text-sm text-soft">
                {line}
              </p>
            ))}
          </div>
        ))}
      </div>
    </section>
  );
}

/** The cautions of what was explained. */
export function Cautions({ delivery, state }: PartProps) {
  const cautions = delivery.topics.filter((topic) => {
    const mark = state.topics.get(topic.id)?.mark;
    return topic.cautions.length > 0 && mark !== undefined && mark !== "later" && mark !== "not-aboard";
  });
  if (cautions.length === 0) return null;
  return (
    <details>
      <summary className="head min-h-11 font-semibold">
        Cautions given <span className="num font-normal text-soft">with {cautions.length} topics</span>
      </summary>
      <ul className="space-y-2 border-t border-ink pt-2 text-sm">
        {cautions.map(({ id, title, cautions: texts }) => (
          <li key={id}>
            <strong className="text-amber">{title}.</strong> {texts.join(" ")}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What was wrong or promised and was put right before the close, with what was done. */
export function PutRightList({ state, nameOf }: { state: WalkState; nameOf: (id: string) => string }) {
  const list = listPutRight(state);
  if (list.length === 0) return null;
  return (
    <section aria-labelledby="put-right">
      <h2 id="put-right" className="text-lg font-bold">
        Put right before signing
      </h2>
      <ul className="border-t border-ink">
        {list.map(({ what, how }) => (
          <li key={what.id} className="border-b border-rule py-1.5">
            <p className="break-words">{what.note}</p>
            <p className="break-words text-sm text-soft">
              {how.note}. {nameOf(how.by)}, {formatDay(storeDay(how.at))}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
