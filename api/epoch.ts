/** The epoch of a store that was never put back from a backup; what it is, `server/keeping/epoch.ts` says. */
export const firstEpoch = "first";
