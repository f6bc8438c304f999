import { timingSafeEqual } from "node:crypto";
import { LRUCache } from "lru-cache";
import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import { writeOpening } from "../../core/pin/index.ts";
import { isSignedWith } from "../../core/signature/index.ts";
import type { Clock } from "../clock.ts";
import { Failure } from "../failure.ts";
import type { Session, Sessions } from "../repositories/sessions.ts";
import type { StoreKey } from "../storeKey.ts";

/** As the tablet's own: after so many wrong PINs only the password opens. */
const mostTries = { points: 5, duration: 600 };
const challengeMs = 60_000;
/** A tab that stays open longer proves its PIN once more, by itself. */
const openMs = 12 * 3_600_000;
const mostKnown = 2000;

interface Parts {
  readonly sessions: Pick<Sessions, "end">;
  readonly storeKey: StoreKey;
  readonly clock: Clock;
}

/**
 * A shared tablet holds several sessions, and whoever has it in their hands has the cookies of all. Each opens only for the tab in which its
 * PIN was proved, by a word that this tab alone knows and lays away when it is locked. Nothing is kept here: the words are signed.
 */
export function createPins({ sessions, storeKey, clock }: Parts) {
  const tries = new RateLimiterMemory(mostTries);
  const known = new LRUCache<string, number>({ max: mostKnown });
  const write = (kind: string, session: string, untilMs: number) =>
    `${untilMs}-${storeKey.sign(`ravik.${kind}/1 ${session} ${untilMs}`)}`;
  /** Whether it is a word of ours for this session, and still good. */
  const holds = (kind: string, session: string, word: string) => {
    const key = `${kind} ${session} ${word}`;
    const untilMs = known.get(key) ?? Number(/^(\d{1,15})-/.exec(word)?.[1]);
    if (!(clock.nowMs() < untilMs)) return false;
    if (known.has(key)) return true;
    const [said, ours] = [Buffer.from(word), Buffer.from(write(kind, session, untilMs))];
    if (said.length !== ours.length || !timingSafeEqual(said, ours)) return false;
    known.set(key, untilMs);
    return true;
  };
  const open = (session: string): string => write("open", session, clock.nowMs() + openMs);
  return {
    /** The word that opens a session, of whoever has just proved that they may. */
    open,
    isOpen: (session: string, word: string): boolean => holds("open", session, word),
    challenge: (session: string): string => write("challenge", session, clock.nowMs() + challengeMs),
    /** The word for a session whose PIN's key signed a challenge. Failure: `wrong-pin`; after too many the session ends: `sign-in-needed`. */
    async prove({ id, userId, pinKey }: Session, challenge: string, proof: string): Promise<string> {
      try {
        await tries.consume(id);
      } catch (error) {
        if (!(error instanceof RateLimiterRes)) throw error;
        await sessions.end(id, userId);
        throw new Failure("sign-in-needed");
      }
      const isProved =
        pinKey !== null && holds("challenge", id, challenge) && isSignedWith(pinKey, writeOpening(challenge), proof);
      if (!isProved) throw new Failure("wrong-pin");
      await tries.delete(id);
      return open(id);
    },
  };
}

export type Pins = ReturnType<typeof createPins>;
