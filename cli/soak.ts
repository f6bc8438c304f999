import { mkdtempSync, rmSync } from "node:fs";
import { cpus, tmpdir, totalmem } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { makeDemoStore } from "../demo/makeStore.ts";
import { openDatabase } from "../server/database/open.ts";
import { quantile } from "./bench/figures.ts";
import { startServer, stopChild } from "./demoProcess.ts";

/**
 * `npm run soak [-- tablets 30 seconds 60 pace 1 kills 200]`: thirty tablets posting at once for a minute, then two hundred kills
 * of the server while entries are posted. Nothing may be lost, nothing doubled. Takes minutes; not part of `npm test`.
 */
const read = (name: string, usual: number) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const tablets = read("tablets", 30);
const seconds = read("seconds", 60);
const kills = read("kills", 200);
/** How many marks a second each tablet makes: one is as fast as a hand can go on marking. */
const pace = read("pace", 1);
const walks = ["d-w118", "d-w121", "d-m204", "d-s310", "d-f207", "d-h402"];

const folder = mkdtempSync(join(tmpdir(), "ravik-soak-"));
const database = await openDatabase(folder);
await makeDemoStore(database, new Date().toISOString().slice(0, 10), "UTC");
await database.close();
const start = () => startServer("main", { RAVIK_DATA: folder, PORT: "0", RAVIK_ZONE: "UTC", RAVIK_LOG: "fatal" });

interface Session {
  readonly address: string;
  readonly headers: Record<string, string>;
}

async function signIn(port: number): Promise<Session> {
  const address = `http://127.0.0.1:${port}`;
  const headers = { origin: address, "content-type": "application/json" };
  const body = JSON.stringify({ login: "nessa", password: "slack-water" });
  const answer = await fetch(`${address}/api/sign-in`, { method: "POST", headers, body });
  return { address, headers: { ...headers, cookie: answer.headers.get("set-cookie")!.split(";")[0]! } };
}

const createEntry = (delivery: string, device: string) => ({
  id: ulid(),
  delivery,
  at: new Date().toISOString(),
  by: "nessa",
  device,
  kind: "mark",
  topic: "horn",
  mark: "told",
  person: null,
  spentS: 1,
});
type Sent = ReturnType<typeof createEntry>;

async function post({ address, headers }: Session, entry: Sent) {
  const body = JSON.stringify({ entries: [entry] });
  const answer = await fetch(`${address}/api/deliveries/${entry.delivery}/entries`, { method: "POST", headers, body });
  if (!answer.ok) throw new Error(`soak: expected the entry to be taken, got ${answer.status} ${await answer.text()}`);
  await answer.arrayBuffer();
}

/** How many of these entries are stored other than once. */
async function countWrong({ address, headers }: Session, acknowledged: ReadonlySet<string>): Promise<number> {
  const seen = new Map<string, number>();
  for (const delivery of walks) {
    const { entries } = await (await fetch(`${address}/api/deliveries/${delivery}`, { headers })).json();
    for (const { id } of entries) seen.set(id, (seen.get(id) ?? 0) + 1);
  }
  return [...acknowledged].filter((id) => seen.get(id) !== 1).length;
}

async function soakTablets() {
  const { child, port } = await start();
  const session = await signIn(port);
  // The tablets have their walks open.
  for (const delivery of walks)
    await (await fetch(`${session.address}/api/deliveries/${delivery}`, { headers: session.headers })).arrayBuffer();
  const acknowledged = new Set<string>();
  const tookMs: number[] = [];
  const endMs = performance.now() + seconds * 1000;
  await Promise.all(
    Array.from({ length: tablets }, async (_, i) => {
      while (performance.now() < endMs) {
        const entry = createEntry(walks[i % walks.length]!, `tablet-${i}`);
        const fromMs = performance.now();
        await post(session, entry);
        tookMs.push(performance.now() - fromMs);
        acknowledged.add(entry.id);
        // Not all in step.
        await new Promise((resolve) => setTimeout(resolve, ((0.8 + Math.random() * 0.4) * 1000) / pace));
      }
    }),
  );
  const wrong = await countWrong(session, acknowledged);
  await stopChild(child);
  const [p50, p95] = [0.5, 0.95].map((share) => quantile(tookMs, share).toFixed(1));
  console.log(
    `| ${tablets} tablets, ${pace} a second each, for ${seconds} s: ${acknowledged.size} entries | p50 ${p50}, p95 ${p95} ms, ${wrong} lost or doubled | p95 100 ms, 0 | ${Number(p95) <= 100 && wrong === 0 ? "yes" : "no"} |`,
  );
}

async function soakKills() {
  const acknowledged = new Set<string>();
  let unanswered: Sent[] = [];
  for (let round = 0; round < kills; round++) {
    const { child, port } = await start();
    const session = await signIn(port);
    // What had no answer when the last server died is sent again, as a tablet would.
    for (const entry of unanswered) {
      await post(session, entry);
      acknowledged.add(entry.id);
    }
    unanswered = [];
    let isDying = false;
    const goal = acknowledged.size + 6 + (round % 7);
    const worker = async (i: number) => {
      while (!isDying) {
        const entry = createEntry(walks[i]!, "kill");
        try {
          await post(session, entry);
          acknowledged.add(entry.id);
          if (acknowledged.size >= goal && !isDying) {
            isDying = true;
            child.kill("SIGKILL");
          }
        } catch (error) {
          if (!isDying) throw error;
          unanswered.push(entry);
        }
      }
    };
    const isDead = new Promise((resolve) => child.once("exit", resolve));
    await Promise.all([0, 1, 2, 3].map(worker));
    await isDead;
  }
  const { child, port } = await start();
  const session = await signIn(port);
  const wrong = await countWrong(session, acknowledged);
  await stopChild(child);
  console.log(
    `| ${kills} kills of the server under load: ${acknowledged.size} entries acknowledged | ${wrong} lost or doubled | 0 | ${wrong === 0 ? "yes" : "no"} |`,
  );
}

console.log(
  `Machine: ${cpus()[0]?.model}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB, Node ${process.version}\n`,
);
console.log("| what | measured | goal | met |\n| --- | --- | --- | --- |");
await soakTablets();
await soakKills();
rmSync(folder, { recursive: true, force: true });
