import { firstEpoch } from "../../../api/epoch.ts";
import { type Entry, ownerId } from "../../../core/walk/index.ts";
import { ask } from "../../app/client.ts";
import { readServer } from "../clock.ts";
import type { SyncChange } from "../syncStore.ts";
import { canSend, type QueueState } from "./queueState.ts";

const mostAtOnce = 2000;

/** The store acknowledged something in another epoch than what is held here was sent to: what it lacks is still to be asked. */
export const isEpochInDoubt = ({ acknowledged, epoch }: Pick<QueueState, "acknowledged" | "epoch">): boolean =>
  acknowledged !== null && acknowledged.epoch !== (epoch ?? firstEpoch);

/**
 * Whether the store is still the one that what is held here was sent to. One that was put back from a backup is of another
 * epoch: of all entries held here (45 days of them) those that it lacks are sent again, just as they were.
 */
export function createEpochCheck(state: QueueState) {
  /** Entries of others that were missing when this device last looked: their own device may have brought them since. */
  let isToLook = true;
  const mark = async (entries: readonly Entry[]) => {
    for (const entry of entries) {
      state.unsent.set(entry.id, entry);
      state.tried.add(entry.id);
    }
    state.setStatus();
    await state.write(entries.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 0, tried: 1 }]));
  };
  return async (): Promise<void> => {
    if (state.user === null) return;
    const { epoch } = await readServer();
    // What was kept before epochs were was sent to the first.
    const isOther = epoch !== (state.epoch ?? firstEpoch);
    const others = [...state.unsent.values()].filter(({ id, by }) => !canSend(state, by) && state.tried.has(id));
    if (isOther) {
      // What an owner wrote on their page nobody here can send in their name.
      const held = [...state.entries.values()].flatMap((each) => [...each.values()]).filter(({ by }) => by !== ownerId);
      const missing = await listMissing(held.filter(({ id }) => !state.unsent.has(id)).map(({ id }) => id));
      await mark(held.filter(({ id }) => missing.has(id)));
    }
    if ((isOther || isToLook) && others.length > 0) {
      const missing = await listMissing(others.map(({ id }) => id));
      await settleSent(
        state,
        others.map(({ id }) => id).filter((id) => !missing.has(id)),
      );
    }
    isToLook = false;
    if (!isOther) return;
    state.epoch = epoch;
    await state.write([["facts", "epoch", epoch]]);
  };
}

async function listMissing(ids: readonly string[]): Promise<ReadonlySet<string>> {
  const missing = new Set<string>();
  for (let i = 0; i < ids.length; i += mostAtOnce) {
    const answer = await ask("missingEntries", { body: { ids: ids.slice(i, i + mostAtOnce) } });
    for (const id of answer.missing) missing.add(id);
  }
  return missing;
}

/** The server has these, whoever sent them: they wait here no longer. */
export async function settleSent(state: QueueState, ids: readonly string[]): Promise<void> {
  const there = ids.flatMap((id) => state.unsent.get(id) ?? []).filter(({ id }) => state.tried.has(id));
  if (there.length === 0) return;
  for (const { id } of there) {
    state.unsent.delete(id);
    state.refused.delete(id);
  }
  await state.write(there.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 1 }]));
  state.setStatus();
}
