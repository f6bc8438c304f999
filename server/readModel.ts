import type { Database } from "./database/open.ts";
import { readQuery } from "./database/rows.ts";

/**
 * What is worked out from the store and kept in memory. Every write raises a version within its own transaction (triggers,
 * migrations 0008 and 0009): a model is out of date when a version it was made from has gone up, and never otherwise.
 */
export interface Versions {
  /** The numbers as they are on disk now; later ones are never lower. */
  read(): Promise<ReadonlyMap<string, ReadonlyMap<string, number>>>;
  /** Of what was read last: whose version is above a number, the lowest first. */
  listSince(kind: VersionKind, number: number): readonly Version[];
}

interface Version {
  readonly id: string;
  readonly number: number;
}

export type VersionKind = "boat" | "setting";
export type SettingKind = "packs" | "topics" | "store";

export function createVersions({ models, countCommits }: Database): Versions {
  const known = new Map<string, Map<string, number>>();
  /** By kind, in the order of their numbers; one that has gone up stands twice until the list is tidied. */
  const logs = new Map<string, Version[]>();
  let seen = 0;
  /** What is written is written by this server alone: without a commit since there is nothing new. */
  let readAt = -1;
  const note = (kind: string, version: Version, size: number) => {
    const log = logs.get(kind) ?? [];
    log.push(version);
    logs.set(kind, log.length > 2 * size + 1000 ? tidy(log, known.get(kind)!) : log);
  };
  const catchUp = async () => {
    const commits = countCommits();
    if (commits === readAt) return known;
    const rows = await readQuery<{ kind: string; id: string; number: number }>(
      models.boats,
      "SELECT kind, id, number FROM versions WHERE number > ? ORDER BY number",
      [seen],
    );
    for (const { kind, id, number } of rows) {
      const ofKind = known.get(kind) ?? new Map<string, number>();
      known.set(kind, ofKind.set(id, number));
      note(kind, { id, number }, ofKind.size);
      seen = number;
    }
    readAt = commits;
    return known;
  };
  const run = createSingleFlight(catchUp);
  return {
    read: run,
    listSince(kind, number) {
      const log = logs.get(kind) ?? [];
      let from = log.length;
      while (from > 0 && log[from - 1]!.number > number) from--;
      return tidy(log.slice(from), known.get(kind) ?? new Map());
    },
  };
}

/** Without those that have gone up since. */
const tidy = (log: readonly Version[], now: ReadonlyMap<string, number>): Version[] =>
  log.filter(({ id, number }) => now.get(id) === number);

/**
 * Runs `work` for all who ask at once. Whoever asks while it runs waits for one that begins after the question, so that
 * nobody is answered from before a write that was theirs.
 */
export function createSingleFlight<V>(work: () => Promise<V>): () => Promise<V> {
  let running: Promise<V> | null = null;
  let next: Promise<V> | null = null;
  const start = (): Promise<V> => {
    const mine = work().finally(() => {
      if (running === mine) running = null;
    });
    running = mine;
    return mine;
  };
  return () => {
    if (running === null) return start();
    next ??= running
      .catch(() => undefined)
      .then(() => {
        next = null;
        return start();
      });
    return next;
  };
}

interface OneOf<V> {
  /** Settings it is made from. */
  readonly settings?: readonly SettingKind[];
  /** Whatever else it depends on, in a word: the day, a value. */
  readonly key?: () => string | Promise<string>;
  readonly make: () => Promise<V>;
}

/** One value, made anew when what it was made from has changed. `stamp` is new with every value. */
export function createReadModel<V>(versions: Versions, { settings = [], key = () => "", make }: OneOf<V>) {
  let known: { stamp: string; value: V } | null = null;
  return createSingleFlight(async (): Promise<{ readonly stamp: string; readonly value: V }> => {
    const numbers = (await versions.read()).get("setting");
    const stamp = [...settings.map((id) => numbers?.get(id) ?? 0), await key()].join(" ");
    // Versions are read first: what is made after is at least as new.
    if (known?.stamp !== stamp) known = { stamp, value: await make() };
    return known;
  });
}

interface ManyOf<V> {
  readonly kind: VersionKind;
  /** What all of them are made from besides: when it changes, all are made anew. */
  readonly key: () => Promise<string>;
  /** Those of these ids that there are. */
  readonly make: (ids: readonly string[]) => Promise<ReadonlyMap<string, V>>;
}

/** Made so many at a time, so that whoever asks for something else meanwhile is answered. */
const atOnce = 150;

/** A value for each id of a kind; only those are made anew of which something was written. */
export function createReadModels<V>(versions: Versions, { kind, key, make }: ManyOf<V>) {
  let values = new Map<string, V>();
  /** All up to this version are made. */
  let madeTo = 0;
  let madeFor: string | null = null;
  return createSingleFlight(async (): Promise<ReadonlyMap<string, V>> => {
    const stamp = await key();
    if (stamp !== madeFor) {
      values = new Map();
      madeTo = 0;
      madeFor = stamp;
    }
    await versions.read();
    const stale = versions.listSince(kind, madeTo);
    // Whoever was answered before goes on with what they were answered.
    if (stale.length > 0) values = new Map(values);
    let next = 0;
    const makeOn = async () => {
      while (next < stale.length) {
        const batch = stale.slice(next, next + atOnce);
        next += atOnce;
        const fresh = await make(batch.map(({ id }) => id));
        for (const { id } of batch) {
          const value = fresh.get(id);
          if (value === undefined) values.delete(id);
          else values.set(id, value);
        }
        if (stale.length > atOnce) await new Promise(setImmediate);
      }
    };
    // While one batch is worked on the next is read.
    await Promise.all([makeOn(), makeOn()]);
    madeTo = stale.at(-1)?.number ?? madeTo;
    return values;
  });
}
