import { useQuery } from "@tanstack/react-query";
import { ChevronLeft, Search } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { Link, Navigate, useNavigate, useParams, useSearchParams } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { formatBuyers, mayEnter } from "../../../core/walk/index.ts";
import { PersonMenu } from "../../app/PersonMenu.tsx";
import { deliveryQuery } from "../../app/queries.ts";
import { Signal } from "../../app/Signal.tsx";
import { useMe } from "../../app/useMe.ts";
import { StartWalk } from "../../handover/StartWalk.tsx";
import { tellDelivery } from "../../handover/useDelivery.ts";
import type { NewEntry } from "../../offline/syncQueue.ts";
import { useNews } from "../../offline/useNews.ts";
import { findCorrecting, keepOwed } from "../../owed/keepOwed.ts";
import { listWhoFixes } from "../../owed/listWhoFixes.ts";
import { OwedPad } from "../../owed/OwedPad.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { listWrong } from "../../plan/listWrong.ts";
import { signStations } from "../../plan/signs.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { KeyHelp } from "../../ui/KeyHelp.tsx";
import { useMediaQuery } from "../../ui/useMediaQuery.ts";
import { Ahead } from "./Ahead.tsx";
import { LaterPad } from "./LaterPad.tsx";
import { MarkBar, wantedMark } from "./MarkBar.tsx";
import { NotAboardPad } from "./NotAboardPad.tsx";
import { SwitchSheet } from "./SwitchSheet.tsx";
import { TopicSheet } from "./TopicSheet.tsx";
import { UpdateOffer } from "./UpdateOffer.tsx";
import { useWalk, type Walk } from "./useWalk.ts";
import { WalkFind } from "./WalkFind.tsx";

/** The walk: where one stands on the plan, one topic large, marks under the thumb. */
export function WalkScreen() {
  const { delivery: id } = useParams() as { delivery: string };
  const delivery = useQuery(deliveryQuery(id));
  const [search] = useSearchParams();
  const isSecond = search.get("session") === "2";
  return (
    <Fetched query={delivery} what="the walk">
      {(data) =>
        data.seal === null ? (
          <WalkOf key={String(isSecond)} delivery={isSecond ? toSecond(data) : data} />
        ) : (
          <Navigate to={`/deliveries/${id}/record`} replace />
        )
      }
    </Fetched>
  );
}

/** The same handover with the second session's stops in place of the first's. */
function toSecond(delivery: Delivery): Delivery {
  const { second } = delivery.plan;
  return second === null ? delivery : { ...delivery, plan: { ...delivery.plan, ...second, second: null } };
}

function WalkOf({ delivery: read }: { delivery: Delivery }) {
  const [language, setLanguage] = useState(useMe().language);
  const delivery = useMemo(() => tellDelivery(read, language), [read, language]);
  const walk = useWalk(delivery, language, setLanguage);
  const { state } = walk;
  if (state.startedAt === null)
    return (
      <div className="min-h-dvh md:grid md:grid-cols-[272px_1fr]">
        <aside aria-label="Deck plan" className="bg-buff p-1.5 max-md:hidden">
          <DeckPlan
            rig={delivery.rig}
            plan={delivery.plan}
            signs={signStations(delivery.plan, delivery.topics, state, null)}
            wrong={listWrong(state)}
            className="h-dvh w-full"
          />
        </aside>
        <main className="max-w-3xl px-4 pt-6 md:px-8">
          <Link to={`/deliveries/${delivery.id}`} className="head inline-flex min-h-11 items-center gap-1 font-bold">
            <ChevronLeft aria-hidden size={18} /> Plan
          </Link>
          <h1 className="mt-2 text-2xl font-bold">{delivery.boatName}</h1>
          <p className="text-soft">{formatBuyers(delivery.buyers)}</p>
          <StartWalk delivery={delivery} state={state} />
        </main>
      </div>
    );
  return <WalkUnderWay walk={walk} />;
}

