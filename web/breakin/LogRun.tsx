import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { NewRun, RunLine } from "../../api/index.ts";
import { ask } from "../app/client.ts";
import { WaitingPosts } from "../handover/WaitingPosts.tsx";
import { Chip } from "../ui/Chip.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { useReader } from "../ui/tell.ts";
import { formatDayAndYear, formatTime } from "../ui/words.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { RunByHand } from "./RunByHand.tsx";
import { RunFromFile } from "./RunFromFile.tsx";
import type { Ran } from "./useFollow.ts";

type Way = "hand" | "file" | "gateway";
const wayWords: Record<Way, string> = {
  hand: "By hand",
  file: "From a file",
  gateway: "From the engine gateway",
};

interface LogRunProps {
  readonly port: BreakInPort;
  /** Legs that were just followed, to begin with. */
  readonly ran: Ran | null;
  readonly onKept: (runs: readonly RunLine[]) => void;
}

/** A run written down: leg by leg, from a file, or from the engine gateway. It is judged as it is kept. */
export function LogRun({ port, ran, onKept }: LogRunProps) {
  const reader = useReader();
  const { tell } = reader;
  const [way, setWay] = useState<Way>("hand");
  const [round, setRound] = useState(0);
  const recorded = useQuery({ queryKey: ["gateway"], queryFn: () => ask("gatewayRuns"), enabled: port.hasGateway });
  // Where no gateway is connected there is nothing to take from one.
  const ways = (Object.keys(wayWords) as Way[]).filter(
    (each) => each !== "gateway" || (recorded.data?.runs.length ?? 0) > 0,
  );
  const keep = useMutation({
    mutationFn: (run: NewRun) =>
      port.addRun(
        run,
        tell("The run of {0}, {1}", formatDayAndYear(run.date, reader), formatTime(run.startMin, reader)),
      ),
    onSuccess: (runs) => {
      // The next one is entered anew.
      setRound(round + 1);
      onKept(runs ?? []);
    },
  });
  const parts = { port, isBusy: keep.isPending, onKeep: keep.mutate };
  return (
    <section aria-labelledby="log-run" className="print:hidden">
      <h2 id="log-run" className="text-lg font-bold">
        {tell("Log a run")}
      </h2>
      <div className="border-t border-ink pt-3">
        <div className="mb-3 flex flex-wrap gap-2" role="radiogroup" aria-label={tell("How it is logged")}>
          {ways.map((each) => (
            <Chip key={each} isPicked={way === each} onPick={() => setWay(each)}>
              {tell(wayWords[each])}
            </Chip>
          ))}
        </div>
        {way === "hand" ? (
          <RunByHand key={`${ran === null ? "" : "ran"}${round}`} ran={ran} {...parts} />
        ) : (
          <RunFromFile key={`${way}${round}`} isGateway={way === "gateway"} {...parts} />
        )}
        {keep.error !== null && <ErrorNotice error={keep.error} />}
        <WaitingPosts about={port.about} engines={[]} />
      </div>
    </section>
  );
}
