import type { EngineCare, FillLine, NewFill, NewRun, NewWithdrawal, RunLine, RunSheet } from "../../api/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";

/** What the break-in of a boat is shown from and entered through: the yard's way in, or the owner's own. */
export interface BreakInPort {
  /** Names this boat in what is kept on the device. */
  readonly key: string;
  /** What is written about it without signal is kept under this. */
  readonly about: string;
  readonly today: LocalDate;
  readonly care: readonly EngineCare[];
  readonly runs: readonly RunLine[];
  readonly fills: readonly FillLine[];
  /** The engine gateway is the yard's: an owner's page has none. */
  readonly hasGateway: boolean;
  /** Null when it is kept on this device, for want of signal. */
  addRun(run: NewRun, says: string): Promise<RunLine[] | null>;
  /** Notes fuel that went in, or keeps it on this device for want of signal. */
  addFill(fill: NewFill, says: string): Promise<unknown>;
  /** Takes out what was entered wrong, or puts it right. */
  withdraw(withdrawal: NewWithdrawal): Promise<unknown>;
  /** Whether this line is theirs to correct. */
  mayCorrect(line: { readonly by: string }): boolean;
  fetchRun(id: string): Promise<RunSheet>;
}
