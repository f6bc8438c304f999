import { createAskWorker, findBuilt } from "../askWorker.ts";
import type { PrintJob } from "./papers.ts";

/** Where papers are printed. A pack takes a second or two of work: nothing else waits for it. */
export interface Press {
  /** The PDF. Failure: `busy`. */
  print(job: PrintJob): Promise<Buffer>;
  close(): Promise<void>;
}

/** In this very thread: for tests, and for what makes stores. The printer and its fonts are loaded when first asked for. */
export const pressHere: Press = {
  async print(job) {
    const { printJob } = await import("./printJob.ts");
    return printJob(job);
  },
  close: async () => undefined,
};

/** More than a busy Saturday prints at once. */
const mostWaiting = 40;

/** In a thread of its own, one paper after the other. */
export function createPressWorker(findEntry: () => URL = () => findBuilt("pressWorker")): Press {
  const { ask, close } = createAskWorker<{ job: PrintJob }, Uint8Array>(findEntry, mostWaiting);
  return {
    print: async (job) => Buffer.from(await ask({ job })),
    close,
  };
}
