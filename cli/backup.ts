import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { backUp } from "../server/keeping/backup.ts";
import { endWithParent } from "../server/keeping/endWithParent.ts";
import { StartRefused, sayRefusals } from "../server/startRefused.ts";
import { createStepTeller } from "./tellSteps.ts";

/**
 * `ravik backup [FOLDER]`: copies the store of RAVIK_DATA into a new folder of FOLDER (else of RAVIK_BACKUP), proves the copy and
 * keeps it; old ones go. Ravik may run meanwhile: it runs this itself, every night.
 */
await sayRefusals(async () => {
  endWithParent();
  const config = readConfig(process.env);
  const to = process.argv[2] ?? config.backupFolder;
  if (to === null) throw new StartRefused("expected `ravik backup FOLDER`, or a folder in RAVIK_BACKUP");
  const { timeZone, dataFolder, backupPassphrase: passphrase, backupLeftFree: leftFree } = config;
  const clock = createClock(timeZone);
  const { name, about, removed, isSameDisk } = await backUp({
    dataFolder,
    to,
    now: clock.now(),
    timeZone,
    passphrase,
    leftFree,
    tell: createStepTeller(process.stdout),
  });
  const old = removed.length === 0 ? "" : ` ${removed.length} old ones went.`;
  if (process.stdout.isTTY) console.log();
  console.log(
    `${to}/${name}: ${(about.bytes / 1e6).toFixed(1)} MB, ${about.counts.boats} boats, ${about.counts.entries} entries, verified.${old}`,
  );
  if (passphrase === null) console.log("The store's key is not in it: keep a copy of store-key.pem apart.");
  if (isSameDisk)
    console.log("It is on the same disk as the store: what takes the disk takes both. Name a folder on another.");
});
