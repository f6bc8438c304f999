import { existsSync, readFileSync, statSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { readConfig } from "../server/config.ts";
import { StartRefused, sayRefusals } from "../server/startRefused.ts";
import { examine, type Verdict } from "./install/examine.ts";
import { gatherFacts } from "./install/gatherFacts.ts";
import { createMachine } from "./install/machine.ts";
import { places, readSettings } from "./install/plan.ts";

const signs: Record<Verdict["is"], string> = { good: "✓", bad: "▲", note: "●" };

/**
 * `ravik doctor`: what of an installation does not stand, in words with what to do: the service, its address, https and its
 * certificate, the time, the disks, the backup, the store's key, mail. It changes nothing. Ends with 1 where something is bad.
 */
await sayRefusals(async () => {
  // Whoever names a folder means that one, whatever is installed here.
  const config = readConfig(
    process.env.RAVIK_DATA === undefined ? { ...readInstalled(), ...process.env } : process.env,
  );
  const isInstalled = config.dataFolder === places.data && existsSync(places.authority);
  if (!existsSync(config.dataFolder))
    throw new StartRefused(
      `there is no store in ${config.dataFolder}: name its folder in RAVIK_DATA, or run \`ravik install\``,
    );
  const facts = await gatherFacts({
    config,
    authority: isInstalled ? places.authority : null,
    builtMs: statSync(fileURLToPath(import.meta.url)).mtimeMs,
    run: createMachine().run,
  });
  const verdicts = examine(facts);
  for (const { about, is, says } of verdicts) console.log(`${signs[is]} ${about.padEnd(12)} ${says}`);
  if (verdicts.some(({ is }) => is === "bad")) process.exitCode = 1;
});

/** The settings that `ravik install` wrote, where it did. */
function readInstalled(): Record<string, string> {
  if (!existsSync(places.settings)) return {};
  try {
    return readSettings(readFileSync(places.settings, "utf8"));
  } catch {
    throw new StartRefused(`${places.settings} is read by root alone: sudo ravik doctor`);
  }
}
