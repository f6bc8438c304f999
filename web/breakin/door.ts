import type { EngineCare, NewRun, RunLine, RunSheet } from "../../api/index.ts";

/** What the break-in of a boat is shown from and entered through: the yard's way in, or the owner's own. */
export interface BreakInDoor {
  /** Names this boat in what is kept on the device. */
  readonly key: string;
  readonly today: string;
  readonly care: readonly EngineCare[];
  readonly runs: readonly RunLine[];
  addRun(run: NewRun): Promise<RunLine[]>;
  fetchRun(id: string): Promise<RunSheet>;
}
