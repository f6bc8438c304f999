import { useQuery } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import type { Instant } from "../../../core/dates/index.ts";
import { planReady, type ReadyCheck } from "../../../core/ready/index.ts";
import type { PanelSwitch } from "../../../core/rig/index.ts";
import type { EntryOf, WalkState } from "../../../core/walk/index.ts";
import { findReady, isInOrder, listOwed } from "../../../core/walk/index.ts";
import { deliveryQuery } from "../../app/queries.ts";
import { HoursSection } from "../../handover/HoursRead.tsx";
import { useStaffName } from "../../handover/useStaffName.ts";
import { MeasureList } from "../../measure/MeasureList.tsx";
import { useNews } from "../../offline/useNews.ts";
import { syncQueue, useWalkState } from "../../offline/useSync.ts";
import { keepOwed } from "../../owed/keepOwed.ts";
import { listWhoFixes } from "../../owed/listWhoFixes.ts";
import { OwedList } from "../../owed/OwedList.tsx";
import { OwedPad } from "../../owed/OwedPad.tsx";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan, type StationSign } from "../../plan/DeckPlan.tsx";
import { listWrong } from "../../plan/listWrong.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDay, formatLongDay, formatTimeOf } from "../../ui/words.ts";

/** Make-ready: every system tried before the buyer comes, stop by stop round the boat. */
export function ReadyScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useQuery(deliveryQuery(id));
  return (
    <Fetched query={delivery} what="make-ready">
      {(data) => <ReadyOf delivery={data} />}
    </Fetched>
  );
}

function ReadyOf({ delivery }: { delivery: Delivery }) {
  const state = useWalkState(delivery);
  useNews(delivery.id);
  const { rig, makeReady } = delivery;
  const visits = useMemo(() => planReady(rig, makeReady), [rig, makeReady]);
  const byId = new Map(makeReady.map((check) => [check.id, check]));
  const isDone = (id: string) => isInOrder(state, byId.get(id)!);
  const left = makeReady.filter(({ id }) => !isDone(id));
  const [picked, setPicked] = useState<string | null>(null);
  const next = visits.findIndex(({ topics }) => topics.some((id) => !isDone(id)));
  const signs = new Map(
    visits.map(({ station, topics }, i): [string, StationSign] => [
      station,
      {
        number: i + 1,
        look: topics.every(isDone) ? "done" : i === next ? "current" : "ahead",
        hasSnag: topics.some((id) => state.ready.get(id)?.ok === false && !isDone(id)),
      },
    ]),
  );
  const owed = listOwed([], [], state);
  return (
    <BoatPage
      plan={
        <DeckPlan
          rig={rig}
          plan={{ ...delivery.plan, visits }}
          signs={signs}
          wrong={listWrong(state)}
          picked={picked}
          onPick={(station) => {
            setPicked(station);
            document.getElementById(`stop-${station}`)?.scrollIntoView({ block: "start", behavior: "smooth" });
          }}
          className="size-full"
        />
      }
    >
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 className="text-2xl font-bold">
            Make-ready <span className="font-medium text-soft">{delivery.boatName}</span>
          </h1>
          <p>
            {left.length === 0 ? (
              <strong>All {makeReady.length} checks are done.</strong>
            ) : (
              <>
                <strong className="num">{makeReady.length - left.length}</strong> of{" "}
                <strong className="num">{makeReady.length}</strong> checks, for {formatLongDay(delivery.date)},{" "}
                {formatTimeOf(delivery.time)}
              </>
            )}
          </p>
        </div>
        <Link to={`/deliveries/${delivery.id}`} className={linkLook("plain")}>
          The plan
        </Link>
      </div>
      <ol className="mt-4 max-w-4xl">
        {visits.map(({ station, topics }, i) => (
          <li key={station} id={`stop-${station}`} className="scroll-mt-4 border-t border-ink pt-2 pb-4">
            <h2 className="flex items-baseline gap-3 text-lg font-bold">
              <span className="num w-6 text-right">{i + 1}</span>
              {rig.stations.find(({ id }) => id === station)?.label}
              <span className="num ml-auto font-normal text-soft">
                {topics.filter(isDone).length} of {topics.length}
              </span>
            </h2>
            <Stop delivery={delivery} state={state} checks={topics.map((id) => byId.get(id)!)} />
          </li>
        ))}
      </ol>
      <div className="max-w-4xl space-y-8">
        <section aria-labelledby="readings">
          <h2 id="readings" className="text-lg font-bold">
            Readings
          </h2>
          <MeasureList rig={rig} state={state} kinds={null} onAdd={(entry) => void syncQueue.add(delivery.id, entry)} />
        </section>
        <HoursSection delivery={delivery} state={state} />
        <section aria-labelledby="faults">
          <h2 id="faults" className="text-lg font-bold">
            Faults and what is owed
          </h2>
          <OwedList delivery={delivery} state={state} owed={owed} />
        </section>
      </div>
    </BoatPage>
  );
}

