/** What was found out about an installation, as far as it could be; null: not known, or not there. */
export interface Facts {
  readonly nowMs: number;
  /** The address that is handed out, or null. */
  readonly address: string | null;
  readonly isServiceActive: boolean | null;
  /** What the server says of itself on this machine; null where it does not answer. */
  readonly health: { readonly ready: boolean; readonly fault: string | null } | null;
  /** To which addresses the name leads; empty where nothing knows it. */
  readonly resolved: readonly string[] | null;
  readonly ownAddresses: readonly string[];
  /** The address asked over https; `fault` as TLS or the network words it. */
  readonly overHttps: {
    readonly status: number | null;
    readonly fault: string | null;
    readonly endsMs: number | null;
  } | null;
  readonly isTimeKept: boolean | null;
  /** When this build was made: no clock may be before it. */
  readonly builtMs: number;
  readonly disks: readonly { readonly what: string; readonly freeBytes: number; readonly totalBytes: number }[];
  readonly backup: {
    readonly folder: string | null;
    readonly lastMs: number | null;
    readonly isSameDisk: boolean;
    readonly hasKey: boolean;
    readonly failed: string | null;
  };
  /** Readable by others than its user. */
  readonly isKeyOpen: boolean | null;
  readonly hasMail: boolean;
}

export interface Verdict {
  /** What it is about, in a word or two. */
  readonly about: string;
  /** good: stands; bad: does not; note: stands, and is worth knowing. */
  readonly is: "good" | "bad" | "note";
  readonly says: string;
}

const dayMs = 86_400_000;
const soonMs = 21 * dayMs;
const lateMs = 1.5 * dayMs;
const leastFree = 0.05;
const leastFreeBytes = 1e9;

/** What of an installation stands and what does not, in words with what to do; in the order in which one thing needs the other. */
export function examine(facts: Facts): Verdict[] {
  return [
    judgeService(facts),
    ...(facts.address === null ? [noAddress] : [judgeName(facts, facts.address), ...judgeHttps(facts, facts.address)]),
    judgeTime(facts),
    ...facts.disks.map(judgeDisk),
    judgeBackup(facts),
    judgeKey(facts),
    facts.hasMail
      ? { about: "Mail", is: "good", says: "Messages go out." }
      : {
          about: "Mail",
          is: "note",
          says: "Nothing sends mail here: messages wait until somebody sends them by hand.",
        },
  ];
}

const good = (about: string, says: string): Verdict => ({ about, is: "good", says });
const bad = (about: string, says: string): Verdict => ({ about, is: "bad", says });

function judgeService({ health, isServiceActive }: Facts): Verdict {
  if (health === null)
    return bad(
      "Ravik",
      isServiceActive === true
        ? "The service runs, and does not answer yet. Wait a minute; then `journalctl -u ravik -n 50` says why."
        : "It does not run. `systemctl start ravik`; `journalctl -u ravik -n 50` says why it ended.",
    );
  if (health.fault !== null) return bad("Ravik", `It runs, and cannot save: ${health.fault}`);
  return health.ready
    ? good("Ravik", "It runs.")
    : bad("Ravik", "It runs, and its store is not open: `journalctl -u ravik -n 50`.");
}

const noAddress: Verdict = bad(
  "Address",
  "None is set: owners' pages have no links, and nothing is sent. Run `ravik install`, or enter it under More, Store.",
);

function judgeName({ resolved, ownAddresses }: Facts, address: string): Verdict {
  const { hostname, protocol } = new URL(address);
  if (protocol !== "https:")
    return bad("Address", `${address} is without https: tablets keep nothing for offline, and their cameras stay off.`);
  if (resolved === null || resolved.length === 0)
    return bad("Address", `Nothing knows the name ${hostname}: enter it in the router, with this machine's address.`);
  return resolved.some((each) => ownAddresses.includes(each))
    ? good("Address", `${hostname} leads here.`)
    : {
        about: "Address",
        is: "note",
        says: `${hostname} leads to ${resolved.join(", ")}, which is none of this machine's addresses (${ownAddresses.join(", ")}). Right where a router passes it on; else mend it there.`,
      };
}

