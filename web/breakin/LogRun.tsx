import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ulid } from "ulid";
import type { NewRun, RunLine } from "../../api/index.ts";
import { type Leg, sampleLegs } from "../../core/breakin/index.ts";
import type { ReadRun, RunColumns } from "../../core/trace/index.ts";
import { addressOf, ask, Refused } from "../app/client.ts";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import { FileButton } from "../ui/FileButton.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { minutesOf, sayMinuteOfDay } from "../ui/words.ts";
import type { BreakInDoor } from "./door.ts";
import { useRunFile } from "./useRunFile.ts";

type Way = "hand" | "file" | "gateway";
const wayWords: Record<Way, string> = { hand: "By hand", file: "From a file", gateway: "From the engine gateway" };
const field = "num min-h-12 rounded-md border border-soft bg-panel px-3";

interface LogRunProps {
  readonly door: BreakInDoor;
  /** Legs that were just followed, to begin with. */
  readonly ran: readonly Leg[] | null;
  readonly onKept: (runs: readonly RunLine[]) => void;
}

/** A run written down: leg by leg, from a file, or from the engine gateway. It is judged as it is kept. */
export function LogRun({ door, ran, onKept }: LogRunProps) {
  const [way, setWay] = useState<Way>("hand");
  const keep = useMutation({ mutationFn: (run: NewRun) => door.addRun(run), onSuccess: onKept });
  return (
    <section aria-labelledby="log-run" className="print:hidden">
      <h2 id="log-run" className="text-lg font-bold">
        Log a run
      </h2>
      <div className="border-t border-ink pt-3">
        <div className="mb-3 flex flex-wrap gap-2" role="radiogroup" aria-label="How it is logged">
          {(Object.keys(wayWords) as Way[]).map((each) => (
            <Chip key={each} isPicked={way === each} onPick={() => setWay(each)}>
              {wayWords[each]}
            </Chip>
          ))}
        </div>
        {way === "hand" ? (
          <ByHand key={ran === null ? "" : "ran"} door={door} ran={ran} isBusy={keep.isPending} onKeep={keep.mutate} />
        ) : (
          <FromFile key={way} door={door} isGateway={way === "gateway"} isBusy={keep.isPending} onKeep={keep.mutate} />
        )}
        {keep.error !== null && <ErrorNotice error={keep.error} />}
      </div>
    </section>
  );
}

interface PartProps {
  readonly door: BreakInDoor;
  readonly isBusy: boolean;
  readonly onKeep: (run: NewRun) => void;
}

interface Typed {
  readonly key: string;
  readonly minutes: string;
  readonly rpm: string;
}

