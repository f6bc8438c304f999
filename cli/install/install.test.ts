import { execFileSync } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeEach, describe, expect, it } from "vitest";
import { type Answers, answersSchema } from "./answers.ts";
import { carryOut, readDone, StepFailed, undoAll } from "./carryOut.ts";
import { examine, type Facts } from "./examine.ts";
import { createMachine, type RunResult } from "./machine.ts";
import { places, planInstall, readSettings, writeRenewal, writeSettings, writeSite } from "./plan.ts";
import { readFingerprint } from "./readCertificate.ts";
import { printTabletPage } from "./tabletPage.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-install-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const own: Answers = {
  name: "ravik.yard",
  authority: "own",
  email: null,
  addresses: ["192.168.1.10"],
  backupFolder: "/mnt/disk/ravik",
  passphrase: "slack water at the ramp",
  timeZone: "America/Halifax",
};
const open: Answers = {
  ...own,
  name: "handover.example.com",
  authority: "public",
  email: "odile@example.com",
  addresses: [],
};

describe("what is asked before an installation", () => {
  it.each([
    ["an address in place of a name", { name: "https://ravik.yard" }, "name"],
    ["two names", { name: "ravik.yard other" }, "name"],
    ["an end of a line in a name", { name: "ravik.yard;\nserver" }, "name"],
    ["no mail for a public authority", { authority: "public", name: "a.example.com" }, "email"],
    ["a name that the world does not know", { authority: "public", email: "o@example.com", name: "ravik" }, "name"],
    ["words in place of an address", { addresses: ["the office"] }, "addresses"],
    ["a folder that is none", { backupFolder: "disk" }, "backupFolder"],
    ["a folder that the shell would read", { backupFolder: "/mnt/$(reboot)" }, "backupFolder"],
    ["a short passphrase", { passphrase: "short" }, "passphrase"],
    ["a passphrase that the shell would read", { passphrase: "slack `reboot` water" }, "passphrase"],
    ["a zone that is none", { timeZone: "Halifax" }, "timeZone"],
  ])("%s is refused, by its name", (_, change, path) => {
    const { error } = answersSchema.safeParse({ ...own, ...change });
    expect(error?.issues.map((issue) => issue.path[0])).toContain(path);
  });

  it("comes back from the settings as it was written", () => {
    expect(readSettings(writeSettings(own))).toMatchObject({
      RAVIK_ADDRESS: "https://ravik.yard",
      RAVIK_BACKUP: "/mnt/disk/ravik",
      RAVIK_BACKUP_PASSPHRASE: "slack water at the ramp",
      RAVIK_TRUST_PROXY: "1",
      HOST: "127.0.0.1",
    });
    expect(writeSettings({ ...own, backupFolder: null, passphrase: null })).not.toContain("BACKUP");
  });
});