interface StopProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly checks: readonly ReadyCheck[];
}

/** The checks of one place; the panel's as one line a switch, its positions side by side. */
function Stop({ delivery, state, checks }: StopProps) {
  const [fault, setFault] = useState<ReadyCheck | null>(null);
  const [good, setGood] = useState<ReadyCheck | null>(null);
  const mended = good === null ? [] : listFaultsOf(good, state);
  const station = delivery.rig.stations.find(({ id }) => id === fault?.station);
  const general = checks.filter((check) => check.switch === null);
  const switches = delivery.rig.panel.filter(({ id }) => checks.some((check) => check.switch === id));
  return (
    <>
      <ul>
        {general.map((check) => (
          <CheckLine
            key={check.id}
            delivery={delivery}
            check={check}
            entry={state.ready.get(check.id)}
            stands={findReady(state, check)}
            onFault={() => setFault(check)}
            onGood={() => setGood(check)}
          />
        ))}
      </ul>
      {switches.length > 0 && (
        <ul aria-label="The panel, switch by switch">
          {switches.map((item) => (
            <SwitchLine
              key={item.id}
              delivery={delivery}
              state={state}
              item={item}
              checks={checks.filter((check) => check.switch === item.id)}
              onFault={setFault}
              onGood={setGood}
            />
          ))}
        </ul>
      )}
      {mended.map((snag) => (
        <Mended key={snag.id} delivery={delivery} snag={snag} onDone={() => setGood(null)} />
      ))}
      {fault !== null && (
        <OwedPad
          key={fault.id}
          rig={delivery.rig}
          topic={null}
          note={`${fault.title}: `}
          place={station?.at ?? null}
          staff={listWhoFixes(delivery)}
          onKeep={(entry, photos) =>
            void keepOwed(delivery.id, entry.kind === "snag" ? { ...entry, check: fault.id } : entry, photos)
          }
          onDone={() => setFault(null)}
        />
      )}
    </>
  );
}

/** Faults that were written down from this check and are still open; of older ones the words begin with its name. */
function listFaultsOf({ title, id }: ReadyCheck, state: WalkState): readonly EntryOf<"snag">[] {
  if (state.ready.get(id)?.ok !== true) return [];
  return state.snags.filter(
    (snag) => (snag.check === id || snag.note.startsWith(`${title}:`)) && !state.settled.has(snag.id),
  );
}

interface MendedProps {
  readonly delivery: Delivery;
  readonly snag: EntryOf<"snag">;
  readonly onDone: () => void;
}

/** A check turned good: whether the fault it had is mended is asked there and then. */
function Mended({ delivery, snag, onDone }: MendedProps) {
  return (
    <div role="group" aria-label="Mended?" className="my-2 ml-9 border-l-4 border-amber bg-panel px-4 py-3">
      <p>
        It is in order now. Is this mended? <strong>{snag.note}</strong>
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        <Button
          onClick={() => {
            void syncQueue.add(delivery.id, { kind: "settle", ref: snag.id, note: "Mended in make-ready" });
            onDone();
          }}
        >
          Yes, it is mended
        </Button>
        <Button look="quiet" onClick={onDone}>
          No, it stays open
        </Button>
      </p>
    </div>
  );
}

interface CheckLineProps {
  readonly delivery: Delivery;
  readonly check: ReadyCheck;
  readonly entry: EntryOf<"ready"> | undefined;
  readonly stands: ReturnType<typeof findReady>;
  /** It is not in order: a snag is to be written. */
  readonly onFault: () => void;
  readonly onGood: () => void;
}

const mostMinutes = 600;
const standWords = {
  open: "",
  good: "in order",
  bad: "not in order",
  mended: "put right; found not in order",
} as const;

