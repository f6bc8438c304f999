import { existsSync } from "node:fs";
import { readFile, writeFile } from "node:fs/promises";
import { networkInterfaces } from "node:os";
import { setTimeout as sleep } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import QRCode from "qrcode";
import { formatIssues } from "../core/compute.ts";
import { StartRefused, sayRefusals } from "../server/startRefused.ts";
import { type Answers, addressOf, answersSchema } from "./install/answers.ts";
import { carryOut, readDone, StepFailed, undoAll } from "./install/carryOut.ts";
import { createMachine, type Machine } from "./install/machine.ts";
import { authorityPath, firewallLines, places, planInstall, port } from "./install/plan.ts";
import { readFingerprint } from "./install/readCertificate.ts";
import { printTabletPage, tellTablet } from "./install/tabletPage.ts";
import { openTerminal, type Terminal } from "./openTerminal.ts";

/**
 * `ravik install`: Ravik as a service of this machine, with https before it, asked before each step. `--plan` only says what it
 * would do; `--answers FILE` takes the answers from a file and asks nothing; `--remove` undoes what was done.
 */
await sayRefusals(async () => {
  const options = process.argv.slice(2);
  const machine = createMachine();
  if (options.includes("--remove")) return remove(machine);
  const terminal = openTerminal();
  try {
    const file = options.includes("--answers") ? options[options.indexOf("--answers") + 1] : undefined;
    const answers = file === undefined ? await askAll(terminal) : check(JSON.parse(await readFile(file, "utf8")));
    const steps = planInstall(answers, fileURLToPath(new URL("../..", import.meta.url)).replace(/\/$/, ""));
    if (options.includes("--plan")) {
      for (const [i, { says }] of steps.entries()) console.log(`${i + 1}. ${says}`);
      return;
    }
    refuseElsewhere();
    const known = await readAuthority();
    const leftOut: string[] = [];
    for (const [i, step] of steps.entries()) {
      console.log(`\n${i + 1} of ${steps.length}. ${step.says}`);
      const answer = file === undefined ? await terminal.ask("Do it: yes, no (leave it out), stop", "yes") : "yes";
      if (/^s/i.test(answer))
        throw new StartRefused("stopped. What was done so far stays; `ravik install --remove` undoes it");
      if (/^n/i.test(answer)) leftOut.push(step.id);
      else doStep(step, machine);
    }
    if (leftOut.length > 0) {
      console.log(
        `\nLeft out: ${leftOut.join(", ")}. Run this again for what is wanted still; \`ravik doctor\` says how it stands.`,
      );
      return;
    }
    await sayWhatIsLeft(answers, known);
  } finally {
    terminal.close();
  }
});

async function readAuthority(): Promise<string | null> {
  return existsSync(places.authority) ? readFingerprint(places.authority) : null;
}

/** Whether the service answers within half a minute. */
async function answersSoon(): Promise<boolean> {
  for (let tries = 0; tries < 15; tries++) {
    const isThere = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (isThere) return true;
    await sleep(2000);
  }
  return false;
}

function doStep(step: Parameters<typeof carryOut>[0], machine: Machine): void {
  try {
    carryOut(step, machine);
    console.log("Done.");
  } catch (error) {
    if (!(error instanceof StepFailed)) throw error;
    throw new StartRefused(
      `${error.message}. What was done so far stays: mend it and run this again, or undo it with \`ravik install --remove\``,
    );
  }
}

/** Refused where it could not go well: said before anything is touched. */
function refuseElsewhere(): void {
  const leastNode = 20;
  if (!existsSync("/etc/debian_version"))
    throw new StartRefused("this is for Debian; docs/running.md says what to do by hand");
  if (!existsSync("/run/systemd/system"))
    throw new StartRefused("systemd does not run here, which keeps Ravik running");
  if (process.getuid?.() !== 0) throw new StartRefused("run this as root: sudo ravik install");
  // A service has no shell's settings: Node in somebody's own folder is none for it.
  const found = createMachine().run([
    "env",
    "-i",
    "PATH=/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin",
    "node",
    "--version",
  ]);
  const version = Number(/^v(\d+)/.exec(found.says)?.[1] ?? 0);
  if (version < leastNode)
    throw new StartRefused(
      `Node ${leastNode} or later has to be where a service finds it (/usr/bin/node); there is ${found.isGood ? found.says : "none"}`,
    );
}