describe("an installation", () => {
  const root = join(folder, "machine");
  const from = join(folder, "built");
  let ran: string[] = [];
  /** Commands of a machine without anything on it: what asks whether something is there fails. */
  const run = (command: readonly string[]): RunResult => {
    ran.push(command.join(" "));
    return { isGood: !/^(sh -c dpkg-query|id )/.test(command.join(" ")), says: "" };
  };
  const tree = () =>
    readdirSync(root, { recursive: true, withFileTypes: true })
      .filter((each) => each.isFile())
      .map((each) => join(each.parentPath, each.name))
      .toSorted()
      .map((path) => [path.slice(root.length), readFileSync(path, "utf8")]);
  beforeEach(() => {
    ran = [];
    for (const each of [root, from]) rmSync(each, { recursive: true, force: true });
    for (const path of ["etc/nginx/sites-available", "mnt/disk"]) mkdirSync(join(root, path), { recursive: true });
    for (const path of ["dist", "node_modules", "cli", "content", "docs"])
      mkdirSync(join(from, path), { recursive: true });
    for (const path of ["cli/ravik.mjs", "package.json", "LICENSE", "dist/main.js", "docs/house.md"])
      writeFileSync(join(from, path), path);
    writeFileSync(join(root, places.site), "somebody's own");
  });
  const machine = createMachine(root, run);
  const installAll = (answers: Answers) => {
    for (const step of planInstall(answers, from)) carryOut(step, machine);
  };

  it("asks step by step, each with its why, and says what stays when it is removed", () => {
    for (const answers of [own, open]) {
      const steps = planInstall(answers, from);
      expect(steps.map(({ id }) => id)).toEqual(
        "packages user program folders settings certificate service proxy".split(" "),
      );
      for (const { says } of steps) expect(says).toMatch(/^[A-Z].{30,}\.$/);
    }
  });

  it.each([["own", own] as const, ["public", open] as const])(
    "with an authority that is %s is undone whole; the store stays",
    (_, answers) => {
      const before = tree();
      installAll(answers);
      expect(readFileSync(join(root, places.service), "utf8")).toContain(
        "ReadWritePaths=/srv/ravik/data /mnt/disk/ravik",
      );
      expect(readFileSync(join(root, places.app, "dist/main.js"), "utf8")).toBe("dist/main.js");
      expect(readdirSync(join(root, places.app))).not.toContain("docs");
      expect(statSync(join(root, places.settings)).mode & 0o777).toBe(0o600);
      writeFileSync(join(root, places.data, "ravik.sqlite"), "the store");
      ran = [];
      expect(undoAll(machine)).toEqual(
        ["/srv/ravik/data stays: something is in it"].concat("/srv/ravik stays: something is in it"),
      );
      expect(tree()).toEqual([...before, ["/srv/ravik/data/ravik.sqlite", "the store"]].toSorted());
      const at = (words: RegExp) => ran.findIndex((command) => words.test(command));
      expect(at(/disable --now ravik$/)).toBeLessThan(at(/userdel ravik/));
      // What was running on the files that are gone is told so once they are.
      expect(at(/^rm -f .*sites-enabled/)).toBeLessThan(at(/reload-or-restart nginx/));
      expect(at(/disable --now ravik$/)).toBeLessThan(at(/daemon-reload/));
      expect(ran).toContain("apt-get remove -y -qq nginx");
      expect(readDone(machine)).toEqual([]);
    },
  );

  it("takes no package and no user away that was there before", () => {
    const there = createMachine(root, (command) => {
      ran.push(command.join(" "));
      return { isGood: true, says: "" };
    });
    for (const step of planInstall(own, from)) carryOut(step, there);
    undoAll(there);
    expect(ran.filter((command) => /apt-get|useradd|userdel/.test(command))).toEqual([]);
  });

  it("done twice stands once; what failed halfway says so and is undone as well", () => {
    installAll(own);
    const once = readDone(machine);
    installAll({ ...own, addresses: ["192.168.1.11"] });
    expect(readDone(machine)).toEqual(once);
    expect(readFileSync(join(root, places.site), "utf8")).toContain("192.168.1.11");
    undoAll(machine);
    const before = tree();
    const broken = createMachine(root, (command) =>
      command[0] === "nginx" ? { isGood: false, says: "unknown directive" } : run(command),
    );
    const go = () => {
      for (const step of planInstall(own, from)) carryOut(step, broken);
    };
    expect(go).toThrow(StepFailed);
    expect(go).toThrow("`nginx -t` failed: unknown directive");
    undoAll(broken);
    expect(tree()).toEqual(before);
  });

  it("is undone after a kill in the middle of a thing, and keeps what could not be undone for the next try", () => {
    const before = tree();
    const steps = planInstall(own, from);
    const killed = createMachine(root, (command) => {
      if (command[1] === "enable") throw new Error("killed");
      return run(command);
    });
    expect(() => {
      for (const step of steps) carryOut(step, killed);
    }).toThrow("killed");
    // What was begun when the kill came is undone as well.
    expect(readDone(machine)).toContainEqual({
      kind: "run",
      undo: ["systemctl", "disable", "--now", "ravik-certificate.timer"],
    });
    const stuck = createMachine(root, (command) =>
      /userdel/.test(command.join(" ")) ? { isGood: false, says: "user ravik is in use" } : run(command),
    );
    expect(undoAll(stuck).join()).toContain("user ravik is in use");
    expect(readDone(machine)).toHaveLength(1);
    undoAll(machine);
    expect(tree()).toEqual(before);
  });

  it("gives a file that stood there back with who could read it", () => {
    chmodSync(join(root, places.site), 0o600);
    installAll(own);
    undoAll(machine);
    expect(statSync(join(root, places.site)).mode & 0o777).toBe(0o600);
  });

  it("keeps to https with headers that are set anew, whoever vouches for it", () => {
    for (const answers of [own, open]) {
      const site = writeSite(answers);
      expect(site).toContain("proxy_set_header X-Forwarded-For $remote_addr;");
      expect(site).toContain("proxy_set_header X-Forwarded-Proto https;");
      expect(site).toContain("return 301 https://$host$request_uri;");
    }
    // A tablet that is told to insist on https could not be told otherwise once the authority is gone.
    expect(writeSite(own)).not.toContain("Strict-Transport-Security");
    expect(writeSite(open)).toContain("Strict-Transport-Security");
    expect(writeSite(open)).not.toContain("ravik-authority");
  });
});