/** A tablet upright: the words get the width, the plan lies in a band above them. */
const band = "(min-width: 48rem) and (max-width: 63.99rem)";

type Pad = "later" | "snag" | "not-aboard" | { readonly correct: string };
const closeAddressOf = ({ id }: Delivery) => `/deliveries/${id}/close`;

function WalkUnderWay({ walk }: { walk: Walk }) {
  const { delivery } = walk;
  const plan = useMemo(() => ({ ...delivery.plan, visits: [...walk.visits] }), [delivery.plan, walk.visits]);
  const [pad, setPad] = useState<Pad | null>(null);
  const [aside, setAside] = useState<"find" | { switch: string } | null>(null);
  const [isPlanOpen, setPlanOpen] = useState(false);
  const hasScrolled = useRef(false);
  const isBand = useMediaQuery(band);
  const isBusy = pad !== null || aside !== null;
  useNews(delivery.id);
  const markNotAboard = () => (walk.step.topic.must ? setPad("not-aboard") : walk.mark("not-aboard"));
  return (
    <div
      className="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto] text-[20px]"
      onScrollCapture={() => {
        hasScrolled.current = true;
      }}
    >
      <WalkKeys
        walk={walk}
        isBusy={isBusy}
        onPad={setPad}
        onNotAboard={markNotAboard}
        onFind={() => setAside("find")}
      />
      <WalkHead walk={walk} onFind={() => setAside(aside === "find" ? null : "find")} />
      <div className="min-h-0 max-md:overflow-y-auto md:grid md:grid-rows-[min(15rem,26dvh)_minmax(0,1fr)] lg:grid-cols-[272px_1fr_232px] lg:grid-rows-[minmax(0,1fr)]">
        <aside
          aria-label="Deck plan"
          className={`border-rule bg-buff md:block md:h-full md:min-h-0 md:p-1.5 md:max-lg:border-b lg:border-r ${isPlanOpen ? "fixed inset-x-0 top-25 bottom-38 z-10 p-2" : "hidden"}`}
        >
          <DeckPlan
            isLying={isBand}
            rig={delivery.rig}
            plan={plan}
            {...(walk.step.stop === null ? {} : { stop: walk.step.stop })}
            signs={signStations(plan, delivery.topics, walk.state, walk.step.stop)}
            wrong={listWrong(walk.state)}
            picked={walk.step.station}
            onPick={(station) => {
              walk.goToStation(station);
              setAside(null);
              setPlanOpen(false);
            }}
            className="size-full"
          />
        </aside>
        <main className="bg-panel max-md:min-h-full md:h-full md:min-h-0 md:overflow-y-auto">
          <PhoneBar walk={walk} isPlanOpen={isPlanOpen} onPlan={() => setPlanOpen(!isPlanOpen)} />
          <UpdateOffer delivery={delivery} />
          {walk.isOrderNews && <OrderNews walk={walk} />}
          {aside === "find" && (
            <WalkFind walk={walk} onSwitch={(id) => setAside({ switch: id })} onDone={() => setAside(null)} />
          )}
          {aside !== null && aside !== "find" && (
            <SwitchSheet walk={walk} switchId={aside.switch} onBack={() => setAside(null)} />
          )}
          {aside === null && (
            <TopicSheet
              key={walk.step.topic.id}
              walk={walk}
              hasScrolled={hasScrolled}
              onSwitch={(id) => setAside({ switch: id })}
              onSnag={(correct) => setPad({ correct })}
            />
          )}
        </main>
        <Ahead
          walk={walk}
          closeAddress={closeAddressOf(delivery)}
          onGo={() => setAside(null)}
          onSnag={(correct) => setPad({ correct })}
        />
      </div>
      {/* A mark is for the topic one sees: none while something else stands in its place. */}
      {pad === null && aside === null && (
        <MarkBar
          walk={walk}
          onLater={() => setPad("later")}
          onNotAboard={markNotAboard}
          onSnag={() => setPad("snag")}
        />
      )}
      <WalkPad walk={walk} pad={pad} onDone={() => setPad(null)} />
    </div>
  );
}

