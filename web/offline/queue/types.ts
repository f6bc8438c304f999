import type { BodyOf, Endpoints, ErrorBody, ParamsOf } from "../../../api/index.ts";
import type { Entry } from "../../../core/walk/index.ts";
import type { Refused } from "../../app/client.ts";

export interface SyncStatus {
  /** Entries, photos, hours, runs and fuel that are not at the yard yet. */
  readonly unsent: number;
  /** Of those: written by somebody else, by name; they are sent when that person signs in here. */
  readonly others: readonly { readonly name: string; readonly count: number }[];
  readonly lastSentAtMs: number | null;
  readonly hasSignal: boolean;
  /** What the yard would not take, now or for good; it stays on the tablet. */
  readonly refusal: Refused | null;
  /** How often in a row the yard was reached and did not do what was asked; shown when it does not end. */
  readonly failures: number;
  /** Why nothing is kept on this device beyond this page; null while it is. */
  readonly storageFault: string | null;
}

/** An entry without what the queue itself fills in. */
export type NewEntry = Entry extends infer E
  ? E extends Entry
    ? Omit<E, "id" | "at" | "device" | "by" | "delivery" | "clockMs">
    : never
  : never;

/** What may be written without signal apart from a walk. All of it carries ids of its own, so that sending twice keeps once. */
export type PostName =
  | "addReading"
  | "addRun"
  | "addFill"
  | "addOwnerReading"
  | "addOwnerRun"
  | "addOwnerFill"
  | "addOwnerEntries";

export interface Post<N extends PostName = PostName> {
  /** In order of writing. */
  readonly id: string;
  readonly name: N;
  readonly params: ParamsOf<Endpoints[N]>;
  readonly body: BodyOf<Endpoints[N]>;
  /** The boat or owner's page it belongs to, as its screen names it. */
  readonly about: string;
  /** What it is, in a few words, for as long as it waits here. */
  readonly says: string;
  /** Who wrote it; null for an owner, whose token is in the address. */
  readonly by: string | null;
  /** On a shared tablet, its author's word for it. */
  readonly proof?: string | null;
  /** Why the yard did not take it: it waits for an answer to that, or to be discarded. */
  readonly refusal: ErrorBody["error"] | null;
}