function ByHand({ door, ran, isBusy, onKeep }: PartProps & { ran: readonly Leg[] | null }) {
  const [date, setDate] = useState(door.today);
  const [start, setStart] = useState("12:00");
  const [legs, setLegs] = useState<readonly Typed[]>(
    (ran ?? [{ minutes: 5, rpm: 1200 }]).map(({ minutes, rpm }) => ({
      key: ulid(),
      minutes: String(minutes),
      rpm: String(rpm),
    })),
  );
  const [fault, setFault] = useState<string | null>(null);
  const set = (key: string, change: Partial<Typed>) =>
    setLegs(legs.map((leg) => (leg.key === key ? { ...leg, ...change } : leg)));
  const submit = () => {
    const read: Leg[] = [];
    for (const [i, { minutes, rpm }] of legs.entries()) {
      const leg = { minutes: Number(minutes.replace(",", ".")), rpm: Number(rpm.replace(/[,. ]/g, "")) };
      if (!(leg.minutes > 0 && leg.minutes <= 600)) return setFault(`Leg ${i + 1}: minutes from 0.1 to 600.`);
      if (!(leg.rpm >= 0 && leg.rpm <= 20_000)) return setFault(`Leg ${i + 1}: rpm from 0 to 20,000.`);
      read.push(leg);
    }
    setFault(null);
    const samples = sampleLegs(read);
    onKeep({
      date,
      startMin: minutesOf(start),
      source: "hand",
      fileName: "",
      // Twins turn together.
      engines: door.care.map(({ engine }) => ({ id: ulid(), engine, samples })),
    });
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <DayAndTime door={door} date={date} start={start} onDate={setDate} onStart={setStart} />
      <table className="mt-2">
        <thead>
          <tr className="text-left">
            <th className="pr-3 font-normal text-soft">Minutes</th>
            <th className="pr-3 font-normal text-soft">About what rpm</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {legs.map(({ key, minutes, rpm }, i) => (
            <tr key={key}>
              <td className="py-1 pr-3">
                <input
                  aria-label={`Minutes of leg ${i + 1}`}
                  inputMode="decimal"
                  className={`${field} w-24 text-right`}
                  value={minutes}
                  onChange={(event) => set(key, { minutes: event.target.value })}
                />
              </td>
              <td className="py-1 pr-3">
                <input
                  aria-label={`rpm of leg ${i + 1}`}
                  inputMode="numeric"
                  className={`${field} w-28 text-right`}
                  value={rpm}
                  onChange={(event) => set(key, { rpm: event.target.value })}
                />
              </td>
              <td>
                <button
                  type="button"
                  className="min-h-12 px-2 underline disabled:opacity-40"
                  disabled={legs.length === 1}
                  aria-label={`Take leg ${i + 1} out`}
                  onClick={() => setLegs(legs.filter((leg) => leg.key !== key))}
                >
                  Take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {fault !== null && (
        <p role="alert" className="text-magenta">
          ▲ {fault}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => setLegs([...legs, { key: ulid(), minutes: "5", rpm: legs.at(-1)?.rpm ?? "2000" }])}>
          Another leg
        </Button>
        <Button type="submit" look="primary" disabled={isBusy}>
          Keep the run
        </Button>
      </div>
    </form>
  );
}

interface DayProps {
  readonly door: BreakInDoor;
  readonly date: string;
  readonly start: string;
  readonly onDate: (date: string) => void;
  readonly onStart: (start: string) => void;
}

function DayAndTime({ door, date, start, onDate, onStart }: DayProps) {
  return (
    <div className="flex flex-wrap gap-3">
      <label>
        <span className="block text-sm text-soft">Day</span>
        <input
          type="date"
          className={field}
          max={door.today}
          value={date}
          onChange={(event) => onDate(event.target.value)}
        />
      </label>
      <label>
        <span className="block text-sm text-soft">Began at</span>
        <input type="time" className={field} value={start} onChange={(event) => onStart(event.target.value)} />
      </label>
    </div>
  );
}

function FromFile({ door, isGateway, isBusy, onKeep }: PartProps & { isGateway: boolean }) {
  const { state, open, read, stop } = useRunFile();
  const { file, opened, progress, faults, run } = state;
  const recorded = useQuery({ queryKey: ["gateway"], queryFn: () => ask("gatewayRuns"), enabled: isGateway });
  const take = useMutation({
    mutationFn: async ({ id, format }: { id: string; format: "csv" | "nmea" }) => {
      const answer = await fetch(addressOf("gatewayRun", { run: id })).catch(() => null);
      if (answer === null || !answer.ok) throw new Refused({ code: answer === null ? "no-signal" : "unexpected" });
      await open(new File([await answer.text()], `${id}.${format === "csv" ? "csv" : "nmea"}`, { type: "text/plain" }));
    },
  });
  const gatewayError = recorded.error ?? take.error;
  return (
    <div>
      {isGateway ? (
        <ul aria-label="Runs the gateway has recorded" className="border-t border-rule">
          {(recorded.data?.runs ?? []).map(({ id, title, format, minutes }) => (
            <li key={id} className="flex items-center justify-between gap-3 border-b border-rule">
              <span>
                {title} <span className="num text-soft">{minutes} min</span>
              </span>
              <button
                type="button"
                className="min-h-12 font-semibold underline"
                aria-label={`Take "${title}"`}
                onClick={() => take.mutate({ id, format })}
              >
                Take it
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="flex flex-wrap items-center gap-3">
          <FileButton
            says="Choose a file"
            accept=".csv,.txt,.log,.nmea,text/*"
            onFile={(chosen) => void open(chosen)}
          />
          <span className="text-soft">CSV with time and rpm, or NMEA 0183 sentences.</span>
        </p>
      )}
      {gatewayError !== null && <ErrorNotice error={gatewayError} />}
      {file !== null && <p className="mt-2 font-semibold break-words">{file.name}</p>}
      {progress !== null && (
        <p role="status" className="mt-2 flex items-center gap-3">
          <progress className="h-3 w-52 accent-helm" value={progress} aria-label="Read so far" />
          <span className="num">{Math.round(progress * 100)} %</span>
          <Button onClick={() => void stop()}>Stop reading</Button>
        </p>
      )}
      {faults.length > 0 && (
        <div role="alert" className="mt-2 border-l-4 border-magenta pl-3">
          <p className="font-semibold text-magenta">▲ Nothing of this file was kept.</p>
          <ul>
            {faults.slice(0, 6).map(({ line, column, message }) => (
              <li key={`${line}${column}${message}`}>
                Line {line}
                {column === null ? "" : `, ${column}`}: {message}.
              </li>
            ))}
          </ul>
          {faults.length > 6 && <p className="text-soft">and more like these.</p>}
        </div>
      )}
      {opened?.kind === "csv" && run === null && progress === null && (
        <Columns
          key={file?.name}
          headings={opened.headings}
          example={opened.example}
          guessed={opened.columns}
          onRead={(columns) => void read(columns)}
        />
      )}
      {run !== null && (
        <Engines
          key={file?.name}
          door={door}
          run={run}
          isBusy={isBusy}
          onKeep={(kept) => onKeep({ ...kept, source: isGateway ? "gateway" : "file", fileName: file?.name ?? "" })}
        />
      )}
    </div>
  );
}

interface ColumnsProps {
  readonly headings: readonly string[];
  readonly example: readonly string[];
  readonly guessed: RunColumns | null;
  readonly onRead: (columns: RunColumns) => void;
}

function Columns({ headings, example, guessed, onRead }: ColumnsProps) {
  const [time, setTime] = useState(guessed?.time ?? 0);
  const [first, setFirst] = useState(guessed?.rpm[0] ?? 1);
  const [second, setSecond] = useState(guessed?.rpm[1] ?? -1);
  const options = headings.map((name, i) => ({
    i,
    says: `${name === "" ? `column ${i + 1}` : name} (${example[i] ?? ""})`,
  }));
  const pick = (says: string, value: number, set: (i: number) => void, mayBeNone = false) => (
    <label>
      <span className="block text-sm text-soft">{says}</span>
      <select className={field} value={value} onChange={(event) => set(Number(event.target.value))}>
        {mayBeNone && <option value={-1}>none</option>}
        {options.map(({ i, says: name }) => (
          <option key={i} value={i}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <div className="mt-3">
      <p>Which column holds what?</p>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {pick("Time", time, setTime)}
        {pick("rpm", first, setFirst)}
        {pick("rpm, second engine", second, setSecond, true)}
        <Button onClick={() => onRead({ time, rpm: second < 0 ? [first] : [first, second], temperature: null })}>
          Read the file
        </Button>
      </div>
    </div>
  );
}

interface EnginesProps {
  readonly door: BreakInDoor;
  readonly run: ReadRun;
  readonly isBusy: boolean;
  readonly onKeep: (run: Omit<NewRun, "source" | "fileName">) => void;
}

/** Which trace is which engine, when it was; then it is kept. */
function Engines({ door, run, isBusy, onKeep }: EnginesProps) {
  const [date, setDate] = useState(run.date !== null && run.date <= door.today ? run.date : door.today);
  const [start, setStart] = useState(sayMinuteOfDay(run.startMin ?? 12 * 60));
  // A single trace of a boat with twins stands for both until somebody says otherwise.
  const [picked, setPicked] = useState<readonly string[]>(
    run.engines.length === 1 && door.care.length > 1 ? ["all"] : run.engines.map((_, i) => door.care[i]?.engine ?? ""),
  );
  const chosen = picked.filter((engine) => engine !== "");
  const isTwice = new Set(chosen).size < chosen.length;
  const keep = () => {
    const engines = run.engines.flatMap(({ samples }, i) => {
      const to = picked[i] === "all" ? door.care.map(({ engine }) => engine) : picked[i] === "" ? [] : [picked[i]!];
      return to.map((engine) => ({
        id: ulid(),
        engine,
        samples: samples.map(([s, rpm]): [number, number] => [s, rpm]),
      }));
    });
    onKeep({ date, startMin: minutesOf(start), engines });
  };
  return (
    <div className="mt-3">
      <DayAndTime door={door} date={date} start={start} onDate={setDate} onStart={setStart} />
      <table className="mt-2">
        <tbody>
          {run.engines.map(({ label, samples }, i) => (
            <tr key={label}>
              <td className="py-1 pr-4">
                {label}{" "}
                <span className="num text-soft">
                  {Math.round((samples.at(-1)?.[0] ?? 0) / 60)} min, up to{" "}
                  {Math.max(...samples.map(([, rpm]) => rpm)).toLocaleString("en-GB")} rpm
                </span>
              </td>
              <td>
                <select
                  aria-label={`Engine of ${label}`}
                  className={field}
                  value={picked[i]}
                  onChange={(event) => setPicked(picked.map((engine, n) => (n === i ? event.target.value : engine)))}
                >
                  {run.engines.length === 1 && door.care.length > 1 && <option value="all">all engines</option>}
                  {door.care.map(({ engine, label: name }) => (
                    <option key={engine} value={engine}>
                      {name}
                    </option>
                  ))}
                  <option value="">leave out</option>
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {isTwice && (
        <p role="alert" className="text-magenta">
          ▲ Two traces go to the same engine. Choose another for one of them.
        </p>
      )}
      <Button look="primary" className="mt-2" disabled={isBusy || isTwice || chosen.length === 0} onClick={keep}>
        {isBusy ? "Judging it …" : "Keep the run"}
      </Button>
    </div>
  );
}