function CheckLine({ delivery, check, entry, stands, onFault, onGood }: CheckLineProps) {
  const [minutes, setMinutes] = useState("");
  const run = Number(minutes.replace(",", "."));
  const needsRun = check.asksMinutes && !(run > 0 && run <= mostMinutes);
  const isDone = stands === "good" || stands === "mended";
  const nameOf = useStaffName(delivery);
  const keep = (ok: boolean) => {
    void syncQueue.add(delivery.id, {
      kind: "ready",
      check: check.id,
      ok,
      ...(ok && check.asksMinutes ? { minutes: run } : {}),
    });
    if (ok) onGood();
  };
  return (
    <li className="border-b border-rule py-2 pl-9">
      {check.caution !== null && !isDone && (
        <p className="mb-1 rounded-sm bg-caution px-3 py-1.5 text-oncaution">{check.caution}</p>
      )}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="min-w-0 flex-1 basis-56">
          <span className={isDone ? "text-soft" : "font-semibold"}>{check.title}</span>
          <span className="block text-sm text-soft">
            {entry === undefined
              ? check.why
              : `${standWords[stands]}${entry.minutes === undefined ? "" : `, run ${entry.minutes} min`}, ${nameOf(entry.by).split(" ")[0]} ${sayWhen(entry.at)}`}
          </span>
        </p>
        {check.asksMinutes && !isDone && (
          <label className="flex items-center gap-2">
            <input
              inputMode="decimal"
              aria-label={`Minutes run: ${check.title}`}
              value={minutes}
              onChange={(event) => setMinutes(event.target.value)}
              className="num min-h-11 w-20 rounded-md border border-soft bg-panel px-3 text-right"
            />
            <span className="text-soft">min run</span>
          </label>
        )}
        <Verdict
          title={check.title}
          isOk={stands === "open" ? null : isDone}
          isOff={needsRun}
          onKeep={keep}
          onFault={() => {
            keep(false);
            onFault();
          }}
        />
      </div>
    </li>
  );
}

/** With its day, unless it is today's. */
const sayWhen = (at: Instant) => {
  const day = storeDay(at);
  return day === storeDay(Date.now()) ? formatClock(at) : `${formatDay(day)}, ${formatClock(at)}`;
};

interface VerdictProps {
  readonly title: string;
  readonly isOk: boolean | null;
  readonly isOff: boolean;
  readonly onKeep: (ok: boolean) => void;
  readonly onFault: () => void;
}

function Verdict({ title, isOk, isOff, onKeep, onFault }: VerdictProps) {
  return (
    <span className="flex gap-2">
      <button
        type="button"
        aria-pressed={isOk === true}
        aria-label={`In order: ${title}`}
        disabled={isOff && isOk !== true}
        onClick={() => onKeep(isOk !== true)}
        className={`inline-flex min-h-12 items-center gap-1.5 rounded-md border border-ink px-4 font-semibold disabled:opacity-50 ${isOk === true ? "bg-ink text-sheet" : "bg-panel"}`}
      >
        <Check size={18} aria-hidden /> In order
      </button>
      <button
        type="button"
        aria-pressed={isOk === false}
        aria-label={`Not in order: ${title}`}
        onClick={onFault}
        className={`min-h-12 rounded-md border border-magenta px-3 font-semibold ${isOk === false ? "bg-magenta text-sheet" : "bg-panel text-magenta"}`}
      >
        ▲ Not
      </button>
    </span>
  );
}

interface SwitchLineProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly item: PanelSwitch;
  readonly checks: readonly ReadyCheck[];
  readonly onFault: (check: ReadyCheck) => void;
  readonly onGood: (check: ReadyCheck) => void;
}

function SwitchLine({ delivery, state, item, checks, onFault, onGood }: SwitchLineProps) {
  const number = delivery.rig.panel.indexOf(item) + 1;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
      <span className="num w-6 text-right font-bold text-soft">{number}</span>
      <span className="min-w-28 flex-1 font-semibold">{item.label ?? "no label"}</span>
      <span className="flex flex-wrap gap-2">
        {checks.map((check) => {
          const { id, title } = check;
          const stands = findReady(state, check);
          const ok = stands === "open" ? null : stands !== "bad";
          const [, does = title] = title.split(/ at |: /, 2);
          return (
            <span key={id} className="flex rounded-md border border-ink">
              <button
                type="button"
                aria-pressed={ok === true}
                aria-label={`In order: ${title}`}
                onClick={() => {
                  void syncQueue.add(delivery.id, { kind: "ready", check: id, ok: ok !== true });
                  if (ok !== true) onGood(check);
                }}
                className={`flex min-h-11 items-center gap-1.5 rounded-l-[5px] px-3 font-text ${ok === true ? "bg-ink text-sheet" : "bg-panel"}`}
              >
                {ok === true && <Check size={16} aria-hidden />}
                {does}
              </button>
              <button
                type="button"
                aria-pressed={ok === false}
                aria-label={`Not in order: ${title}`}
                onClick={() => {
                  void syncQueue.add(delivery.id, { kind: "ready", check: id, ok: false });
                  onFault(check);
                }}
                className={`min-h-11 rounded-r-[5px] border-l border-ink px-2.5 ${ok === false ? "bg-magenta text-sheet" : "text-magenta"}`}
              >
                ▲
              </button>
            </span>
          );
        })}
      </span>
    </li>
  );
}
