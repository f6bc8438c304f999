import { useQuery } from "@tanstack/react-query";
import { ChevronLeft } from "lucide-react";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { type OwnerPage, ownerAuthor } from "../../../api/index.ts";
import { type Card, createCards } from "../../../core/card/index.ts";
import { drawDeck } from "../../../core/drawing/index.ts";
import { createTell, type Language, sayPhrase, tellJoined } from "../../../core/language/index.ts";
import { tellIn } from "../../../core/topic/index.ts";
import { foldWalk, listOwed, type WalkState } from "../../../core/walk/index.ts";
import { addressOf, ask, Refused } from "../../app/client.ts";
import { ownerPageQuery, queryClient, settle } from "../../app/queries.ts";
import { BreakInPanel } from "../../breakin/BreakInPanel.tsx";
import type { BreakInPort } from "../../breakin/breakInPort.ts";
import { CardSheet } from "../../card/CardSheet.tsx";
import { findSavedAnswer } from "../../offline/saved.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { owedSigns, owedWords } from "../../owed/owedWords.ts";
import { linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { LanguageSwitch } from "../../ui/LanguageSwitch.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { BookContext, useReader, useTell } from "../../ui/tell.ts";
import { formatDay, formatDayAndYear } from "../../ui/words.ts";
import { AskTheYard } from "./AskTheYard.tsx";
import { GearDates, readGearDates, sayDate } from "./GearDates.tsx";
import { HowToReach } from "./HowToReach.tsx";
import { OwnerArrival } from "./OwnerArrival.tsx";
import { OwnerCare } from "./OwnerCare.tsx";
import { OwnerFind, OwnerTopic } from "./OwnerFind.tsx";
import { OwnerHours } from "./OwnerHours.tsx";
import { OwnerInstall, useOwnApp } from "./OwnerInstall.tsx";
import { OwnerWalk } from "./OwnerWalk.tsx";

/** An owner's private page, for the phone: their cards, their record, what is promised, a question to the yard. */
export function OwnerScreen() {
  const tell = useTell();
  const { token } = useParams() as { token: string };
  const page = useQuery(ownerPageQuery(token));
  useOwnApp(token);
  useEffect(() => {
    // The address is the key: it is not told to where its links lead.
    const meta = document.createElement("meta");
    meta.name = "referrer";
    meta.content = "no-referrer";
    document.head.append(meta);
    return () => meta.remove();
  }, []);
  if (page.error instanceof Refused && page.error.code === "link-ended")
    return <Ended token={token} error={page.error} />;
  return (
    <Fetched query={page} what={tell("your boat")}>
      {(data) => <PageOf token={token} page={data} />}
    </Fetched>
  );
}

/** The address opens nothing any more: whom to ask, and what this device has saved of it, as it was. */
function Ended({ token, error }: { token: string; error: Refused }) {
  const tell = useTell();
  const [saved, setSaved] = useState<OwnerPage | null>(null);
  useEffect(() => {
    void findSavedAnswer<OwnerPage>(addressOf("ownerPage", { token })).then((page) => {
      if (page !== null) setSaved(settle(page));
    });
  }, [token]);
  return (
    <>
      <div className="mx-auto max-w-2xl p-4">
        <ErrorNotice error={error}>
          {saved !== null && <p>{tell("Below is what this device saved; it is not kept up to date any more.")}</p>}
        </ErrorNotice>
      </div>
      {saved !== null && <PageOf token={token} page={saved} />}
    </>
  );
}

function PageOf({ token, page: read }: { token: string; page: OwnerPage }) {
  const tell = useTell();
  const [search] = useSearchParams();
  const theirs = read.book?.language ?? "en";
  const [language, setLanguage] = useState<Language>(theirs);
  const page = useMemo(() => ({ ...read, delivery: tellIn(read.delivery, language) }), [read, language]);
  const book = language === "en" ? undefined : (read.book ?? undefined);
  const { delivery, store, phone } = page;
  const state = useMemo(() => foldWalk(delivery.entries), [delivery.entries]);
  const cards = useMemo(
    () =>
      createCards(page.cards, {
        rig: delivery.rig,
        boatName: delivery.boatName,
        hull: delivery.hull,
        store,
        phone,
        breakInPacks: page.breakInPacks,
        servicePacks: page.servicePacks,
        gear: state.gear,
        idiom: { ...page.region, book },
        emergency: page.region.emergency,
      }),
    [page, delivery, store, phone, state.gear, book],
  );
  const view = search.get("view");
  const card = cards.find(({ id }) => id === view);
  const topic = delivery.topics.find(({ id }) => id === search.get("topic"));
  return (
    <div className="mx-auto max-w-2xl px-4 pt-4 pb-16 text-[17px]">
      <header className="flow-root border-b border-ink pb-2">
        {page.logo != null && (
          <img
            src={addressOf("ownerPhoto", { token, photo: page.logo })}
            alt=""
            className="mb-2 h-12 max-w-48 rounded-sm bg-white object-contain object-left"
          />
        )}
        <BoatPicture rig={delivery.rig} />
        <p className="head text-base font-semibold text-soft">{store}</p>
        <h1 className="text-3xl font-extrabold">{delivery.boatName}</h1>
        <p className="break-words text-soft">
          {delivery.hull},{" "}
          {tellJoined(
            createTell(book ?? null),
            delivery.buyers.map(({ name }) => name),
          )}
        </p>
        {theirs !== "en" && (
          <LanguageSwitch
            legend={tell("Language of the cards and topics")}
            choices={[theirs, "en"]}
            shown={language}
            onChange={setLanguage}
          />
        )}
      </header>
      <BookContext value={book}>
        <main className="pt-4">
          {view !== null && (
            <Link to="?" className="head mb-3 inline-flex min-h-12 items-center gap-1 font-semibold">
              <ChevronLeft size={18} aria-hidden /> {sayPhrase(book, "All cards")}
            </Link>
          )}
          {card !== undefined && (
            <div lang={language}>
              <CardSheet card={card} rig={delivery.rig} />
            </div>
          )}
          {view === "walk" && <OwnerWalk token={token} page={page} state={state} />}
          {view === "topic" && topic !== undefined && <OwnerTopic topic={topic} rig={delivery.rig} />}
          {view === "arrival" && <OwnerArrival token={token} page={page} state={state} />}
          {view === "due" && (
            <>
              <OwnerCare token={token} page={page} />
              <GearDates token={token} page={page} state={state} />
            </>
          )}
          {view === "runs" && <OwnerRuns token={token} page={page} />}
          {view === "finder" && (
            <Suspense fallback={<p>{tell("Opening the finder …")}</p>}>
              <OwnerFinder token={token} page={page} />
            </Suspense>
          )}
          {view === "tow" && (
            <Suspense fallback={<p>{tell("Opening the tow check …")}</p>}>
              <OwnerTow token={token} page={page} />
            </Suspense>
          )}
          {view === "steps" && (
            <Suspense fallback={<p>{tell("Opening the steps …")}</p>}>
              <OwnerSteps token={token} page={page} sequence={search.get("of") ?? "launch"} />
            </Suspense>
          )}
          {(view === "trip" || view === "officer") && (
            <Suspense fallback={<p>{tell("Opening the trip …")}</p>}>
              <OwnerTrip token={token} page={page} state={state} isOfficer={view === "officer"} />
            </Suspense>
          )}
          {view === "power" && (
            <Suspense fallback={<p>{tell("Opening the power map …")}</p>}>
              <PowerMap rig={delivery.rig} />
            </Suspense>
          )}
          {card === undefined && !ownViews.includes(view) && (
            <Front token={token} page={page} state={state} cards={cards} />
          )}
        </main>
      </BookContext>
    </div>
  );
}

const OwnerFinder = lazy(() => import("./OwnerFinder.tsx"));
const OwnerTow = lazy(() => import("./OwnerTow.tsx"));
const OwnerTrip = lazy(() => import("./OwnerTrip.tsx"));
const OwnerSteps = lazy(() => import("./OwnerSteps.tsx"));
const PowerMap = lazy(async () => ({ default: (await import("../../power/PowerView.tsx")).PowerMap }));
const ownViews: readonly (string | null)[] = [
  "power",
  "finder",
  "tow",
  "steps",
  "trip",
  "officer",
  "walk",
  "arrival",
  "due",
  "runs",
  "topic",
];

function OwnerRuns({ token, page }: { token: string; page: OwnerPage }) {
  const tell = useTell();
  const port: BreakInPort = {
    key: page.delivery.boat,
    about: token,
    today: page.today,
    hasGateway: false,
    care: page.care.map((care) => ({
      ...care,
      label: tell(care.label),
      breakInTitle: tell(care.breakInTitle),
      breakInBasis: tell(care.breakInBasis),
    })),
    runs: page.runs,
    async addRun(body, says) {
      const id = body.engines[0]!.id;
      const answer = await syncQueue.post({ id, name: "addOwnerRun", params: { token }, body, about: token, says });
      return answer?.runs ?? null;
    },
    fills: page.fills,
    addFill: (body, says) =>
      syncQueue.post({ id: body.id, name: "addOwnerFill", params: { token }, body, about: token, says }),
    async withdraw(body) {
      await ask("withdrawOwn", { params: { token }, body });
      await queryClient.invalidateQueries({ queryKey: ownerPageQuery(token).queryKey });
    },
    mayCorrect: ({ by }) => by === ownerAuthor,
    fetchRun: (run) => ask("ownerRun", { params: { token, run } }),
  };
  return <BreakInPanel port={port} />;
}

interface FrontProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly state: WalkState;
  readonly cards: readonly Card[];
}