interface WalkKeysProps {
  readonly walk: Walk;
  /** Something else has the keys. */
  readonly isBusy: boolean;
  readonly onPad: (pad: Pad) => void;
  readonly onNotAboard: () => void;
  readonly onFind: () => void;
}

/** Pressed twice within it, the third key of a presenter's remote takes back what it marked. */
const twiceMs = 1000;

function WalkKeys({ walk, isBusy, onPad, onNotAboard, onFind }: WalkKeysProps) {
  const navigate = useNavigate();
  const pressedAtMs = useRef(Number.NEGATIVE_INFINITY);
  const unlessBusy = (act: () => void) => () => {
    if (!isBusy) act();
  };
  // One hand holds the boat: a remote has three keys that every presentation knows.
  const markWanted = unlessBusy(() => {
    const nowMs = performance.now();
    const isTwice = nowMs - pressedAtMs.current < twiceMs;
    pressedAtMs.current = isTwice ? Number.NEGATIVE_INFINITY : nowMs;
    if (isTwice) walk.undo();
    else walk.mark(wantedMark[walk.step.topic.level]);
  });
  return (
    <KeyHelp
      actions={[
        { key: "1", says: "Explained", act: unlessBusy(() => walk.mark("told")) },
        { key: "2", says: "Shown", act: unlessBusy(() => walk.mark("shown")) },
        { key: "3", says: "They did it", act: unlessBusy(() => walk.mark("did")) },
        { key: "4", says: "Later", act: unlessBusy(() => onPad("later")) },
        { key: "5", says: "Not aboard", act: unlessBusy(onNotAboard) },
        { key: "p", says: "Who the mark is for: the next of those here", act: unlessBusy(walk.pickNext) },
        { key: "s", says: "Snag", act: unlessBusy(() => onPad("snag")) },
        { key: "u", says: "Undo", act: unlessBusy(walk.undo) },
        { key: "/", says: "Find a topic, a switch, a thing", act: unlessBusy(onFind) },
        { key: "PageDown", says: "Remote: next topic", act: unlessBusy(() => walk.go(walk.at + 1)) },
        { key: "PageUp", says: "Remote: topic before", act: unlessBusy(() => walk.go(walk.at - 1)) },
        { key: ".", says: "Remote, screen key: mark what the topic aims at; twice, take it back", act: markWanted },
        { key: "b", says: "The same, on other remotes", act: markWanted },
        { key: "ArrowRight", says: "Next topic", act: unlessBusy(() => walk.go(walk.at + 1)) },
        { key: "ArrowLeft", says: "Topic before", act: unlessBusy(() => walk.go(walk.at - 1)) },
        { key: "c", says: "Close the handover", act: unlessBusy(() => void navigate(closeAddressOf(walk.delivery))) },
      ]}
    />
  );
}

function WalkHead({ walk, onFind }: { walk: Walk; onFind: () => void }) {
  const { delivery } = walk;
  return (
    <header className="flex min-h-12 items-center gap-x-5 border-b border-ink bg-panel px-3 text-base md:px-5">
      <Link to={`/deliveries/${delivery.id}`} className="head flex min-h-11 items-center gap-1 font-bold no-underline">
        <ChevronLeft aria-hidden size={18} /> Plan
      </Link>
      <p className="head min-w-0 truncate font-bold max-md:hidden">{delivery.boatName}</p>
      <p className="min-w-0 truncate text-soft max-lg:hidden">{formatBuyers(delivery.buyers)}</p>
      <span className="ml-auto md:whitespace-nowrap">
        <Signal />
      </span>
      <button type="button" className="inline-flex min-h-11 items-center gap-2 font-text underline" onClick={onFind}>
        <Search size={18} aria-hidden /> Find
      </button>
      <span className="num whitespace-nowrap max-md:hidden">
        <strong>{walk.count.done}</strong>
        <span className="text-soft">
          {" "}
          of {walk.count.planned} <span className="max-xl:hidden">planned topics </span>done
        </span>
      </span>
      {/* Where there is room for a list of what lies ahead, the way to the closing stands under it. */}
      <Link
        to={closeAddressOf(delivery)}
        className="head hidden min-h-11 items-center font-semibold whitespace-nowrap underline md:max-lg:inline-flex"
      >
        Close
      </Link>
      <PersonMenu isShort />
    </header>
  );
}

