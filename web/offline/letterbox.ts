import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { AnswerOf, BodyOf, Endpoints, ErrorBody, ParamsOf } from "../../api/index.ts";
import { ask, passing, Refused } from "../app/client.ts";

/** What may be written without signal apart from a walk. All of it carries ids of its own, so that sending twice keeps once. */
export type LetterName = "addReading" | "addRun" | "addFill" | "addOwnerReading" | "addOwnerRun" | "addOwnerFill";

export interface Letter<N extends LetterName = LetterName> {
  /** In order of writing. */
  readonly id: string;
  readonly name: N;
  readonly params: ParamsOf<Endpoints[N]>;
  readonly body: BodyOf<Endpoints[N]>;
  /** The boat or owner's page it belongs to, as its screen names it. */
  readonly about: string;
  /** What it is, in a few words, for as long as it lies here. */
  readonly says: string;
  /** Who wrote it; null for an owner, whose token is in the address. */
  readonly by: string | null;
  /** Why the yard did not take it: it waits for an answer to that, or to be taken back. */
  readonly refusal: ErrorBody["error"] | null;
}
interface LetterSchema extends DBSchema {
  letters: { key: string; value: Letter };
}

const againMs = 20_000;
/** So long a weak signal is waited for before what was written is left to be sent by itself. */
const usualPatienceMs = 8_000;
const none: readonly Letter[] = [];

/**
 * Hours, runs and fuel written on this device: sent at once where there is signal, else kept in the device's store, also through
 * a reload, and sent in order when the yard can be reached. One that the yard refuses then stays here with its reason.
 */
export function createLetterbox({ patienceMs = usualPatienceMs } = {}) {
  const letters = new Map<string, Letter>();
  /** Those that somebody waits for just now: not shown as kept, and what became of them is told, not kept. */
  const posting = new Set<string>();
  const outcomes = new Map<string, { answer: unknown } | { refusal: ErrorBody["error"] }>();
  const listeners = new Set<() => void>();
  const onSent = new Set<(letter: Letter) => Promise<void>>();
  let lists = new Map<string, readonly Letter[]>();
  let user: string | null = null;
  let sending: Promise<void> = Promise.resolve();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const database: Promise<IDBPDatabase<LetterSchema>> = openDB<LetterSchema>("ravik-letters", 1, {
    upgrade: (db) => void db.createObjectStore("letters"),
  });
  const tell = () => {
    lists = new Map();
    for (const letter of inOrder().filter(({ id }) => !posting.has(id)))
      lists.set(letter.about, [...(lists.get(letter.about) ?? none), letter]);
    for (const listener of listeners) listener();
  };
  const inOrder = () => [...letters.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  const put = async (letter: Letter) => {
    letters.set(letter.id, letter);
    tell();
    await (await database).put("letters", letter, letter.id);
  };
  const drop = async (id: string) => {
    letters.delete(id);
    tell();
    await (await database).delete("letters", id);
  };
  const ready = database
    .then((db) => db.getAll("letters"))
    .then((kept) => {
      for (const letter of kept) if (!letters.has(letter.id)) letters.set(letter.id, letter);
      tell();
    });
  const isDue = ({ by, refusal }: Letter) => refusal === null && (by === null || by === user);

  const sendOnce = async () => {
    await ready;
    clearTimeout(timer);
    for (const { id } of inOrder().filter(isDue)) {
      // It may have been taken back meanwhile.
      const letter = letters.get(id);
      if (letter === undefined) continue;
      try {
        const answer = await ask(letter.name, { params: letter.params, body: letter.body } as never);
        if (posting.has(id)) outcomes.set(id, { answer });
        await drop(id);
        for (const listener of onSent) await listener(letter);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        // Without signal the next one would not go either; whatever else passes holds back nobody else's.
        if (error.code === "no-signal") break;
        if (passing.has(error.code)) continue;
        if (posting.has(id)) {
          outcomes.set(id, { refusal: error.facts });
          await drop(id);
        } else await put({ ...letter, refusal: error.facts });
      }
    }
    if (inOrder().some(isDue)) timer = setTimeout(() => void send(), againMs);
  };
  const send = () => {
    sending = sending.then(sendOnce, sendOnce);
    return sending;
  };
  window.addEventListener("online", () => void send());
  void send();

  return {
    ready,
    listOf: (about: string): readonly Letter[] => lists.get(about) ?? none,
    /** How many lie here in all. */
    count: () => [...lists.values()].reduce((sum, { length }) => sum + length, 0),
    subscribe(listener: () => void) {
      listeners.add(listener);
      return () => {
        listeners.delete(listener);
      };
    },
    /** Called for each that was sent, before whoever posted it is answered. */
    onSent(listener: (letter: Letter) => Promise<void>) {
      onSent.add(listener);
      return () => {
        onSent.delete(listener);
      };
    },
    /** Whose letters are sent from now on, besides owners'; null after sign-out. */
    setUser(id: string | null) {
      user = id;
      if (id !== null) void send();
    },
    /**
     * Sends what was written, or keeps it here: then the answer is null. Throws Refused when the yard does not take it now;
     * it is not kept then, for whoever wrote it is still there to put it right.
     */
    async post<N extends LetterName>(
      letter: Omit<Letter<N>, "by" | "refusal">,
    ): Promise<AnswerOf<Endpoints[N]> | null> {
      const isOwners = "token" in letter.params;
      posting.add(letter.id);
      try {
        await put({ ...letter, by: isOwners ? null : user, refusal: null } as Letter);
        await Promise.race([send(), new Promise((resolve) => setTimeout(resolve, patienceMs))]);
      } finally {
        posting.delete(letter.id);
        tell();
      }
      const outcome = outcomes.get(letter.id);
      outcomes.delete(letter.id);
      if (outcome === undefined) return null;
      if ("refusal" in outcome) throw new Refused(outcome.refusal);
      return outcome.answer as AnswerOf<Endpoints[N]>;
    },
    /** Sends one that was refused again, with what was asked about it. */
    async answer(id: string, change: Record<string, unknown>) {
      const letter = letters.get(id);
      if (letter === undefined) return;
      await put({ ...letter, body: { ...letter.body, ...change }, refusal: null } as Letter);
      await send();
    },
    takeBack: drop,
  };
}

export type Letterbox = ReturnType<typeof createLetterbox>;
