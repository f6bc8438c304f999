import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import type { Endpoint } from "../api/index.ts";
import { Failure } from "./failure.ts";

/** More than a hand can ask for, or a tablet that comes back into signal with a whole walk. */
const limits = {
  usual: { points: 3000, duration: 60 },
  /** Photos, files and large bodies. */
  large: { points: 240, duration: 60 },
  paper: { points: 40, duration: 300 },
} as const;

export type TakeRate = (asker: string, endpoint: Endpoint) => Promise<void>;

/** How much one person, link or address may ask in a while. Failure: `too-fast`, with how long to wait. */
export function createRates(): TakeRate {
  const usual = new RateLimiterMemory(limits.usual);
  const large = new RateLimiterMemory(limits.large);
  const paper = new RateLimiterMemory(limits.paper);
  return async (asker, { upload, bodyLimit, isPaper }) => {
    const limiter = isPaper ? paper : upload !== undefined || bodyLimit !== undefined ? large : usual;
    try {
      await limiter.consume(asker);
    } catch (error) {
      if (error instanceof RateLimiterRes)
        throw new Failure("too-fast", { waitS: Math.ceil(error.msBeforeNext / 1000) });
      throw error;
    }
  };
}
