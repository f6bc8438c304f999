import { createHash } from "node:crypto";
import type { VerifiedSheet } from "../../api/index.ts";
import type { Instant, LocalDate } from "../../core/dates/index.ts";
import {
  type Bundle,
  bundleFile,
  bundleSchema,
  handoverSchema,
  openSealed,
  type SealedBundle,
  sealedBundleSchema,
} from "../../core/record/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { findUnfit } from "../../core/text/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import { Failure } from "../failure.ts";

export const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");

/** A bundle of either format, with what it holds at hand. */
export interface OpenBundle {
  readonly value: Bundle | SealedBundle;
  readonly head: BundleHead;
  readonly entries: readonly Entry[];
  readonly later: readonly Entry[];
  readonly pictures: ReadonlyMap<string, Buffer>;
  readonly verified: VerifiedSheet;
}
interface BundleHead {
  readonly store: string;
  readonly delivery: string;
  readonly date: LocalDate;
  readonly hull: string;
  readonly boatName: string;
  readonly rig: Rig;
  readonly topics: readonly Topic[];
  readonly style: string;
  readonly buyers: readonly { readonly id: string; readonly name: string }[];
  readonly sealedAt: Instant;
  readonly sealedBy: string;
}

/** A bundle file read and held to its schema, with the reason in words where it is none. As it came: its seal is over that. */
export function readBundle(text: Buffer): Bundle | SealedBundle {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(text));
  } catch {
    throw new Failure("not-a-bundle", { reason: `${bundleFile} is not JSON` });
  }
  const unfit = findUnfit(value);
  if (unfit !== null) throw new Failure("not-a-bundle", { reason: `${unfit.path} ${unfit.message}` });
  const format = (value as { format?: unknown } | null)?.format;
  const isSealed = format === "ravik.bundle/2" || format === "ravik.bundle/3";
  const parsed = (isSealed ? sealedBundleSchema : bundleSchema).safeParse(value);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new Failure("not-a-bundle", { reason: `${issue.path.join(".")}: ${issue.message}` });
  }
  return value as Bundle | SealedBundle;
}

/** What a bundle says of its handover, in one form, with its entries and those that were added. */
export function readHead(bundle: Bundle | SealedBundle): Pick<OpenBundle, "head" | "entries" | "later"> {
  if (bundle.format === "ravik.bundle/1") {
    const handover = handoverSchema.parse(bundle.handover);
    const { store, delivery, date, hull, rig, topics, buyers, sealedAt, sealedBy, boatName = rig.model } = handover;
    return {
      head: {
        store,
        delivery,
        date,
        hull,
        boatName,
        rig,
        topics,
        style: handover.plan.style,
        buyers,
        sealedAt,
        sealedBy,
      },
      entries: handover.entries,
      later: bundle.amendments.flatMap(({ amendment }) => amendment.entries),
    };
  }
  const { handover, content } = bundle;
  const { store, delivery, date, hull, boatName, sealedAt, sealedBy } = handover;
  const snapshots = new Map(Object.entries(bundle.snapshots));
  const { snapshot, people, entries } = openSealed(handover, content, snapshots);
  const buyers = people.filter(({ role }) => role === "buyer").map(({ id, name }) => ({ id, name }));
  const { rig, topics, plan } = snapshot;
  return {
    head: { store, delivery, date, hull, boatName, rig, topics, style: plan.style, buyers, sealedAt, sealedBy },
    entries,
    later: bundle.amendments.flatMap((each) => [
      ...Object.values(each.content.entries).flatMap((part) => ("value" in part ? [part.value] : [])),
    ]),
  };
}
