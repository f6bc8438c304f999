import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { cpus, tmpdir, totalmem } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { dayOf, toInstant } from "../core/dates/index.ts";
import { createPhotoId, type Entry } from "../core/walk/index.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { openDatabase } from "../server/database/open.ts";
import { quantile } from "./bench/quantile.ts";
import { startServer, stopChild } from "./demoProcess.ts";
import { createFuzz, listOperations } from "./fuzz.ts";

/**
 * `npm run soak [-- tablets 30 seconds 60 pace 1 kills 200 closings 500 fuzz 20000]`: thirty tablets posting at once for a minute, then
 * two hundred kills of the server while entries are posted, and five hundred while signed handovers with photos are sent:
 * every one of them is sealed. Nothing may be lost, nothing doubled. A count of 0 leaves a part out. Takes half an hour; not
 * part of `npm test`.
 */
const read = (name: string, usual: number) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? usual : Number(process.argv[at + 1]);
};
const tablets = read("tablets", 30);
const seconds = read("seconds", 60);
const kills = read("kills", 200);
/** How many signed handovers are sent, each with a kill in the middle. */
const closingCount = read("closings", 500);
/** How many questions are made up out of the server's description. */
const asks = read("fuzz", 20_000);
/** How many marks a second each tablet makes: one is as fast as a hand can go on marking. */
const pace = read("pace", 1);
/** A store's server runs for weeks: what it takes to come up to speed after a start is not counted. */
const warmUpMs = 10_000;
const walks = ["d-w118", "d-w121", "d-m204", "d-s310", "d-f207", "d-h402"];

const folder = mkdtempSync(join(tmpdir(), "ravik-soak-"));
const database = await openDatabase(folder);
await makeDemoStore(database, dayOf(Date.now(), "UTC"), "UTC");
await database.close();
const start = () => startServer("main", { RAVIK_DATA: folder, PORT: "0", RAVIK_ZONE: "UTC", RAVIK_LOG: "fatal" });

interface Session {
  readonly address: string;
  readonly headers: Record<string, string>;
}

async function signIn(port: number, login = "nessa"): Promise<Session> {
  const address = `http://127.0.0.1:${port}`;
  const headers = { origin: address, "content-type": "application/json" };
  const body = JSON.stringify({ login, password: "slack-water" });
  const answer = await fetch(`${address}/api/sign-in`, { method: "POST", headers, body });
  return { address, headers: { ...headers, cookie: answer.headers.get("set-cookie")!.split(";")[0]! } };
}

/** What each walk goes by, once it has begun. */
const snapshots = new Map<string, string>();
const createEntry = (delivery: string, device: string, by = "nessa") => ({
  ...(snapshots.has(delivery) ? { snapshot: snapshots.get(delivery)! } : {}),
  id: ulid(),
  delivery,
  at: toInstant(Date.now()),
  by,
  device,
  kind: "mark",
  topic: "horn",
  mark: "told",
  person: null,
  spentS: 1,
});
type Sent = ReturnType<typeof createEntry>;

