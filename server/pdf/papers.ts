import type { Boat, Delivery } from "../../api/index.ts";
import type { FloatPlan } from "./floatPlanPdf.ts";
import type { Letterhead } from "./letterhead.ts";
import type { PackQuestion } from "./packPdf.ts";
import type { PaperReader } from "./paperReader.ts";

type Paper = "a4" | "letter";

/** What is printed: each with all that stands on it, as data that can be handed to another thread. */
export type PrintJob =
  | {
      readonly kind: "record";
      readonly delivery: Delivery;
      readonly store: Letterhead;
      readonly paper: Paper;
      readonly reader: PaperReader;
      readonly timeZone: string;
      /** Photos of the record as JPEG, by id. */
      readonly pictures: ReadonlyMap<string, Uint8Array>;
    }
  | {
      readonly kind: "plan";
      readonly delivery: Delivery;
      readonly store: Letterhead;
      readonly paper: Paper;
      readonly reader: PaperReader;
    }
  | { readonly kind: "float-plan"; readonly question: FloatPlan }
  | { readonly kind: "pack"; readonly question: PackQuestion }
  | {
      readonly kind: "history";
      readonly boat: Boat;
      readonly store: Letterhead;
      readonly paper: Paper;
      readonly reader: PaperReader;
    };
