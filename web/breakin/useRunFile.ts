import { proxy, type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import type { ReadRun, RunColumns, TraceFault } from "../../core/trace/index.ts";
import type { RunFile, RunFileWorker } from "../workers/runFile.ts";

export interface RunFileState {
  readonly file: File | null;
  readonly opened: RunFile | null;
  /** Share read so far; null when nothing is being read. */
  readonly progress: number | null;
  readonly faults: readonly TraceFault[];
  readonly run: ReadRun | null;
}

const nothing: RunFileState = { file: null, opened: null, progress: null, faults: [], run: null };

/** A file of a run read by a worker: its columns first, then all of it, with progress and a way to stop. */
export function useRunFile() {
  const [state, setState] = useState(nothing);
  const worker = useRef<{ remote: Remote<RunFileWorker>; end: () => void } | null>(null);
  useEffect(() => () => worker.current?.end(), []);
  const getWorker = () => {
    if (worker.current === null) {
      const thread = new Worker(new URL("../workers/runFile.ts", import.meta.url), { type: "module" });
      worker.current = { remote: wrap<RunFileWorker>(thread), end: () => thread.terminate() };
    }
    return worker.current.remote;
  };
  const read = async (file: File, opened: RunFile, columns: RunColumns | null) => {
    setState({ file, opened, progress: 0, faults: [], run: null });
    const onProgress = proxy((share: number) =>
      setState((now) => (now.file === file && now.progress !== null ? { ...now, progress: share } : now)),
    );
    const answer = await getWorker().read(file, columns, onProgress);
    setState((now) =>
      now.file !== file || now.progress === null
        ? now
        : { ...now, progress: null, ...(answer.ok ? { run: answer.run } : { faults: answer.faults }) },
    );
  };
  /** A file that was moved or taken out while it was read, or a worker that could not start. */
  const orSay = async (file: File, work: () => Promise<void>) => {
    try {
      await work();
    } catch {
      const message = { phrase: "the file could not be read here; choose it again", values: [] };
      setState({ ...nothing, file, faults: [{ line: 1, column: null, message }] });
    }
  };
  return {
    state,
    open: (file: File) =>
      orSay(file, async () => {
        setState({ ...nothing, file, progress: 0 });
        const opened = await getWorker().open(file);
        if (opened.kind === "nmea") return read(file, opened, null);
        if (opened.columns !== null) return read(file, opened, opened.columns);
        // The columns have to be told.
        setState({ ...nothing, file, opened });
      }),
    async read(columns: RunColumns) {
      const { file, opened } = state;
      if (file !== null && opened !== null) await orSay(file, () => read(file, opened, columns));
    },
    /** Stops the reading; nothing of it is kept. */
    async stop() {
      setState(nothing);
      await getWorker().cancel();
    },
    clear: () => setState(nothing),
  };
}