async function post({ address, headers }: Session, entry: Pick<Sent, "id" | "delivery">) {
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
  // Nobody may ask as often as forty hands do.
  const hands = ["nessa", "tobin", "ines", "odile"];
  const sessions = await Promise.all(hands.map((login) => signIn(port, login)));
  // The tablets have their walks open, and have begun them.
  for (const delivery of walks) {
    const answer = await fetch(`${session.address}/api/deliveries/${delivery}`, { headers: session.headers });
    const { snapshot } = (await answer.json()) as { snapshot: string };
    snapshots.set(delivery, snapshot);
    const { topic: _, mark: __, person: ___, spentS: ____, ...base } = createEntry(delivery, "tablet-0");
    await post(session, { ...base, kind: "start" } as Sent);
  }
  const acknowledged = new Set<string>();
  const tookMs: number[] = [];
  const countedFromMs = performance.now() + warmUpMs;
  const endMs = countedFromMs + seconds * 1000;
  await Promise.all(
    Array.from({ length: tablets }, async (_, i) => {
      while (performance.now() < endMs) {
        const hand = i % hands.length;
        const entry = createEntry(walks[i % walks.length]!, `tablet-${i}`, hands[hand]);
        const fromMs = performance.now();
        await post(sessions[hand]!, entry);
        if (fromMs >= countedFromMs) tookMs.push(performance.now() - fromMs);
        acknowledged.add(entry.id);
        // Not all in step.
        await new Promise((resolve) => setTimeout(resolve, ((0.8 + Math.random() * 0.4) * 1000) / pace));
      }
    }),
  );
  const wrong = await countWrong(session, acknowledged);
  await stopChild(child);
  const goalMs = pace > 1 ? 250 : 100;
  const [p50, p95] = [0.5, 0.95].map((share) => quantile(tookMs, share).toFixed(1));
  console.log(
    `| ${tablets} tablets, ${pace} a second each, for ${seconds} s after ten of the same: ${tookMs.length} marks | p50 ${p50}, p95 ${p95} ms, ${wrong} lost or doubled | p95 ${goalMs} ms, 0 | ${Number(p95) <= goalMs && wrong === 0 ? "yes" : "no"} |`,
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

/** A handover of its own, walked, signed and closed, with photos that are still to be sent. */
interface Closing {
  readonly delivery: string;
  readonly entries: readonly Entry[];
  readonly photos: readonly { readonly id: string; readonly bytes: Buffer }[];
}

async function createClosing(session: Session, n: number): Promise<Closing> {
  const { address, headers } = session;
  const send = async (method: string, path: string, body: object) => {
    const answer = await fetch(`${address}${path}`, { method, headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`soak: ${path} answered ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  const hull = `SLW${String(10_000 + n).slice(-5)}K526`;
  const { boat } = await send("POST", "/api/boats", { name: "Wending 23", hull, template: "wending-23" });
  const day = dayOf(Date.now(), "UTC");
  const made = await send("POST", "/api/deliveries", {
    boat,
    date: day,
    time: "10:00",
    buyers: ["Dov Anselm"],
    note: "",
  });
  const delivery = made.delivery as string;
  const base = () => ({ id: ulid(), delivery, at: toInstant(Date.now()), by: "odile", device: "soak" });
  const photos = await Promise.all(
    [0, 1, 2].map(async (i) => {
      const background = `#${(n * 3 + i).toString(16).padStart(6, "0")}`;
      const bytes = await sharp({ create: { width: 800, height: 600, channels: 3, background } })
        .jpeg()
        .toBuffer();
      const sha256 = createHash("sha256").update(bytes).digest("hex");
      return { id: createPhotoId(sha256, "staff"), sha256, bytes };
    }),
  );
  await send("POST", `/api/deliveries/${delivery}/entries`, {
    entries: [
      { ...base(), kind: "allow", reason: "Soak" },
      ...photos.map(({ id, sha256 }) => ({ ...base(), kind: "photo", photo: id, sha256, topic: null, ref: null })),
    ],
  });
  const described = await (await fetch(`${address}/api/deliveries/${delivery}`, { headers })).json();
  const startMs = Date.now() - 7_200_000;
  const tale = { by: "odile", startMs, seed: n + 1, hours: { port: 1, starboard: 1 }, isSigned: true };
  return { delivery, photos, entries: tellWalk(described, tale) };
}

/** A closing with its photos takes about as long, so that a kill falls anywhere in it or in the one after. */
const mostMsOfClosing = 600;

/** Kills while signed handovers and their photos are on their way; in the end every one of them is sealed. */
async function soakSealing() {
  const closings: Closing[] = [];
  let open: Closing[] = [];
  let lost = 0;
  for (let round = 0; round < closingCount; round++) {
    const { child, port } = await start();
    const session = await signIn(port, "odile");
    const isDead = new Promise((resolve) => child.once("exit", resolve));
    const mine = await createClosing(session, round);
    closings.push(mine);
    open.push(mine);
    // At any moment of what follows.
    const timer = setTimeout(() => child.kill("SIGKILL"), Math.random() * mostMsOfClosing);
    const still: Closing[] = [];
    for (const closing of open.toReversed()) {
      try {
        await sendClosing(session, closing);
      } catch {
        still.push(closing);
      }
    }
    open = still.toReversed();
    child.kill("SIGKILL");
    clearTimeout(timer);
    await isDead;
  }
  const { child, port } = await start();
  const session = await signIn(port, "odile");
  // What was acknowledged in whole needs nothing more than the start; the rest is sent again, as a tablet would.
  for (const closing of open) await sendClosing(session, closing, true);
  let unsealed = 0;
  for (const { delivery, entries } of closings) {
    const described = await (
      await fetch(`${session.address}/api/deliveries/${delivery}`, { headers: session.headers })
    ).json();
    if (described.seal === null) unsealed++;
    const here = new Set(described.entries.map(({ id }: { id: string }) => id));
    lost += entries.filter(({ id }) => !here.has(id)).length;
  }
  await stopChild(child);
  console.log(
    `| ${closings.length} kills while as many signed handovers and their photos are sent | ${unsealed} not sealed, ${lost} entries lost | 0, 0 | ${unsealed + lost === 0 ? "yes" : "no"} |`,
  );
}

async function sendClosing(session: Session, closing: Closing, isPatient = false): Promise<void> {
  const { address, headers } = session;
  const { delivery, entries, photos } = closing;
  const sendEntries = fetch(`${address}/api/deliveries/${delivery}/entries`, {
    method: "POST",
    headers,
    body: JSON.stringify({ entries }),
  });
  const sendPhotos = photos.map(({ id, bytes }) =>
    fetch(`${address}/api/photos/${id}`, {
      method: "PUT",
      headers: { ...headers, "content-type": "image/jpeg" },
      body: bytes as unknown as BodyInit,
    }),
  );
  for (const answer of await Promise.all([sendEntries, ...sendPhotos])) {
    if (answer.status === 429 && isPatient) {
      // Too much at once: as a tablet does, it waits as long as it is told and sends all of it again.
      const { error } = (await answer.json()) as { error: { waitS: number } };
      await new Promise((resolve) => setTimeout(resolve, (error.waitS + 1) * 1000));
      return sendClosing(session, closing, isPatient);
    }
    if (!answer.ok) throw new Error(`soak: answered ${answer.status} ${await answer.text()}`);
    await answer.arrayBuffer();
  }
}

/** Asks that are nearly right, out of the server's own description, by everybody who works there. */
async function soakFuzz() {
  const { child, port } = await start();
  const sessions = await Promise.all(["odile", "ines", "nessa", "tobin", "corwin"].map((login) => signIn(port, login)));
  const { address, headers } = sessions[0]!;
  const description: unknown = await (await fetch(`${address}/api/openapi.json`, { headers })).json();
  const ids = ["w097", "w112", "w118", "d-w118", "d-m204", "wending-23", "horn", "port", "readings", ulid(), "none"];
  const ask = createFuzz(listOperations(description), ids, Date.now());
  let faults = 0;
  let slowestMs = 0;
  for (let i = 0; i < asks; i++) {
    const { method, path, body } = ask();
    const startMs = performance.now();
    const sent = method === "GET" ? {} : { body: JSON.stringify(body) };
    const answer = await fetch(address + path, { method, headers: sessions[i % sessions.length]!.headers, ...sent });
    const text = await answer.text();
    slowestMs = Math.max(slowestMs, performance.now() - startMs);
    if (answer.status < 500 || text.includes('"busy"')) continue;
    faults++;
    console.error(`${answer.status} ${method} ${path} ${JSON.stringify(body).slice(0, 300)}`);
  }
  await stopChild(child);
  const isMet = faults === 0 && slowestMs < 5000;
  console.log(
    `| ${asks} asks out of the description, nearly right | ${faults} faults, slowest ${slowestMs.toFixed(0)} ms | 0, 5000 ms | ${isMet ? "yes" : "no"} |`,
  );
}

console.log(
  `Machine: ${cpus()[0]?.model}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB, Node ${process.version}\n`,
);
console.log("| what | measured | goal | met |\n| --- | --- | --- | --- |");
if (seconds > 0) await soakTablets();
if (kills > 0) await soakKills();
if (closingCount > 0) await soakSealing();
if (asks > 0) await soakFuzz();
rmSync(folder, { recursive: true, force: true });
