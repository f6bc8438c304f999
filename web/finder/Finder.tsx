import { type ReactNode, useEffect, useState } from "react";
import {
  type FaultContent,
  type FaultFunction,
  type FaultMender,
  type Findings,
  listAtPlace,
  listContradicting,
  matchWords,
  type Urgent,
} from "../../core/faults/index.ts";
import { type Tell, tellJoined } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { useTell } from "../ui/tell.ts";
import { type Finder, useFinder } from "./useFinder.ts";

interface FinderProps {
  readonly rig: Rig;
  readonly content: FaultContent;
  /** The yard's number; null among the yard's own people. */
  readonly phone: string | null;
  /** What an earlier call had found, to go on from. */
  readonly begin?: Findings | null;
  /** What was said already. */
  readonly says?: string;
  /** The station that was touched on a plan. */
  readonly place?: string | null;
  /** What can be done with what was found: told to the yard, or logged. */
  readonly end: (finder: Finder) => ReactNode;
  /** The part that is looked at now, for a plan beside. */
  readonly onPart?: (part: string | null) => void;
}

/** From "it does not work" to what is at fault: what comes first, then one question and one look after the other. */
export function FaultFinder({ rig, content, phone, begin = null, says = "", place = null, end, onPart }: FinderProps) {
  const finder = useFinder(rig, content, begin, phone !== null);
  const part = (finder.fault ?? finder.next)?.part ?? null;
  useEffect(() => onPart?.(part), [onPart, part]);
  const [urgent, setUrgent] = useState<Urgent | null>(null);
  const tell = useTell();
  if (urgent !== null) return <UrgentSteps urgent={urgent} phone={phone} onBack={() => setUrgent(null)} />;
  return (
    <div>
      <ul aria-label={tell("Comes first")} className="flex flex-wrap gap-2">
        {content.urgent.map((each) => (
          <li key={each.id}>
            <Button look="person" className="min-h-12" onClick={() => setUrgent(each)}>
              ▲ {tell(each.says)}
            </Button>
          </li>
        ))}
      </ul>
      <Say finder={finder} says={says} urgent={content.urgent} onUrgent={setUrgent} />
      {place !== null && <AtPlace rig={rig} finder={finder} place={place} />}
      {finder.hasBegun && <Seen finder={finder} />}
      {finder.conflict !== null && <Contradiction finder={finder} ids={finder.conflict.conflicting} phone={phone} />}
      {finder.fault !== null ? (
        <AtFault finder={finder} phone={phone} />
      ) : (
        finder.found !== null && (
          <div className="mt-5 grid gap-x-8 gap-y-5 md:grid-cols-2">
            <AskNext finder={finder} phone={phone} />
            <Suspects finder={finder} />
          </div>
        )
      )}
      {finder.hasBegun && <div className="mt-5 border-t border-rule pt-3">{end(finder)}</div>}
    </div>
  );
}

function UrgentSteps({ urgent, phone, onBack }: { urgent: Urgent; phone: string | null; onBack: () => void }) {
  const tell = useTell();
  return (
    <section aria-labelledby="urgent" className="border-l-[7px] border-magenta pl-4">
      <h2 id="urgent" className="text-2xl font-extrabold text-magenta">
        ▲ {tell(urgent.says)}
      </h2>
      <ol className="mt-2 list-decimal space-y-2 pl-6 text-lg">
        {urgent.do.map((step) => (
          <li key={step}>{tell(step)}</li>
        ))}
      </ol>
      <p className="mt-4 flex flex-wrap gap-3">
        <Call phone={phone} />
        <Button onClick={onBack}>{tell("It is safe: find the cause")}</Button>
      </p>
    </section>
  );
}

function Call({ phone }: { phone: string | null }) {
  const tell = useTell();
  if (phone === null || phone === "") return null;
  return (
    <a
      href={`tel:${phone.replace(/[^\d+]/g, "")}`}
      className="head inline-flex min-h-12 items-center rounded-md border border-helm bg-helm px-4 font-semibold text-onhelm no-underline"
    >
      {tell("Call the yard, {0}", phone)}
    </a>
  );
}

interface SayProps {
  readonly finder: Finder;
  readonly says: string;
  readonly urgent: readonly Urgent[];
  readonly onUrgent: (urgent: Urgent) => void;
}

