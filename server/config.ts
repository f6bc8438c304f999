import { z } from "zod";
import { type Instant, instantSchema } from "../core/dates/index.ts";
import { StartRefused } from "./startRefused.ts";

const configSchema = z.object({
  PORT: z.coerce.number().int().min(0).max(65_535).default(4600),
  HOST: z.string().default("127.0.0.1"),
  RAVIK_WEB: z.string().min(1).default("dist/web"),
  RAVIK_DATA: z.string().min(1).default("data"),
  /** Where browsers reach this server, for addresses in messages and on paper; without it none is made, but in the demo. */
  RAVIK_ADDRESS: z.url().optional(),
  /** "1" where a reverse proxy stands before it and sets X-Forwarded-For and -Proto anew; its word is taken then. */
  RAVIK_TRUST_PROXY: z.enum(["0", "1"]).default("0"),
  /** A folder for nightly backups, on another disk; none are made without it. */
  RAVIK_BACKUP: z.string().min(1).optional(),
  /** Locks the store's key into each backup; without one the key is left out. */
  RAVIK_BACKUP_PASSPHRASE: z.string().min(12).optional(),
  /** So many percent of the backups' disk stay free. */
  RAVIK_BACKUP_FREE: z.coerce.number().min(0).max(90).default(10),
  /** The time it is when the program starts, for tests and the demo: a real store goes by the wall clock alone. */
  RAVIK_NOW: instantSchema.optional(),
  RAVIK_LOG: z.enum(["silent", "fatal", "error", "warn", "info", "debug"]).default("info"),
  RAVIK_ZONE: z
    .string()
    .refine(isTimeZone, "must be a time zone such as Europe/Lisbon")
    .default(Intl.DateTimeFormat().resolvedOptions().timeZone),
});

export interface Config {
  readonly port: number;
  readonly host: string;
  readonly dataFolder: string;
  /** The built web app, seen from the folder the server is started in. */
  readonly webFolder: string;
  readonly logLevel: string;
  readonly timeZone: string;
  /** Null: the wall clock. */
  readonly givenNow: Instant | null;
  readonly publicAddress: string | null;
  readonly hasProxy: boolean;
  readonly backupFolder: string | null;
  readonly backupPassphrase: string | null;
  /** The share of the backups' disk that is left free, 0 to 0.9. */
  readonly backupLeftFree: number;
}

/** Reads the environment; a wrong value stops the start with a message that names it. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = configSchema.safeParse(env);
  if (!parsed.success) {
    const first = parsed.error.issues[0]!;
    throw new StartRefused(`configuration: ${String(first.path[0])} ${first.message}`);
  }
  const value = parsed.data;
  return {
    port: value.PORT,
    host: value.HOST,
    dataFolder: value.RAVIK_DATA,
    webFolder: value.RAVIK_WEB,
    logLevel: value.RAVIK_LOG,
    timeZone: value.RAVIK_ZONE,
    givenNow: value.RAVIK_NOW ?? null,
    publicAddress: value.RAVIK_ADDRESS ?? null,
    hasProxy: value.RAVIK_TRUST_PROXY === "1",
    backupFolder: value.RAVIK_BACKUP ?? null,
    backupPassphrase: value.RAVIK_BACKUP_PASSPHRASE ?? null,
    backupLeftFree: value.RAVIK_BACKUP_FREE / 100,
  };
}

function isTimeZone(name: string): boolean {
  try {
    return Intl.DateTimeFormat("en", { timeZone: name }) !== null;
  } catch {
    return false;
  }
}
