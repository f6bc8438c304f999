// Plain JavaScript: `npm test` asks it before anything is installed.
import { readFileSync } from "node:fs";

/** The days that are tried (`npm run test:days`): each an instant at which tests begin, and the zone of the machine. */
export const testDays = JSON.parse(readFileSync(new URL("testDays.json", import.meta.url), "utf8"));

/** What tests are given as their day: the zone is the machine's, and so that of a store which names none. */
export const dayEnv = ({ now, zone }) => ({ RAVIK_TEST_NOW: now, TZ: zone });

/**
 * The day of the browser tests of a commit, by its number: null (today), or one of those that take turns (`isInTurn`: every browser
 * test has passed on it).
 */
export function chooseBrowserDay(commit) {
  const choices = [null, ...testDays.filter(({ isInTurn }) => isInTurn)];
  return choices[commit % choices.length];
}