interface PhoneBarProps {
  readonly walk: Walk;
  readonly isPlanOpen: boolean;
  readonly onPlan: () => void;
}

/** On a phone: the deck plan over the topic, and the way to the closing. */
function PhoneBar({ walk, isPlanOpen, onPlan }: PhoneBarProps) {
  return (
    <div className="flex gap-2 border-b border-rule px-3 py-1 text-base md:hidden">
      <button
        type="button"
        className="head min-h-11 flex-1 font-semibold underline"
        aria-expanded={isPlanOpen}
        onClick={onPlan}
      >
        {isPlanOpen ? "Hide the deck plan" : "Deck plan"}
      </button>
      <Link
        to={closeAddressOf(walk.delivery)}
        className="head inline-flex min-h-11 flex-1 items-center justify-center font-semibold underline"
      >
        Close ({walk.count.planned - walk.count.done} open)
      </Link>
    </div>
  );
}

/** What lies ahead was put in another order: said once, with the way back. */
function OrderNews({ walk }: { walk: Walk }) {
  return (
    <div role="status" className="flex flex-wrap items-center gap-x-4 border-b border-rule px-4 py-1 text-base md:px-8">
      <span>The stops ahead are in a new order, from where you stand. They keep their numbers.</span>
      <button type="button" className="min-h-12 font-text underline" onClick={walk.seeOrder}>
        All right
      </button>
      <button type="button" className="min-h-12 font-text underline" onClick={walk.putOrderBack}>
        As planned
      </button>
    </div>
  );
}

interface WalkPadProps {
  readonly walk: Walk;
  readonly pad: Pad | null;
  readonly onDone: () => void;
}

function WalkPad({ walk, pad, onDone }: WalkPadProps) {
  const { delivery, step, state } = walk;
  const me = useMe();
  const snagPad = {
    rig: delivery.rig,
    topic: step.topic.id,
    place: delivery.rig.stations.find(({ id }) => id === step.station)?.at ?? null,
    staff: listWhoFixes(delivery),
    onKeep: (entry: NewEntry, photos: readonly string[]) => void keepOwed(delivery.id, entry, photos),
    onDone,
  };
  if (pad !== null && typeof pad === "object") {
    const correcting = findCorrecting(state, pad.correct);
    if (correcting === null) return null;
    const isTheirs = correcting.snag.by !== me.id;
    const takeBack = (reason: string | null) => {
      void walk.add({ kind: "undo", ref: pad.correct, ...(reason === null ? {} : { reason }) });
      onDone();
    };
    // What another found is taken back by whoever may close.
    const mayTakeBack = !isTheirs || mayEnter("close", me.role, me.allowers);
    const back = mayTakeBack ? { onTakeBack: takeBack, isTheirs } : {};
    return <OwedPad key={pad.correct} {...snagPad} correcting={correcting} {...back} />;
  }
  switch (pad) {
    case "not-aboard":
      return <NotAboardPad walk={walk} onDone={onDone} />;
    case "later":
      return <LaterPad walk={walk} onDone={onDone} />;
    case "snag":
      return <OwedPad {...snagPad} />;
    default:
      return null;
  }
}
