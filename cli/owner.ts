import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { createServices } from "../server/createServices.ts";
import { openDatabase } from "../server/database/open.ts";
import { sayRefusals } from "../server/startRefused.ts";

/**
 * `ravik owner --reset [login]`: an owner who has lost their password, or their second step, gets a code at the machine
 * itself. Ravik may run meanwhile.
 */
await sayRefusals(async () => {
  const [option, login] = process.argv.slice(2);
  if (option !== "--reset") {
    console.error("ravik: expected `ravik owner --reset [sign-in name]`");
    process.exitCode = 2;
    return;
  }
  const config = readConfig(process.env);
  const database = await openDatabase(config.dataFolder);
  const clock = createClock(config.timeZone);
  const { people, staffService, setUpService, origin } = createServices(database, clock, null, {
    origin: () => config.publicAddress,
  });
  await setUpService.begin();
  const owners = (await people.list()).filter((person) => person.role === "owner" && !person.isOff);
  const chosen = login === undefined && owners.length === 1 ? owners[0] : owners.find((each) => each.login === login);
  if (chosen === undefined) {
    const named = owners.map((each) => each.login).join(", ");
    console.error(
      owners.length === 0
        ? "ravik: this store has no owner yet: run `ravik setup`"
        : `ravik: say which owner: ravik owner --reset ${named}`,
    );
    process.exitCode = 1;
  } else {
    const { code } = await staffService.reset(chosen.id, chosen.id);
    const address = origin() ?? `http://${config.host}:${config.port}`;
    console.log(`For ${chosen.name}, once, within a day. Open ${address}/join and type:\n\n    ${code}\n`);
  }
  await database.close();
});
