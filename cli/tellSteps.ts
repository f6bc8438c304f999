import type { TellStep } from "../server/keeping/backup.ts";

/** Says on the terminal how far it has come: each step on a line, of a copy how much of it where somebody looks on. */
export function createStepTeller(out: Pick<NodeJS.WriteStream, "isTTY" | "write">): TellStep {
  let last = "";
  return (step, bytes) => {
    if (step !== last) out.write(`${last === "" || !out.isTTY ? "" : "\n"}${step} ...${out.isTTY ? "" : "\n"}`);
    last = step;
    if (!out.isTTY || bytes === undefined) return;
    const inMb = (n: number) => (n / 1e6).toFixed(0);
    out.write(`\r${step} ... ${inMb(bytes.done)} of ${inMb(bytes.of)} MB`);
  };
}
