import { parentPort } from "node:worker_threads";
import { stepBack } from "../stepBack.ts";
import type { PrintJob } from "./papers.ts";
import { printJob } from "./printJob.ts";

/** The thread in which papers are printed. */
stepBack();
parentPort!.on("message", ({ id, job }: { id: number; job: PrintJob }) => {
  printJob(job).then(
    (answer) => parentPort!.postMessage({ id, answer }),
    (error: Error) => parentPort!.postMessage({ id, error: error.message }),
  );
});