function Front({ token, page, state, cards }: FrontProps) {
  const { delivery, phone } = page;
  const tell = useTell();
  const planned = delivery.plan.visits.reduce((sum, { topics }) => sum + topics.length, 0);
  const isRemote = delivery.link?.isRemote === true && delivery.seal === null;
  return (
    <>
      {isRemote && (
        <section aria-label={tell("The walk")} className="mb-5 border-l-4 border-helm bg-panel px-4 py-3">
          <p>
            {tell(
              "Your yard goes through the boat with you from afar: {0} topics, each with what to do and what to mind. {1} are done.",
              planned,
              state.remote.size,
            )}
          </p>
          <p className="mt-2 flex flex-wrap gap-2">
            <Link to="?view=walk" className={linkLook("primary")}>
              {tell(state.remote.size === 0 ? "Begin the walk" : "Go on with the walk")}
            </Link>
            <Link to="?view=arrival" className={linkLook("plain")}>
              {tell("The boat has arrived")}
            </Link>
          </p>
        </section>
      )}
      <OwnerFind page={page} cards={cards} />
      <RunsOut page={page} state={state} />
      {page.inService !== null && <CareLinks token={token} page={page} />}
      <HowToReach token={token} page={page} />
      <OnTheRoad page={page} />
      <nav aria-label={tell("Cards")}>
        <ul className="grid grid-cols-2 gap-2">
          {cards.map(({ id, title }, i) => (
            <li key={id}>
              <Link
                to={`?view=${id}`}
                className="head flex min-h-16 items-center gap-3 rounded-md border border-ink bg-panel px-3 font-bold no-underline"
              >
                <span className="num w-5 text-right text-soft">{i + 1}</span>
                {title}
              </Link>
            </li>
          ))}
        </ul>
      </nav>
      {phone !== "" && <p className="mt-4 font-semibold">{phone}</p>}
      <OwedToYou page={page} state={state} />
      <Papers token={token} page={page} />
      <OwnerInstall boatName={delivery.boatName} />
      <AskTheYard token={token} page={page} state={state} topic={null} />
    </>
  );
}

