import type { Acknowledged } from "../../../api/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import type { Entry } from "../../../core/walk/index.ts";
import { ask, Refused } from "../../app/client.ts";
import { forgetServer, readServer } from "../clock.ts";
import { isFinal } from "../refusals.ts";
import type { SyncChange } from "../syncStore.ts";
import { isEpochInDoubt } from "./epochCheck.ts";
import { doEach } from "./outage.ts";
import { byId, canSend, type QueueState } from "./queueState.ts";

const mostAtOnce = 200;

/** Refusals that say nothing of what was sent: sent one by one it would fare no better. */
const isOfNoEntry: ReadonlySet<string> = new Set([
  "no-signal",
  "sign-in-needed",
  "pin-needed",
  "unexpected",
  "busy",
  "store-stuck",
  "wrong-origin",
]);

/** The same entry with its time put right by the server's clock, where this device's is off. */
export function correctTime(entry: Entry, behindMs: number | null): Entry {
  if (behindMs === null || behindMs === 0 || entry.clockMs !== undefined) return entry;
  return { ...entry, at: toInstant(Date.parse(entry.at) + behindMs), clockMs: behindMs };
}

/** Sends the entries of whoever is signed in here, in the session of their author, handover by handover, in order. */
export function createEntrySender(state: QueueState, tellSent: (delivery: string) => void) {
  const { unsent, tried, refused, proofs } = state;
  const sendBatch = async (delivery: string, batch: readonly Entry[]) => {
    const told = state.acknowledged === null ? {} : { acknowledged: state.acknowledged };
    const words = batch.flatMap(({ id }) => (proofs.has(id) ? [[id, proofs.get(id)!] as const] : []));
    const proved = words.length === 0 ? {} : { proofs: Object.fromEntries(words) };
    const { stored, known, acknowledged } = await ask("addEntries", {
      params: { delivery },
      body: { entries: [...batch], deviceMs: Date.now(), ...told, ...proved },
      as: batch[0]!.by,
    });
    await noteAcknowledged(acknowledged);
    const done = new Set([...stored, ...known]);
    const sent = batch.filter(({ id }) => done.has(id));
    for (const { id } of sent) {
      unsent.delete(id);
      refused.delete(id);
      proofs.delete(id);
    }
    await state.write(sent.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 1 }]));
    state.setStatus({ lastSentAtMs: Date.now(), hasSignal: true });
    tellSent(delivery);
  };
  const noteAcknowledged = async (now: Acknowledged | null) => {
    const before = state.acknowledged;
    if (now == null || (now.epoch === before?.epoch && now.number <= before.number)) return;
    state.acknowledged = now;
    // Another epoch began meanwhile, perhaps by what was just told: what is missing is asked for at the next turn.
    if (isEpochInDoubt(state)) forgetServer();
    await state.write([["facts", "acknowledged", JSON.stringify(now)]]);
  };
  /** One by one where one of a batch is not taken: the others must not wait for it. */
  const sendSome = async (delivery: string, batch: readonly Entry[]): Promise<void> => {
    try {
      await sendBatch(delivery, batch);
    } catch (error) {
      if (!(error instanceof Refused) || isOfNoEntry.has(error.code)) throw error;
      const [first] = batch;
      if (batch.length === 1 && first !== undefined) {
        if (!isFinal("entry", error.code)) throw error;
        refused.set(first.id, error);
        return;
      }
      await sendApart(delivery, batch);
    }
  };
  const sendApart = async (delivery: string, batch: readonly Entry[]) => {
    let stopped: unknown = null;
    for (const entry of batch) {
      try {
        await sendSome(delivery, [entry]);
      } catch (reason) {
        if (!(reason instanceof Refused) || isOfNoEntry.has(reason.code)) throw reason;
        stopped ??= reason;
      }
    }
    if (stopped !== null) throw stopped;
  };
  /** Put right and into the device's store before it is sent: what was sent must be there, just so, to be sent again. */
  const makeReady = async (entries: readonly Entry[]): Promise<Entry[]> => {
    const batch = entries.map((entry) => (tried.has(entry.id) ? entry : correctTime(entry, state.behindMs)));
    const keepProof = ({ id }: Entry) => (proofs.has(id) ? { proof: proofs.get(id)! } : {});
    await state.write(
      batch.map((entry): SyncChange => ["entries", entry.id, { entry, sent: 0, tried: 1, ...keepProof(entry) }]),
    );
    const corrected = batch.filter((entry) => unsent.get(entry.id) !== entry);
    for (const entry of batch) {
      tried.add(entry.id);
      unsent.set(entry.id, entry);
    }
    // Only what has changed: every list that is kept anew is folded and shown anew.
    if (corrected.length > 0) state.keep(corrected);
    return batch;
  };
  return async (): Promise<void> => {
    const mine = [...unsent.values()].filter(({ by, id }) => canSend(state, by) && !refused.has(id)).sort(byId);
    if (mine.length > 0) ({ behindMs: state.behindMs } = await readServer());
    // A handover that is not taken just now holds up no other, nor does one person's session that is over.
    await doEach(new Set(mine.map(({ by, delivery }) => `${by} ${delivery}`)), async (key) => {
      const ofIt = mine.filter(({ by, delivery }) => `${by} ${delivery}` === key);
      const { delivery } = ofIt[0]!;
      for (let i = 0; i < ofIt.length; i += mostAtOnce)
        await sendSome(delivery, await makeReady(ofIt.slice(i, i + mostAtOnce)));
    });
  };
}
