import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { NewRun } from "../../api/index.ts";
import { fromClock, type LocalDate, toClock } from "../../core/dates/index.ts";
import { formatWhole, sayTold } from "../../core/language/index.ts";
import type { ReadRun, RunColumns } from "../../core/trace/index.ts";
import { addressOf, ask, Refused } from "../app/client.ts";
import { say } from "../ui/amounts.ts";
import { Button } from "../ui/Button.tsx";
import { FileButton } from "../ui/FileButton.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { storeDay, storeMinutes } from "../ui/storeTime.ts";
import { useReader, useTell } from "../ui/tell.ts";
import { useIds } from "../ui/useIds.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { listSets } from "./engineSets.ts";
import { RunDay, runField } from "./RunDay.tsx";
import { useRunFile } from "./useRunFile.ts";

interface PartProps {
  readonly port: BreakInPort;
  readonly isBusy: boolean;
  readonly onKeep: (run: NewRun) => void;
}

/** A run read from a file, or taken from the engine gateway: what is in it, which trace is which engine; then it is kept. */
export function RunFromFile({ port, isGateway, isBusy, onKeep }: PartProps & { isGateway: boolean }) {
  const tell = useTell();
  const { state, open, read, stop } = useRunFile();
  const { file, opened, progress, faults, run } = state;
  const recorded = useQuery({ queryKey: ["gateway"], queryFn: () => ask("gatewayRuns"), enabled: isGateway });
  const fetchRun = useMutation({
    mutationFn: async ({ id, format }: { id: string; format: "csv" | "nmea" }) => {
      const answer = await fetch(addressOf("gatewayRun", { run: id })).catch(() => null);
      if (answer === null || !answer.ok) throw new Refused({ code: answer === null ? "no-signal" : "unexpected" });
      await open(new File([await answer.text()], `${id}.${format === "csv" ? "csv" : "nmea"}`, { type: "text/plain" }));
    },
  });
  const gatewayError = recorded.error ?? fetchRun.error;
  return (
    <div>
      {isGateway ? (
        <ul aria-label={tell("Runs the gateway has recorded")} className="border-t border-rule">
          {(recorded.data?.runs ?? []).map(({ id, title, format, minutes }) => (
            <li key={id} className="flex items-center justify-between gap-3 border-b border-rule">
              <span>
                {title} <span className="num text-soft">{tell("{0} min", minutes)}</span>
              </span>
              <button
                type="button"
                className="min-h-12 font-semibold underline"
                aria-label={tell('Take "{0}"', title)}
                onClick={() => fetchRun.mutate({ id, format })}
              >
                {tell("Take it")}
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="flex flex-wrap items-center gap-3">
          <FileButton
            says={tell("Choose a file")}
            accept=".csv,.txt,.log,.nmea,text/*"
            onFile={(chosen) => void open(chosen)}
          />
          <span className="text-soft">{tell("CSV with time and rpm, or NMEA 0183 sentences.")}</span>
        </p>
      )}
      {gatewayError !== null && <ErrorNotice error={gatewayError} />}
      {file !== null && <p className="mt-2 font-semibold break-words">{file.name}</p>}
      {progress !== null && (
        <p role="status" className="mt-2 flex items-center gap-3">
          <progress className="h-3 w-52 accent-helm" value={progress} aria-label={tell("Read so far")} />
          <span className="num">{Math.round(progress * 100)} %</span>
          <Button onClick={() => void stop()}>{tell("Stop reading")}</Button>
        </p>
      )}
      {faults.length > 0 && (
        <div role="alert" className="mt-2 border-l-4 border-magenta pl-3">
          <p className="font-semibold text-magenta">{tell("▲ Nothing of this file was kept.")}</p>
          <ul>
            {faults.slice(0, 6).map(({ line, column, message }) => (
              <li key={`${line}${column}${message.phrase}`}>
                {column === null
                  ? tell("Line {0}: {1}.", line, sayTold(message, tell))
                  : tell("Line {0}, {1}: {2}.", line, column, sayTold(message, tell))}
              </li>
            ))}
          </ul>
          {faults.length > 6 && <p className="text-soft">{tell("and more like these.")}</p>}
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
          port={port}
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
  const tell = useTell();
  const [time, setTime] = useState(guessed?.time ?? 0);
  const [first, setFirst] = useState(guessed?.rpm[0] ?? 1);
  const [second, setSecond] = useState(guessed?.rpm[1] ?? -1);
  const [warm, setWarm] = useState(guessed?.temperatures[0] ?? -1);
  const [secondWarm, setSecondWarm] = useState(guessed?.temperatures[1] ?? -1);
  const options = headings.map((name, i) => ({
    i,
    says: `${name === "" ? tell("column {0}", i + 1) : name} (${example[i] ?? ""})`,
  }));
  const pick = (says: string, value: number, set: (i: number) => void, mayBeNone = false) => (
    <label>
      <span className="block text-sm text-soft">{says}</span>
      <select className={runField} value={value} onChange={(event) => set(Number(event.target.value))}>
        {mayBeNone && <option value={-1}>{tell("none")}</option>}
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
      <p>{tell("Which column holds what?")}</p>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {pick(tell("Time"), time, setTime)}
        {pick(tell("rpm"), first, setFirst)}
        {pick(tell("rpm, second engine"), second, setSecond, true)}
        {pick(tell("Coolant"), warm, setWarm, true)}
        {second >= 0 && pick(tell("Coolant, second engine"), secondWarm, setSecondWarm, true)}
        <Button
          onClick={() =>
            onRead({
              time,
              rpm: second < 0 ? [first] : [first, second],
              temperatures: [warm, second < 0 || warm < 0 ? -1 : secondWarm].filter((column) => column >= 0),
            })
          }
        >
          {tell("Read the file")}
        </Button>
      </div>
    </div>
  );
}

interface EnginesProps {
  readonly port: BreakInPort;
  readonly run: ReadRun;
  readonly isBusy: boolean;
  readonly onKeep: (run: Omit<NewRun, "source" | "fileName">) => void;
}

/** At the store: what a file says in UTC is brought over. */
const whenBegan = ({ startsAt, date, startMin }: ReadRun) =>
  startsAt === null ? { date, startMin } : { date: storeDay(startsAt), startMin: storeMinutes(startsAt) };

/** Which trace is which engine, when it was; then it is kept. */
function Engines({ port, run, isBusy, onKeep }: EnginesProps) {
  const { tell, language } = useReader();
  const began = whenBegan(run);
  const [date, setDate] = useState<LocalDate | null>(
    began.date !== null && began.date <= port.today ? began.date : port.today,
  );
  const [start, setStart] = useState(toClock(began.startMin ?? 12 * 60));
  const pair = listSets(port.care).find(({ key }) => key === "together")?.lanes[0];
  const isForPair = run.engines.length === 1 && pair !== undefined;
  // A single trace of a boat with twins stands for both until somebody says otherwise.
  const [picked, setPicked] = useState<readonly string[]>(
    isForPair ? ["pair"] : run.engines.map((_, i) => port.care[i]?.engine ?? ""),
  );
  const chosen = picked.filter((engine) => engine !== "");
  const isTwice = new Set(chosen).size < chosen.length;
  const idOf = useIds();
  const keep = () => {
    if (date === null) return;
    const engines = run.engines.flatMap(({ samples, temperatures }, i) => {
      const to = picked[i] === "pair" ? pair!.care.map(({ engine }) => engine) : picked[i] === "" ? [] : [picked[i]!];
      return to.map((engine) => ({
        id: idOf(engine),
        engine,
        samples: samples.map(([s, rpm]): [number, number] => [s, rpm]),
        ...(temperatures.length === 0
          ? {}
          : { temperatures: temperatures.map(([s, celsius]): [number, number] => [s, celsius]) }),
      }));
    });
    onKeep({ date, startMin: fromClock(start), engines });
  };
  return (
    <div className="mt-3">
      <RunDay port={port} date={date} start={start} onDate={setDate} onStart={setStart} />
      <table className="mt-2">
        <tbody>
          {run.engines.map(({ label, samples, temperatures }, i) => (
            <tr key={label}>
              <td className="py-1 pr-4">
                {label}{" "}
                <span className="num text-soft">
                  {tell(
                    "{0} min, up to {1} rpm",
                    Math.round((samples.at(-1)?.[0] ?? 0) / 60),
                    formatWhole(highest(samples), language),
                  )}
                  {temperatures.length > 0 && tell(", coolant to {0}", say(highest(temperatures), "temperature"))}
                </span>
              </td>
              <td>
                <select
                  aria-label={tell("Engine of {0}", label)}
                  className={runField}
                  value={picked[i]}
                  onChange={(event) => setPicked(picked.map((engine, n) => (n === i ? event.target.value : engine)))}
                >
                  {isForPair && <option value="pair">{tell.label(pair.label).toLowerCase()}</option>}
                  {port.care.map(({ engine, label: name }) => (
                    <option key={engine} value={engine}>
                      {name}
                    </option>
                  ))}
                  <option value="">{tell("leave out")}</option>
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {isTwice && (
        <p role="alert" className="text-magenta">
          {tell("▲ Two traces go to the same engine. Choose another for one of them.")}
        </p>
      )}
      <Button look="primary" className="mt-2" disabled={isBusy || isTwice || chosen.length === 0} onClick={keep}>
        {tell(isBusy ? "Judging it …" : "Save")}
      </Button>
    </div>
  );
}

/** The highest value of a series; spread into Math.max a run of forty hours would not fit. */
const highest = (series: readonly (readonly [number, number])[]) =>
  series.reduce((most, [, value]) => Math.max(most, value), Number.NEGATIVE_INFINITY);
