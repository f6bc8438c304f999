import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { restore } from "../server/keeping/backup.ts";
import { lockFolder } from "../server/lockFolder.ts";
import { StartRefused, sayRefusals } from "../server/startRefused.ts";
import { createStepTeller } from "./tellSteps.ts";

const keyWords = {
  stays: "The store's key that is there stays.",
  restored: "The store's key came with it.",
  new: "Its key was not to be had: the store makes a new one, and its seal chain will say so.",
} as const;

/** `ravik restore BACKUP [--over]`: puts a backup where RAVIK_DATA is, the store that is there aside. Ravik must be stopped. */
await sayRefusals(async () => {
  const [backup, ...options] = process.argv.slice(2);
  if (backup === undefined) throw new StartRefused("expected `ravik restore BACKUP [--over]`");
  const { dataFolder, timeZone, backupPassphrase: passphrase } = readConfig(process.env);
  const unlock = await lockFolder(dataFolder);
  try {
    const now = createClock(timeZone).now();
    const tell = createStepTeller(process.stdout);
    const isOver = options.includes("--over");
    const { about, aside, key } = await restore({ backup, dataFolder, now, timeZone, isOver, passphrase, tell });
    if (process.stdout.isTTY) console.log();
    console.log(`${dataFolder} is the store of ${about.at} again: ${about.counts.boats} boats. ${keyWords[key]}`);
    console.log("What Ravik sends by itself waits until the owner lets it go on: More, Store.");
    if (aside !== null) console.log(`The store that was there is ${dataFolder}/${aside}.`);
  } finally {
    await unlock();
  }
});
