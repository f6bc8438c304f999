import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { RunLine } from "../../api/index.ts";
import { formatSeconds } from "../../core/breakin/index.ts";
import { CorrectPad } from "../care/CorrectPad.tsx";
import { Fetched } from "../ui/Fetched.tsx";
import { useReader, useTell } from "../ui/tell.ts";
import { formatDayAndYear, formatTime } from "../ui/words.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { CoverageBars } from "./CoverageBars.tsx";
import { FuelTaken } from "./FuelTaken.tsx";
import { LimitsChart } from "./LimitsChart.tsx";
import { LogRun } from "./LogRun.tsx";
import { NextRun } from "./NextRun.tsx";
import { RunChart } from "./RunChart.tsx";
import { RunVerdict } from "./RunVerdict.tsx";
import type { Ran } from "./useFollow.ts";

/** A boat's break-in: how far it has come, the next run, runs logged and what they were like. The yard and the buyer see the same. */
export function BreakInPanel({ port }: { port: BreakInPort }) {
  const tell = useTell();
  const [ran, setRan] = useState<Ran | null>(null);
  const [open, setOpen] = useState<string | null>(port.runs.at(-1)?.id ?? null);
  const isOnePack = new Set(port.care.map(({ breakInTitle }) => breakInTitle)).size === 1;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-7">
      <section aria-labelledby="how-far" className="print:hidden">
        <h2 id="how-far" className="text-lg font-bold">
          {tell("How far it has come")}{" "}
          {isOnePack && <span className="font-text text-sm font-normal text-soft">{port.care[0]?.breakInTitle}</span>}
        </h2>
        <div
          className={`grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 border-t border-ink pt-3 ${port.care.length > 1 ? "lg:grid-cols-2" : ""}`}
        >
          {port.care.map((care) => (
            <div key={care.engine}>
              <h3 className="font-bold">
                {care.label}{" "}
                <span className="num font-normal text-soft">
                  {care.reportedH === null
                    ? tell("no hours reported")
                    : tell("{0} of {1} h", care.reportedH.toFixed(1), care.limits.at(-1)?.toH.toFixed(0) ?? "–")}
                </span>
              </h3>
              {!isOnePack && <p className="text-soft">{care.breakInTitle}</p>}
              {care.tankHours !== null && (
                <p className="num text-soft">
                  {tell(
                    "About {0} of {1} tanks burnt. All {1} are about {2} h, between {3} and {4} as it burns.",
                    care.tankHours.burnt.toFixed(1),
                    care.tankHours.tanks,
                    care.tankHours.likelyH.toFixed(0),
                    care.tankHours.lowH.toFixed(0),
                    care.tankHours.highH.toFixed(0),
                  )}
                </p>
              )}
              {care.limits.length === 0 && (
                <p>
                  {tell(
                    "Counted in tanks: as soon as its burn is known, measured under Fuel taken or entered on the boat sheet, it becomes hours, and the limits are shown here.",
                  )}
                </p>
              )}
              {care.limits.length > 0 && (
                <LimitsChart limits={care.limits} topRpm={care.ratedToRpm} hours={care.reportedH} />
              )}
              <CoverageBars care={care} />
            </div>
          ))}
        </div>
        {[...new Set(port.care.map(({ breakInBasis }) => breakInBasis))].map((basis) => (
          <p key={basis} className="mt-1 text-sm text-soft">
            {basis}
          </p>
        ))}
      </section>
      <NextRun
        port={port}
        onRan={(lanes) => {
          setRan(lanes);
          document.getElementById("log-run")?.scrollIntoView();
        }}
      />
      <LogRun
        key={ran === null ? "log" : "log-ran"}
        port={port}
        ran={ran}
        onKept={(runs) => {
          setRan(null);
          setOpen(runs[0]?.id ?? null);
        }}
      />
      <FuelTaken port={port} />
      <section aria-labelledby="runs" className="print:hidden">
        <h2 id="runs" className="text-lg font-bold">
          {tell("Runs")}
        </h2>
        <ul className="border-t border-ink">
          {port.runs.length === 0 && (
            <li className="py-2 text-soft">{tell("No run is logged yet. The first one is above.")}</li>
          )}
          {port.runs.toReversed().map((run) => (
            <li key={run.id} className="border-b border-rule">
              <RunHead
                port={port}
                run={run}
                isOpen={open === run.id}
                onOpen={() => setOpen(open === run.id ? null : run.id)}
              />
              {open === run.id && <RunDetail port={port} run={run} />}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

interface HeadProps {
  readonly port: BreakInPort;
  readonly run: RunLine;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}

function RunHead({ port, run, isOpen, onOpen }: HeadProps) {
  const reader = useReader();
  const { tell } = reader;
  const { breaches, runS, hoursAfter } = run.verdict;
  const label = port.care.find(({ engine }) => engine === run.engine)?.label ?? run.engine;
  return (
    <button
      type="button"
      aria-expanded={isOpen}
      onClick={onOpen}
      className="flex min-h-12 w-full flex-wrap items-center gap-x-5 py-1 text-left"
    >
      <span className="font-semibold">{formatDayAndYear(run.date, reader)}</span>
      <span className="num">{formatTime(run.startMin, reader)}</span>
      <span>{label}</span>
      <span className="num">{formatSeconds(runS)}</span>
      <span className="num">{tell("{0} h after it", hoursAfter.toFixed(1))}</span>
      <span className={breaches.length === 0 ? "text-soft" : "text-amber"}>
        {breaches.length === 0 ? tell("as asked") : tell("◷ {0} to change", breaches.length)}
      </span>
      <span className="ml-auto text-sm text-soft">{run.fileName === "" ? run.by : `${run.fileName}, ${run.by}`}</span>
    </button>
  );
}

function RunDetail({ port, run }: { port: BreakInPort; run: RunLine }) {
  const reader = useReader();
  const { tell } = reader;
  const sheet = useQuery({
    queryKey: ["run", port.key, run.id],
    queryFn: () => port.fetchRun(run.id),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [isOpen, setOpen] = useState(false);
  const care = port.care.find(({ engine }) => engine === run.engine);
  return (
    <div className="pb-4">
      <Fetched query={sheet} what={tell("the run")}>
        {(data) => <RunChart sheet={data} topRpm={care?.ratedToRpm ?? 6000} />}
      </Fetched>
      <RunVerdict run={run} temperatures={sheet.data?.temperatures ?? []} />
      {port.mayCorrect(run) && !isOpen && (
        <button type="button" className="min-h-11 underline" onClick={() => setOpen(true)}>
          {tell("Entered wrong")}
        </button>
      )}
      {isOpen && (
        <CorrectPad
          wrong={{ kind: "run", id: run.id, date: run.date, amount: null }}
          says={tell("the run of {0}", formatDayAndYear(run.date, reader))}
          amountLabel=""
          latest={port.today}
          send={port.withdraw}
          onDone={() => setOpen(false)}
        />
      )}
    </div>
  );
}