/** What does not work, in people's own words; words of danger lead to what comes first. */
function Say({ finder, says, urgent, onUrgent }: SayProps) {
  const [text, setText] = useState(says);
  const tell = useTell();
  const matches = matchWords(finder.model.functions, text).filter(
    ({ id }) => finder.findings.functions[id] === undefined,
  );
  const said = text.toLowerCase();
  const dangers = urgent.filter(({ words, ...each }) =>
    [...words, tell(each.says).toLowerCase()].some((word) => said.includes(word)),
  );
  return (
    <section aria-label={tell("What does not work")} className="mt-5">
      <label className="block font-bold" htmlFor="wrong">
        {tell(finder.hasBegun ? "What else does not work?" : "What does not work?")}
      </label>
      <input
        id="wrong"
        value={text}
        maxLength={80}
        placeholder={tell("beeps but won't start; no water at the tap")}
        onChange={(event) => setText(readPlain(event))}
        className="mt-1 min-h-12 w-full rounded-md border border-soft bg-panel px-3 text-lg placeholder:text-soft"
      />
      {dangers.map((each) => (
        <p key={each.id} className="mt-2">
          <Button look="person" className="min-h-12" onClick={() => onUrgent(each)}>
            ▲ {tell("First: {0}", tell(each.says))}
          </Button>
        </p>
      ))}
      {text.trim() !== "" && matches.length === 0 && dangers.length === 0 && (
        <p className="mt-1 text-soft">
          {tell("Nothing of that name on this boat. Try the thing itself: starts, toilet, horn.")}
        </p>
      )}
      <MatchList label={tell("Is it this")} finder={finder} matches={matches} text={text} onTaken={() => setText("")} />
    </section>
  );
}

/** What is at the place that was touched: one of it may be what does not work. */
function AtPlace({ rig, finder, place }: { rig: Rig; finder: Finder; place: string }) {
  const tell = useTell();
  const station = rig.stations.find(({ id }) => id === place);
  if (station === undefined) return null;
  const here = listAtPlace(finder.model, rig, place).filter(({ id }) => finder.findings.functions[id] === undefined);
  return (
    <section aria-label={tell("At the place touched")} className="mt-3">
      <p className="font-bold">
        {station.label}
        {here.length === 0 && (
          <span className="font-normal text-soft">{tell(": nothing is known here that could fail")}</span>
        )}
      </p>
      <MatchList label={tell("Is it this here")} finder={finder} matches={here} text="" />
    </section>
  );
}

interface MatchListProps {
  readonly label: string;
  readonly finder: Finder;
  readonly matches: readonly FaultFunction[];
  readonly text: string;
  readonly onTaken?: () => void;
}