/** Their boat as it lies in the water, beside its name. */
function BoatPicture({ rig }: { rig: OwnerPage["delivery"]["rig"] }) {
  const { shapes, box } = useMemo(() => drawDeck(rig, { trailer: false }), [rig]);
  return (
    <svg
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      className="float-right ml-3 h-40 w-20"
      aria-hidden
      data-testid="boat-picture"
    >
      {shapes.map(({ role, d }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the drawing is fixed and has no other name for a line
        <path key={i} d={d} className={`deck-${role}`} />
      ))}
    </svg>
  );
}

/** What has run out or soon will, where it is seen first. */
function RunsOut({ page, state }: { page: OwnerPage; state: WalkState }) {
  const reader = useReader();
  const { tell } = reader;
  const pressing = readGearDates(page, state).filter((date) => date.state === "past" || date.state === "soon");
  if (pressing.length === 0) return null;
  return (
    <ul aria-label={tell("What runs out")} className="mb-5 border-l-4 border-amber pl-3">
      {pressing.map((date) => (
        <li key={date.id} className={date.state === "past" ? "text-magenta" : "text-amber"}>
          {tell(date.label)}: {sayDate(date, page.today, reader)}.{" "}
          <Link to="?view=due" className="underline">
            {tell("Enter a new day")}
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** What is done with it, step by step: on the road, at the ramp and after the day. */
function OnTheRoad({ page }: { page: OwnerPage }) {
  const tell = useTell();
  const hasTrailer = page.delivery.rig.trailer !== null;
  return (
    <p className="mb-5 grid grid-cols-2 gap-2">
      {hasTrailer && (
        <>
          <Link to="?view=tow" className={linkLook("plain")}>
            {tell("May my car tow it?")}
          </Link>
          <Link to="?view=steps&of=hitch" className={linkLook("plain")}>
            {tell("Hitch up")}
          </Link>
          <Link to="?view=steps&of=launch" className={linkLook("plain")}>
            {tell("Launch")}
          </Link>
          <Link to="?view=steps&of=load" className={linkLook("plain")}>
            {tell("Load on the trailer")}
          </Link>
        </>
      )}
      <Link to="?view=steps&of=put-away" className={linkLook("plain")}>
        {tell("Put the boat away")}
      </Link>
      <Link to="?view=trip" className={linkLook("plain")}>
        {tell("Plan a day out")}
      </Link>
      <Link to="?view=officer" className={linkLook("plain")}>
        {tell("Safety check")}
      </Link>
    </p>
  );
}

function CareLinks({ token, page }: { token: string; page: OwnerPage }) {
  const tell = useTell();
  return (
    <>
      <OwnerHours token={token} page={page} />
      <p className="mb-5 grid grid-cols-2 gap-2">
        <Link to="?view=runs" className={linkLook("plain")}>
          {tell(
            page.care.some(({ breakIn }) => breakIn !== null && !breakIn.done) ? "Break-in: next run" : "Runs logged",
          )}
        </Link>
        <Link to="?view=finder" className={linkLook("plain")}>
          {tell("It does not work")}
        </Link>
        <Link to="?view=power" className={linkLook("plain")}>
          {tell("Leaving the boat: what drains")}
        </Link>
        <Link to="?view=due" className={linkLook("plain")}>
          {tell("What is due")}
        </Link>
      </p>
    </>
  );
}

function OwedToYou({ page, state }: { page: OwnerPage; state: WalkState }) {
  const { delivery } = page;
  const reader = useReader();
  const { tell } = reader;
  const owed = listOwed(delivery.topics, delivery.rig.gear, state, tell).filter(({ what }) => what !== "question");
  return (
    <section aria-labelledby="promised" className="mt-7">
      <h2 id="promised" className="text-lg font-bold">
        {tell("What we owe you")}
      </h2>
      <ul className="border-t border-ink">
        {owed.length === 0 && <li className="py-2 text-soft">{tell("Nothing is open.")}</li>}
        {owed.map(({ ref, what, text, due }) => (
          <li key={ref} className="flex gap-2 border-b border-rule py-2">
            <span aria-hidden className="w-4">
              {owedSigns[what]}
            </span>
            <span className="min-w-0 flex-1 break-words">
              {text}
              <span className="block text-sm text-soft">
                {tell(owedWords[what])}
                {due === null ? "" : `, ${tell("by {0}", formatDay(due, reader))}`}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Papers({ token, page }: { token: string; page: OwnerPage }) {
  const { delivery } = page;
  const reader = useReader();
  const { tell, language } = reader;
  return (
    <section aria-labelledby="papers" className="mt-7">
      <h2 id="papers" className="text-lg font-bold">
        {tell("Your record")}
      </h2>
      <p className="border-t border-ink pt-2">
        {delivery.seal === null
          ? tell("It is signed and sealed when the handover is closed.")
          : tell("Handed over {0}, signed and sealed.", formatDayAndYear(delivery.date, reader))}
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        {delivery.seal !== null && (
          <a
            className={linkLook("plain")}
            href={`${addressOf("ownerRecordPdf", { token })}?paper=${storeRegion().paper}&language=${language}`}
            target="_blank"
            rel="noreferrer"
          >
            {tell("Record as PDF")}
          </a>
        )}
        <a
          className={linkLook("plain")}
          href={`${addressOf("ownerPackPdf", { token })}?paper=${storeRegion().paper}`}
          target="_blank"
          rel="noreferrer"
        >
          {tell("These cards, to print")}
        </a>
      </p>
    </section>
  );
}