describe("an authority of the store's own", () => {
  const at = join(folder, "certificates");
  const script = join(folder, "renew");
  const make = (answers: Answers) => {
    mkdirSync(at, { recursive: true });
    writeFileSync(script, writeRenewal(answers, at, join(folder, "authority.crt")), { mode: 0o700 });
    execFileSync(script, { stdio: "pipe" });
    return new X509Certificate(readFileSync(join(at, "cert.pem")));
  };
  const verifies = (...more: string[]) => {
    try {
      return execFileSync("openssl", ["verify", "-CAfile", join(at, "authority.pem"), ...more], {
        encoding: "utf8",
        stdio: "pipe",
      });
    } catch (error) {
      return String((error as { stdout: string; stderr: string }).stdout + (error as { stderr: string }).stderr);
    }
  };

  it("vouches for the machine's names, and is renewed without tablets noticing", () => {
    const first = make(own);
    const authority = readFileSync(join(at, "authority.pem"), "utf8");
    expect(first.subjectAltName).toBe("DNS:ravik.yard, IP Address:192.168.1.10");
    expect(first.checkHost("ravik.yard")).toBe("ravik.yard");
    const days = (Date.parse(first.validTo) - Date.parse(first.validFrom)) / 86_400_000;
    expect(days).toBeLessThan(398);
    expect(verifies(join(at, "cert.pem"))).toMatch(/: OK/);
    const second = make(own);
    expect(second.serialNumber).not.toBe(first.serialNumber);
    expect(readFileSync(join(at, "authority.pem"), "utf8")).toBe(authority);
    expect(readFileSync(join(folder, "authority.crt"), "utf8")).toBe(authority);
    expect(statSync(join(folder, "authority.crt")).mode & 0o777).toBe(0o644);
    for (const file of ["authority-key.pem", "key.pem"]) expect(statSync(join(at, file)).mode & 0o077).toBe(0);
  });

  it("is another one where the machine's names are others, for the one before cannot vouch for them", () => {
    make(own);
    const before = readFileSync(join(folder, "authority.crt"), "utf8");
    make({ ...own, addresses: ["192.168.1.77"] });
    expect(readFileSync(join(folder, "authority.crt"), "utf8")).not.toBe(before);
    expect(verifies(join(at, "cert.pem"))).toMatch(/: OK/);
  });

  it("can vouch for nobody else, whoever steals its key", () => {
    make(own);
    const forge = (name: string) => {
      const file = (kind: string) => join(at, `forged-${kind}`);
      writeFileSync(file("names"), `subjectAltName=${name}\n`);
      const quiet = { stdio: "pipe" } as const;
      execFileSync(
        "openssl",
        ["req", "-newkey", "rsa:2048", "-nodes", "-subj", "/O=x", "-keyout", file("key"), "-out", file("request")],
        quiet,
      );
      const signing = [
        "x509",
        "-req",
        "-in",
        file("request"),
        "-CA",
        join(at, "authority.pem"),
        "-CAkey",
        join(at, "authority-key.pem"),
      ];
      execFileSync(
        "openssl",
        [...signing, "-CAcreateserial", "-days", "9", "-extfile", file("names"), "-out", file("cert")],
        quiet,
      );
      return verifies(file("cert"));
    };
    expect(forge("DNS:ravik.yard")).toMatch(/: OK/);
    expect(forge("DNS:bank.example")).toMatch(/permitted subtree violation/);
    expect(forge("IP:10.0.0.1")).toMatch(/permitted subtree violation/);
  });

  it("is on the page that hangs beside the charger, with what to compare", async () => {
    make(own);
    // A zero is a run of its own on paper, where a line must not break: one with many of them needs its groups.
    const fingerprint = "00:".repeat(31).concat("0A");
    expect(await readFingerprint(join(folder, "authority.crt"))).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
    const page = join(folder, "page.pdf");
    writeFileSync(page, await printTabletPage(own, fingerprint));
    const text = execFileSync("pdftotext", ["-layout", page, "-"], { encoding: "utf8" });
    expect(text).toContain("http://ravik.yard/ravik-authority.crt");
    expect(text).toContain("https://ravik.yard");
    expect(text.replace(/\s/g, "")).toContain(fingerprint);
    writeFileSync(page, await printTabletPage(open, null));
    expect(execFileSync("pdftotext", [page, "-"], { encoding: "utf8" })).not.toContain("authority");
  });
});

