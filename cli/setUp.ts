import { setUpSchema } from "../api/peopleSchemas.ts";
import { formatIssues } from "../core/compute.ts";
import { regions, unitSystems } from "../core/region/index.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { createServices } from "../server/createServices.ts";
import { openDatabase } from "../server/database/open.ts";
import { Failure } from "../server/failure.ts";
import { lockFolder } from "../server/lockFolder.ts";
import { sayRefusals } from "../server/startRefused.ts";
import { openStoreKey } from "../server/storeKey.ts";
import { openTerminal } from "./openTerminal.ts";

const failureWords: Readonly<Record<string, string>> = {
  "set-up-done": "this store has an owner already; for a lost password run `ravik owner --reset`",
  "weak-password": "this password is too short, too common, or only your name: take a few words in a row",
};

/** `ravik setup`: what the set-up page asks, asked in the terminal of the machine itself, so that no code is needed. */
await sayRefusals(async () => {
  const config = readConfig(process.env);
  const unlock = await lockFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder);
  const clock = createClock(config.timeZone);
  const { setUpService, people } = createServices(database, clock, null, { storeKey: openStoreKey(config.dataFolder) });
  try {
    if ((await people.count()) > 0) throw new Failure("set-up-done");
    const answers = await askAll(config.timeZone);
    const parsed = setUpSchema.omit({ code: true }).safeParse(answers);
    if (!parsed.success) {
      const [first] = formatIssues(parsed.error);
      console.error(`ravik: ${first!.path} ${first!.message}. Nothing was kept.`);
      process.exitCode = 1;
    } else {
      const owner = await setUpService.setUp({ ...parsed.data, code: null });
      console.log(`\n${parsed.data.store} is ready. Start Ravik and sign in as ${owner.login}.`);
    }
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    console.error(`ravik: ${failureWords[error.code] ?? error.code}. Nothing was kept.`);
    process.exitCode = 1;
  } finally {
    await database.close();
    await unlock();
  }
});

/** Asks line by line; the password is not shown. */
async function askAll(usualZone: string) {
  const { ask, askHidden, close } = openTerminal();
  const store = await ask("Name of the store");
  const place = await ask("Address, in one line");
  const phone = await ask("Phone");
  const webAddress = await ask("Where browsers reach Ravik (https://…, empty if nowhere yet)");
  const timeZone = await ask("Time zone", usualZone);
  const units = await ask(`Units: ${unitSystems.join(", ")}`, "us");
  const name = await ask("Your name");
  const login = await ask("Sign-in name");
  const password = await askHidden("Password, at least 10 characters");
  close();
  const region = regions[units as keyof typeof regions];
  return {
    ...{ store, place, phone, webAddress: webAddress === "" ? null : webAddress, timeZone, region },
    ...{ name, login, password },
  };
}