function remove(machine: Machine): void {
  if (process.getuid?.() !== 0) throw new StartRefused("run this as root: sudo ravik install --remove");
  if (readDone(machine).length === 0) throw new StartRefused("nothing was installed by this command here");
  const left = undoAll(machine);
  for (const line of left) console.log(`▲ ${line}`);
  console.log(`Removed. The store stays in ${places.data}, and its backups where they are.`);
}

function check(answers: unknown): Answers {
  const parsed = answersSchema.safeParse(answers);
  if (parsed.success) return parsed.data;
  const [first] = formatIssues(parsed.error);
  throw new StartRefused(`${first!.path} ${first!.message}. Nothing was changed`);
}

async function askAll({ ask, askHidden }: Terminal): Promise<Answers> {
  console.log("Ravik keeps handovers for offline only over https. This sets that up on this machine, step by step.\n");
  const here = Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .filter(({ internal, family }) => !internal && family === "IPv4")
    .map(({ address }) => address);
  const kind = await ask(
    "Has this machine a name that the whole world can look up, and port 80 open to it: yes, no",
    "no",
  );
  const authority = /^y/i.test(kind) ? "public" : "own";
  const name = await ask("Its name", authority === "own" ? "ravik.yard" : "");
  const email = authority === "public" ? await ask("Mail for the authority that vouches for it") : null;
  const typed =
    authority === "own" ? await ask("Its addresses in the yard's network, with commas between", here.join(",")) : "";
  const backupFolder = await ask("A folder on another disk for nightly backups (empty: none)");
  const passphrase =
    backupFolder === ""
      ? ""
      : await askHidden("Words that lock the store's key into them, 12 letters or more (empty: leave it out)");
  const timeZone = await ask("Time zone of the store", Intl.DateTimeFormat().resolvedOptions().timeZone);
  return check({
    ...{ name, authority, email, timeZone },
    addresses: typed.split(/[\s,]+/).filter((each) => each !== ""),
    backupFolder: backupFolder || null,
    passphrase: passphrase || null,
  });
}

/** The page for the tablets, the firewall, the first code: what no program can do for anybody. */
async function sayWhatIsLeft(answers: Answers, known: string | null): Promise<void> {
  const fingerprint = answers.authority === "own" ? await readAuthority() : null;
  await writeFile(places.page, await printTabletPage(answers, fingerprint), { mode: 0o644 });
  console.log(
    (await answersSoon())
      ? "\nRavik runs."
      : "\n▲ Everything is set up, and Ravik does not answer yet: `ravik doctor` says more.",
  );
  if (known !== null && fingerprint !== null && known !== fingerprint)
    console.log("▲ The names changed, so the authority is a new one: every tablet has to be told of it again.");
  console.log(`What each tablet has to do once, to print and hang up: ${places.page}\n`);
  for (const [i, { title, lines, code }] of tellTablet(answers, fingerprint).entries()) {
    console.log(`${i + 1}  ${title}: ${code}\n${lines.map((line) => `   ${line}`).join("\n")}\n`);
    console.log(await QRCode.toString(code, { type: "terminal", small: true }));
  }
  if (answers.authority === "own")
    console.log(
      `In the router give this machine a fixed address and the name ${answers.name}. Tablets fetch the authority at http://${answers.name}${authorityPath}\n`,
    );
  console.log(
    `Where a firewall is on, one of these lets tablets in:\n${firewallLines.map((line) => `   ${line}`).join("\n")}\n`,
  );
  console.log(
    `Then open ${addressOf(answers)}; \`journalctl -u ravik -n 20\` shows the code of a new store. \`ravik doctor\` says what does not stand.`,
  );
}
