import { lookup } from "node:dns/promises";
import { existsSync, readFileSync, statfsSync, statSync } from "node:fs";
import { request } from "node:https";
import { networkInterfaces } from "node:os";
import { join } from "node:path";
import type { TLSSocket } from "node:tls";
import { z } from "zod";
import { createClock } from "../../server/clock.ts";
import type { Config } from "../../server/config.ts";
import { createKeeper, noKeeper } from "../../server/keeping/keeper.ts";
import { storeKeyFile } from "../../server/storeKey.ts";
import type { Facts } from "./examine.ts";
import type { Machine } from "./machine.ts";

const healthSchema = z.object({ ready: z.boolean(), database: z.object({ fault: z.string().nullish() }) });
const mostMs = 8000;

interface Asked {
  readonly config: Config;
  /** The store's own authority, where it has one. */
  readonly authority: string | null;
  readonly builtMs: number;
  readonly run: Machine["run"];
}

/** What can be found out about this installation from this machine. Nothing is changed. */
export async function gatherFacts({ config, authority, builtMs, run }: Asked): Promise<Facts> {
  const { publicAddress: address, dataFolder, backupFolder, host, port, timeZone } = config;
  const clock = createClock(timeZone);
  const keeper =
    backupFolder === null ? noKeeper : createKeeper({ dataFolder, to: backupFolder, clock, command: ["false"] });
  const { isSameDisk, failed, backups } = keeper.read();
  const [last] = backups;
  const [health, resolved, overHttps] = await Promise.all([
    askHealth(`http://${host}:${port}`),
    address === null ? null : resolve(new URL(address).hostname),
    address === null || !address.startsWith("https:") ? null : askOverHttps(address, authority),
  ]);
  return {
    ...{ nowMs: clock.nowMs(), builtMs, address, health, resolved, overHttps },
    isServiceActive: run(["systemctl", "is-active", "--quiet", "ravik"]).isGood,
    ownAddresses: Object.values(networkInterfaces()).flatMap((each) => (each ?? []).map(({ address: own }) => own)),
    isTimeKept: readTimeKept(run),
    disks: [
      { what: "The store", folder: dataFolder },
      { what: "Backups", folder: backupFolder },
    ].flatMap(({ what, folder }) => (folder === null || !existsSync(folder) ? [] : [{ what, ...measureDisk(folder) }])),
    backup: {
      ...{ folder: backupFolder, isSameDisk },
      lastMs: last === undefined ? null : Date.parse(last.at),
      hasKey: last?.hasKey ?? false,
      failed: failed === null ? null : failed.why,
    },
    isKeyOpen: isOpen(join(dataFolder, storeKeyFile)),
    hasMail: false,
  };
}

const measureDisk = (folder: string) => {
  const { bavail, blocks, bsize } = statfsSync(folder);
  return { freeBytes: bavail * bsize, totalBytes: blocks * bsize };
};

function isOpen(file: string): boolean | null {
  try {
    return (statSync(file).mode & 0o077) !== 0;
  } catch {
    return null;
  }
}

function readTimeKept(run: Machine["run"]): boolean | null {
  const { isGood, says } = run(["timedatectl", "show", "--property=NTPSynchronized", "--value"]);
  return isGood && /^(yes|no)$/.test(says.trim()) ? says.trim() === "yes" : null;
}

async function askHealth(origin: string): Promise<Facts["health"]> {
  try {
    const answer = await fetch(`${origin}/api/health`, { signal: AbortSignal.timeout(mostMs) });
    const { ready, database } = healthSchema.parse(await answer.json());
    return { ready, fault: database.fault ?? null };
  } catch {
    return null;
  }
}

async function resolve(name: string): Promise<string[]> {
  try {
    return (await lookup(name, { all: true })).map(({ address }) => address);
  } catch {
    return [];
  }
}

/** The address as a tablet asks it, trusting what browsers do and the store's own authority. */
function askOverHttps(address: string, authority: string | null): Promise<NonNullable<Facts["overHttps"]>> {
  return new Promise((done) => {
    const end = (fault: string) => done({ status: null, fault, endsMs: null });
    const ask = request(
      `${address}/api/health`,
      { ...(authority === null ? {} : { ca: readFileSync(authority) }), timeout: mostMs, agent: false },
      (answer) => {
        const endsAt = (answer.socket as TLSSocket).getPeerCertificate().valid_to;
        answer.resume();
        done({
          status: answer.statusCode ?? null,
          fault: null,
          endsMs: endsAt === undefined ? null : Date.parse(endsAt),
        });
      },
    );
    ask.once("timeout", () => ask.destroy(Object.assign(new Error("no answer"), { code: "ETIMEDOUT" })));
    ask.once("error", (error: NodeJS.ErrnoException) => end(error.code ?? error.message));
    ask.end();
  });
}