describe("ravik doctor", () => {
  const nowMs = Date.parse("2026-06-10T12:00:00Z");
  const hourMs = 3_600_000;
  const sound: Facts = {
    nowMs,
    builtMs: nowMs - 24 * hourMs,
    address: "https://ravik.yard",
    isServiceActive: true,
    health: { ready: true, fault: null },
    resolved: ["192.168.1.10"],
    ownAddresses: ["127.0.0.1", "192.168.1.10"],
    overHttps: { status: 200, fault: null, endsMs: nowMs + 90 * 24 * hourMs },
    isTimeKept: true,
    disks: [{ what: "The store", freeBytes: 40e9, totalBytes: 100e9 }],
    backup: { folder: "/mnt/disk", lastMs: nowMs - 9 * hourMs, isSameDisk: false, hasKey: true, failed: null },
    isKeyOpen: false,
    hasMail: false,
  };
  const badOf = (change: Partial<Facts>) =>
    examine({ ...sound, ...change })
      .filter(({ is }) => is === "bad")
      .map(({ about, says }) => `${about}: ${says}`);

  it("finds nothing on a sound one, and says of mail what there is", () => {
    expect(badOf({})).toEqual([]);
    expect(examine(sound).at(-1)).toMatchObject({ about: "Mail", is: "note" });
  });

  it.each([
    [
      "a service that ended",
      { health: null, isServiceActive: false },
      /^Ravik: It does not run\. `systemctl start ravik`/,
    ],
    [
      "a disk that is full for it",
      { health: { ready: false, fault: "disk is full" } },
      /^Ravik: .* cannot save: disk is full/,
    ],
    ["no address", { address: null, overHttps: null }, /^Address: None is set/],
    ["http alone", { address: "http://ravik.yard", overHttps: null }, /^Address: .* without https/],
    ["a name that nobody knows", { resolved: [] }, /^Address: Nothing knows the name ravik\.yard/],
    [
      "a certificate that has ended",
      { overHttps: { status: null, fault: "CERT_HAS_EXPIRED", endsMs: null } },
      /^https: .* certificate has ended/,
    ],
    [
      "a proxy that is off",
      { overHttps: { status: null, fault: "ECONNREFUSED", endsMs: null } },
      /^https: .*start nginx/,
    ],
    [
      "a proxy before nothing",
      { overHttps: { status: 502, fault: null, endsMs: null } },
      /^https: .* answers with 502/,
    ],
    [
      "a certificate that ends",
      { overHttps: { status: 200, fault: null, endsMs: nowMs + 49 * hourMs } },
      /^Certificate: It ends in 2 days/,
    ],
    ["a clock without a server", { isTimeKept: false }, /^Time: No time server/],
    ["a clock of another year", { nowMs: nowMs - 400 * 24 * hourMs }, /^Time: The clock is before/],
    [
      "a disk that fills",
      { disks: [{ what: "The store", freeBytes: 0.4e9, totalBytes: 100e9 }] },
      /^Disk: The store: 0\.4 GB of 100 GB left/,
    ],
    ["no backup folder", { backup: { ...sound.backup, folder: null } }, /^Backup: No folder/],
    [
      "no backup",
      { backup: { ...sound.backup, lastMs: null, failed: "no room" } },
      /^Backup: There is none yet.*no room/,
    ],
    [
      "an old backup",
      { backup: { ...sound.backup, lastMs: nowMs - 80 * hourMs } },
      /^Backup: The last one is 80 hours old/,
    ],
    ["a backup on the store's disk", { backup: { ...sound.backup, isSameDisk: true } }, /^Backup: .* same disk/],
    ["a key that all can read", { isKeyOpen: true }, /^Key: Others/],
  ] as [string, Partial<Facts>, RegExp][])("says of %s what to do", (_, change, words) => {
    expect(badOf(change)).toContainEqual(expect.stringMatching(words));
  });
});