const tlsWords: Readonly<Record<string, string>> = {
  CERT_HAS_EXPIRED: "its certificate has ended",
  ERR_TLS_CERT_ALTNAME_INVALID: "its certificate is for another name",
  DEPTH_ZERO_SELF_SIGNED_CERT: "its certificate is by nobody that browsers know",
  SELF_SIGNED_CERT_IN_CHAIN: "its certificate is by an authority that this machine was not told of",
  UNABLE_TO_VERIFY_LEAF_SIGNATURE: "its certificate is by nobody that browsers know",
  ENOTFOUND: "nothing knows its name",
  ECONNREFUSED: "nothing listens there: `systemctl start nginx`",
  ETIMEDOUT: "nothing answers there: a firewall keeps it",
  EHOSTUNREACH: "there is no way there",
};

function judgeHttps({ overHttps, nowMs }: Facts, address: string): Verdict[] {
  if (overHttps === null) return [];
  const { status, fault, endsMs } = overHttps;
  if (fault !== null) return [bad("https", `${address} cannot be opened: ${tlsWords[fault] ?? fault}.`)];
  const answers =
    status === 200
      ? good("https", `${address} answers.`)
      : bad(
          "https",
          `${address} answers with ${status}: the proxy does not reach Ravik. \`nginx -t\`, then \`systemctl reload nginx\`.`,
        );
  if (endsMs === null) return [answers];
  const days = Math.floor((endsMs - nowMs) / dayMs);
  return [
    answers,
    endsMs - nowMs > soonMs
      ? good("Certificate", `It holds for ${days} more days.`)
      : bad(
          "Certificate",
          `It ends in ${days} days and was not renewed: \`systemctl list-timers\` shows whether its timer runs.`,
        ),
  ];
}

function judgeTime({ nowMs, builtMs, isTimeKept }: Facts): Verdict {
  if (nowMs < builtMs - dayMs)
    return bad("Time", "The clock is before the day this build was made: set it, `timedatectl set-ntp true`.");
  if (isTimeKept === false)
    return bad(
      "Time",
      "No time server keeps the clock: `timedatectl set-ntp true`. Sealed records bear this machine's time.",
    );
  return isTimeKept === null
    ? { about: "Time", is: "note", says: "Whether a time server keeps the clock cannot be seen from here." }
    : good("Time", "A time server keeps the clock.");
}

function judgeDisk({ what, freeBytes, totalBytes }: Facts["disks"][number]): Verdict {
  const free = `${(freeBytes / 1e9).toFixed(1)} GB of ${(totalBytes / 1e9).toFixed(0)} GB`;
  return freeBytes < leastFreeBytes || freeBytes / totalBytes < leastFree
    ? bad("Disk", `${what}: ${free} left. Make room before nothing can be saved.`)
    : good("Disk", `${what}: ${free} free.`);
}

function judgeBackup({ backup: { folder, lastMs, isSameDisk, hasKey, failed }, nowMs }: Facts): Verdict {
  if (folder === null)
    return bad(
      "Backup",
      "No folder is named for backups: one lost disk is the store. Run `ravik install` again and name one on another disk.",
    );
  const why = failed === null ? "" : ` The last try failed: ${failed}`;
  if (lastMs === null) return bad("Backup", `There is none yet in ${folder}.${why}`);
  const hours = Math.round((nowMs - lastMs) / 3_600_000);
  if (nowMs - lastMs > lateMs) return bad("Backup", `The last one is ${hours} hours old.${why}`);
  if (isSameDisk) return bad("Backup", "It lies on the same disk as the store: what takes the disk takes both.");
  return hasKey
    ? good("Backup", `The last one is ${hours} hours old.`)
    : {
        about: "Backup",
        is: "note",
        says: `The last one is ${hours} hours old, without the store's key: keep a copy of store-key.pem apart, or set RAVIK_BACKUP_PASSPHRASE.`,
      };
}

function judgeKey({ isKeyOpen }: Facts): Verdict {
  if (isKeyOpen === null)
    return { about: "Key", is: "note", says: "The store's key is not there yet, or not to be seen by you." };
  return isKeyOpen
    ? bad("Key", "Others on this machine can read store-key.pem, with which records are signed: `chmod 600` it.")
    : good("Key", "Only Ravik's own user reads the store's key.");
}
