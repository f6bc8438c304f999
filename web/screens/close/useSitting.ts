import { useMemo, useSyncExternalStore } from "react";
import type { Delivery } from "../../../api/index.ts";
import { type Entry, foldWalk, listSittingEntries, type WalkState } from "../../../core/walk/index.ts";
import { syncQueue, useEntries } from "../../offline/useSync.ts";

export interface SittingState {
  /** What is closed here: the walk as its signatures are for. */
  readonly state: WalkState;
  /** The entries they cover. */
  readonly covered: readonly Entry[];
  /** What came from elsewhere since the first signature: not covered. */
  readonly uncovered: readonly Entry[];
  /** To be called before a signature is written down: from the first on, nothing from elsewhere is covered. */
  begin(): Promise<void>;
  /** Signs for all there is: what came since is covered too, and everybody signs again. */
  startOver(): Promise<void>;
}

/** A sitting at which a handover is signed on this device. It begins with the first signature and lasts through a reload. */
export function useSitting(delivery: Delivery): SittingState {
  const entries = useEntries(delivery);
  const seen = useSyncExternalStore(syncQueue.subscribe, () => syncQueue.findSitting(delivery.id));
  const { id, receipts } = delivery;
  const { state, covered } = useMemo(() => {
    const sequenceOf = (entry: string) => receipts[entry]?.number;
    const whole = foldWalk(entries, sequenceOf);
    // While no signature stands here, everything there is can still be signed for.
    const isBegun = whole.signatures.some(({ device }) => device === syncQueue.deviceId);
    if (seen === null || !isBegun) return { covered: entries, state: whole };
    const mine = listSittingEntries(entries, syncQueue.deviceId, seen);
    return { covered: mine, state: foldWalk(mine, sequenceOf) };
  }, [entries, seen, receipts]);
  const uncovered = useMemo(() => entries.filter((entry) => !covered.includes(entry)), [entries, covered]);
  return {
    state,
    covered,
    uncovered,
    async begin() {
      const isBegun = state.signatures.some(({ device }) => device === syncQueue.deviceId);
      if (isBegun && seen !== null) return;
      await syncQueue.setSitting(
        id,
        entries.map((entry) => entry.id),
      );
    },
    async startOver() {
      for (const sign of state.signatures)
        if (sign.device === syncQueue.deviceId) await syncQueue.add(id, { kind: "undo", ref: sign.id });
      await syncQueue.setSitting(id, null);
    },
  };
}