/** Functions of which one may be what does not work. */
function MatchList({ label, finder, matches, text, onTaken }: MatchListProps) {
  const tell = useTell();
  return (
    <ul aria-label={label} className="mt-2 flex flex-wrap gap-2">
      {matches.map((match) => (
        <li key={match.id}>
          <Button
            className="min-h-12"
            aria-label={tell("Does not work: {0}", match.label)}
            onClick={() => {
              finder.fail(match, text);
              onTaken?.();
            }}
          >
            {tell("{0}: no", match.label)}
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** What was answered so far; each can be taken back. */
function Seen({ finder }: { finder: Finder }) {
  const { model, findings } = finder;
  const tell = useTell();
  const lines = [
    ...Object.entries(findings.functions).map(([id, works]) => ({
      id,
      says: model.functions.find((each) => each.id === id)!.label,
      works,
    })),
    ...Object.entries(findings.components).map(([id, works]) => ({
      id,
      says: model.components.find((each) => each.id === id)!.label,
      works,
    })),
  ];
  return (
    <section aria-label={tell("Seen so far")} className="mt-4">
      <ul className="flex flex-wrap gap-2">
        {lines.map(({ id, says, works }) => (
          <li key={id}>
            <button
              type="button"
              onClick={() => finder.forget(id)}
              aria-label={tell(works ? "Take back: {0}, good" : "Take back: {0}, not", says)}
              className="min-h-11 rounded-full border border-rule px-3"
            >
              <span className={works ? "" : "text-magenta"}>{works ? "✓" : "✗"}</span> {says}
            </button>
          </li>
        ))}
        <li>
          <Button look="quiet" onClick={finder.restart}>
            {tell("Start over")}
          </Button>
        </li>
      </ul>
    </section>
  );
}

interface ContradictionProps {
  readonly finder: Finder;
  readonly ids: readonly string[];
  readonly phone: string | null;
}

/** Of answers that exclude each other one is wrong: each can be given anew. */
function Contradiction({ finder, ids, phone }: ContradictionProps) {
  const tell = useTell();
  const again = listContradicting(finder.model, finder.findings, ids);
  return (
    <div role="alert" className="mt-3 border-l-4 border-magenta bg-panel px-4 py-2">
      <p>
        ▲{" "}
        {tell(
          again.length > 1
            ? "Not all of these answers can be right. Look again at the one you are least sure of:"
            : "So much at once cannot be told from here. Take back what you are not sure of.",
        )}
      </p>
      {again.length > 1 && (
        <p className="mt-2 flex flex-wrap gap-2">
          {again.map(({ id, label }) => (
            <Button key={id} onClick={() => finder.forget(id)}>
              {tell("Again: {0}", label)}
            </Button>
          ))}
        </p>
      )}
      <p className="mt-2">
        <Call phone={phone} />
      </p>
    </div>
  );
}

function Suspects({ finder }: { finder: Finder }) {
  const { suspects } = finder.found!;
  const tell = useTell();
  const rest = suspects.slice(mostShown);
  const restShare = rest.reduce((sum, { share }) => sum + share, 0);
  return (
    <section aria-labelledby="suspects">
      <h2 id="suspects" className="text-lg font-bold">
        {tell("What it may be")}
      </h2>
      <ol className="border-t border-ink">
        {suspects.slice(0, mostShown).map(({ faults, share }) => (
          <li key={faults.map(({ id }) => id).join()} className="border-b border-rule py-1.5">
            <span className="flex items-baseline gap-3">
              <strong className="num w-12 text-right">{sayShare(share)}</strong>
              <span>
                {tellJoined(
                  tell,
                  faults.map(({ label }) => label),
                )}
              </span>
            </span>
            <span
              aria-hidden
              className="ml-15 mt-1 block h-1.5 bg-deep"
              style={{ width: `${Math.max(2, share * 70)}%` }}
            />
          </li>
        ))}
        {rest.length > 0 && (
          <li className="flex items-baseline gap-3 py-1.5 text-soft">
            <span className="num w-12 text-right">{sayShare(restShare)}</span> {tell("{0} others", rest.length)}
          </li>
        )}
      </ol>
    </section>
  );
}
const mostShown = 5;
const sayShare = (share: number) => (share < 0.01 ? "< 1 %" : `${Math.round(share * 100)} %`);
const sayMinutes = (minutes: number, tell: Tell) =>
  minutes < 1 ? tell("{0} seconds", Math.round(minutes * 60)) : `${minutes} min`;

/** What is said before a look, a try or a repair. */
function Caution({ says }: { says: string | null }) {
  if (says === null) return null;
  return <p className="mt-1 rounded-md bg-caution px-3 py-2 font-semibold text-oncaution">▲ {says}</p>;
}

/** The next look, with its caution before it; then whether something else works. */
function AskNext({ finder, phone }: { finder: Finder; phone: string | null }) {
  const { next, questions } = finder;
  const tell = useTell();
  return (
    <div className="space-y-4">
      {next === null ? (
        <p className="border-t border-ink py-2">
          {tell("Nothing is left to look at from here.")} <Call phone={phone} />
        </p>
      ) : (
        <section aria-labelledby="next" className="rounded-lg border-2 border-ink bg-panel p-4">
          <h2 id="next" className="head text-base font-semibold text-soft">
            {tell("Look next · {0}", sayMinutes(next.minutes, tell))}
          </h2>
          {next.isForYard && (
            <p className="mt-1 font-semibold text-magenta">
              {tell("Only at the yard. Do not ask the person on the phone to do this.")}
            </p>
          )}
          <Caution says={next.caution} />
          <p className="mt-1 text-xl">{next.check}</p>
          <p className="mt-3 grid grid-cols-3 gap-2">
            <Button className="min-h-14" onClick={() => finder.look(next.id, true)}>
              {tell("Yes")}
            </Button>
            <Button className="min-h-14" onClick={() => finder.look(next.id, false)}>
              {tell("No")}
            </Button>
            <Button look="quiet" className="min-h-14" onClick={() => finder.skip(next.id)}>
              {tell("Can't tell")}
            </Button>
          </p>
        </section>
      )}
      {questions.length > 0 && (
        <section aria-label={tell("Does something else work")}>
          <h2 className="text-lg font-bold">{tell("And does this work?")}</h2>
          <ul className="border-t border-ink">
            {questions.slice(0, 4).map(({ id, asks, caution }) => (
              <li key={id} className="flex flex-wrap items-center gap-2 border-b border-rule py-1.5">
                <span className="min-w-40 flex-1">
                  {asks}
                  {caution !== null && <small className="block text-sm">▲ {caution}</small>}
                </span>
                <span role="radiogroup" aria-label={asks} className="flex gap-1.5">
                  <Chip isPicked={false} onPick={() => finder.answer(id, true)}>
                    {tell("Yes")}
                  </Chip>
                  <Chip isPicked={false} onPick={() => finder.answer(id, false)}>
                    {tell("No")}
                  </Chip>
                  <Chip isPicked={false} onPick={() => finder.skip(id)}>
                    ?
                  </Chip>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

const whoWords: Record<FaultMender, string> = {
  owner: "This can be fixed aboard.",
  yard: "Do not go further yourself: leave this one to the yard.",
  technician: "This needs somebody trained for it. Leave it as it is.",
  maker: "The engine's maker has the say here: write down what the screen shows.",
};

function AtFault({ finder, phone }: { finder: Finder; phone: string | null }) {
  const { label, mend, caution, who } = finder.fault!;
  const tell = useTell();
  return (
    <section aria-labelledby="fault" className="mt-5 border-l-[7px] border-ink pl-4">
      <h2 id="fault" className="text-2xl font-extrabold">
        {label}
      </h2>
      <Caution says={caution} />
      <p className="mt-1 text-xl">{mend}</p>
      <p className={`mt-2 ${who === "owner" ? "" : "font-semibold text-magenta"}`}>{tell(whoWords[who])}</p>
      <p className="text-soft">
        {tell("Where the boat's or the engine's manual says otherwise, the manual comes first.")}
      </p>
      {who !== "owner" && (
        <p className="mt-2">
          <Call phone={phone} />
        </p>
      )}
    </section>
  );
}
