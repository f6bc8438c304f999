import { spawnSync } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { addDays, type Instant, type LocalDate } from "../../core/dates/index.ts";
import { createClock } from "../clock.ts";
import { createServices } from "../createServices.ts";
import { openDatabase } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";
import { openTestStore, type TestStore } from "../openTestStore.ts";
import { createHeads } from "../sealHeads.ts";
import { openStoreKey, storeKeyFile } from "../storeKey.ts";
import { backUp, restore } from "./backup.ts";
import { listBackups, readAbout } from "./backupFolder.ts";
import { chooseKept } from "./chooseKept.ts";
import { createKeeper } from "./keeper.ts";
import { lockKey, unlockKey } from "./sealKey.ts";

/** Made just now, by the clock that the test lives in; files are made by the machine's. */
const touch = (path: string) => utimesSync(path, Date.now() / 1000, Date.now() / 1000);

describe("which backups stay", () => {
  const today = "2026-11-29" as LocalDate;
  it("are the last of seven days, of four weeks and of twelve months", () => {
    const names = Array.from({ length: 500 }, (_, i) => `${addDays(today, -i)}T030000`);
    const kept = [...chooseKept(names, today)].toSorted().toReversed();
    expect(kept.slice(0, 7)).toEqual(names.slice(0, 7));
    // Sundays end weeks, and the first of the four is this one; the month's last day is its backup, this month's of today.
    const monthEnds = ["10-31", "09-30", "08-31", "07-31", "06-30", "05-31", "04-30", "03-31", "02-28", "01-31"];
    const older = ["2026-11-22", "2026-11-15", "2026-11-08", ...monthEnds.map((day) => `2026-${day}`), "2025-12-31"];
    expect(kept.slice(7)).toEqual(older.map((day) => `${day}T030000`));
    // Made night after night, what was kept yesterday holds what is kept today.
    let store: string[] = [];
    for (let i = 400; i >= 0; i--) {
      const day = addDays(today, -i);
      store = [...chooseKept([...store, `${day}T030000`], day)];
    }
    expect(store.filter((name) => name < "2026-11-01").length).toBeGreaterThanOrEqual(10);
  });

  it("always hold the last one, and the last of one day", () => {
    expect([...chooseKept(["2020-01-01T030000"], today)]).toEqual(["2020-01-01T030000"]);
    expect(chooseKept(["2026-11-29T030000", "2026-11-29T140000"], today)).toEqual(new Set(["2026-11-29T140000"]));
    expect(chooseKept([], today).size).toBe(0);
  });
});

it("a locked key opens by its passphrase alone", () => {
  const locked = lockKey("-----BEGIN", "six words that nobody else has");
  expect(locked).not.toContain("BEGIN");
  expect(unlockKey(locked, "six words that nobody else has")).toBe("-----BEGIN");
  expect(unlockKey(locked, "six words that nobody else had")).toBeNull();
  expect(unlockKey(locked.replace(/"body":"./, '"body":"A'), "six words that nobody else has")).toBeNull();
  expect(unlockKey("{", "x")).toBeNull();
});

describe("a backup", () => {
  let store: TestStore;
  let dataFolder: string;
  let folder: string;
  const passphrase = "slack water at the second buoy";
  const now = "2026-11-29T03:15:42.000Z" as Instant;
  const back = (to: string, at: Instant = now) =>
    // However full the disk of whoever runs this is.
    backUp({ dataFolder, to, now: at, timeZone: "America/Chicago", passphrase, leftFree: 0 });
  const give = (backup: string, into: string, change: object = {}) =>
    restore({ backup, dataFolder: into, now, timeZone: "UTC", isOver: false, passphrase, ...change });

  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), "ravik-backup-"));
    store = await openTestStore();
    const [main] = await readQuery<{ file: string }>(
      store.database.models.boats,
      "SELECT file FROM pragma_database_list",
    );
    dataFolder = dirname(main!.file);
    // As a server that starts with another key than the one it sealed with says it.
    const storeKey = openStoreKey(dataFolder);
    const { chain, clock } = createServices(store.database, store.services.clock, null, { storeKey });
    await store.database.inTransaction((t) => chain.announceKey(clock.now(), t));
    await createHeads(dataFolder, chain, storeKey, () => clock.now()).complete();
  });
  afterAll(async () => {
    await store.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  it("of a store in use is whole, and brings it back after its folder was deleted, with its key", async () => {
    const to = join(folder, "b1");
    const nessa = await store.signIn("nessa");
    const writing = Array.from({ length: 5 }, () =>
      nessa.send("POST", "/api/deliveries/d-w118/link", { isRemote: false }),
    );
    const { name, about } = await back(to);
    await Promise.all(writing);
    // Named by the store's own day: in Chicago it is still the evening before.
    expect(name).toBe("2026-11-28T211542");
    expect(listBackups(to)).toEqual([name]);
    expect(readdirSync(join(to, name)).toSorted()).toEqual([
      "about.json",
      "ravik.sqlite",
      "seal-heads.txt",
      "store-key.locked.json",
      "store-key.pub",
    ]);
    expect(readAbout(join(to, name))).toEqual(about);
    expect(about.counts.boats).toBe(await store.database.models.boats.count());

    const fresh = join(folder, "fresh");
    mkdirSync(fresh);
    expect(await give(join(to, name), fresh)).toMatchObject({ key: "restored", aside: null });
    expect(readFileSync(join(fresh, storeKeyFile), "utf8")).toBe(readFileSync(join(dataFolder, storeKeyFile), "utf8"));
    const again = await openDatabase(fresh);
    expect(await again.models.entries.count()).toBe(about.counts.entries);
    const { signInService } = createServices(again, createClock("UTC"), null);
    expect(signInService).toBeDefined();
    await again.close();
  });

  it("goes over a store only where somebody says so, which stays beside it", async () => {
    const to = join(folder, "b1");
    const backup = join(to, listBackups(to)[0]!);
    const there = join(folder, "fresh");
    await expect(give(backup, there)).rejects.toThrow(/holds a store.*--over/);
    const { aside, key } = await give(backup, there, { isOver: true });
    expect(key).toBe("stays");
    expect(existsSync(join(there, aside!))).toBe(true);
  });

  it("that was changed, or is none, or whose key another passphrase would open, changes nothing", async () => {
    const to = join(folder, "b1");
    const backup = join(to, listBackups(to)[0]!);
    const into = join(folder, "never");
    mkdirSync(into);
    await expect(give(to, into)).rejects.toThrow(/no backup of Ravik's/);
    await expect(give(backup, into, { passphrase: "another one altogether" })).rejects.toThrow(/does not open/);
    const changed = join(folder, "changed");
    cpSync(backup, changed, { recursive: true });
    const bytes = readFileSync(join(changed, "ravik.sqlite"));
    bytes[bytes.length - 1]! ^= 1;
    writeFileSync(join(changed, "ravik.sqlite"), bytes);
    await expect(give(changed, into)).rejects.toThrow(/not what was written/);
    expect(readdirSync(into)).toEqual([]);
    expect(await give(backup, into, { passphrase: null })).toMatchObject({ key: "new" });
  });

  it("is none where what was sealed does not verify, where there is no store, and where nothing can be written", async () => {
    const to = join(folder, "b2");
    const { sequelize } = store.database.models.chain;
    const [[guard]] = (await sequelize!.query(
      "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'chain' AND sql LIKE '%UPDATE%'",
    )) as [[{ name: string; sql: string }], unknown];
    await sequelize!.query(`DROP TRIGGER ${guard.name}`);
    await sequelize!.query("UPDATE chain SET canonical = canonical || ' ' WHERE number = 1");
    await expect(back(to)).rejects.toThrow(/does not verify/);
    expect(readdirSync(to)).toEqual([]);
    await sequelize!.query("UPDATE chain SET canonical = rtrim(canonical) WHERE number = 1");
    await sequelize!.query(guard.sql);
    await expect(backUp({ dataFolder: folder, to, now, timeZone: "UTC", passphrase })).rejects.toThrow(/no store/);
    await expect(backUp({ dataFolder, to, now, timeZone: "UTC", passphrase, leftFree: 1 })).rejects.toThrow(
      /too little room/,
    );
    expect(readdirSync(to)).toEqual([]);
    writeFileSync(join(folder, "a-file"), "");
    await expect(back(join(folder, "a-file", "in"))).rejects.toThrow(/cannot be written/);
  });

  it("takes the old ones with it, and never what it did not make", async () => {
    const to = join(folder, "b3");
    for (const name of ["2026-11-28T030000", "2026-11-28T040000", "mine", "2026-11-20T030000.part"])
      mkdirSync(join(to, name), { recursive: true });
    touch(join(to, "2026-11-20T030000.part"));
    const { removed } = await back(to);
    expect(removed).toEqual(["2026-11-28T040000", "2026-11-28T030000"]);
    expect(readdirSync(to).toSorted()).toEqual(["2026-11-20T030000.part", "2026-11-28T211542", "mine"]);
  });

  it("makes room by its oldest, keeps within its share of the disk, and never gives up the last one", async () => {
    const to = join(folder, "b5");
    const name = (day: number) => `2026-11-${day}T030000`;
    const steps: string[] = [];
    for (const day of [25, 26, 27]) {
      mkdirSync(join(to, name(day)), { recursive: true });
      writeFileSync(join(to, name(day), "ravik.sqlite"), "x".repeat(1000));
    }
    // A share of nothing: only what was just made stays.
    const { removed } = await backUp({
      ...{ dataFolder, to, now, timeZone: "UTC", passphrase, leftFree: 0, mostShare: 0 },
      tell: (step) => steps.push(step),
    });
    expect(removed).toEqual([name(27), name(26), name(25)]);
    expect(readdirSync(to)).toEqual(["2026-11-29T031542"]);
    expect([...new Set(steps)]).toEqual([
      "Copying the store",
      "Checking that the copy is sound and whole",
      "Walking its seal chain, handovers and photos",
    ]);
    // No disk has twice as much room as it has: old ones go first, the last stays, and it is said.
    for (const day of [25, 26]) mkdirSync(join(to, name(day)));
    await expect(backUp({ dataFolder, to, now, timeZone: "UTC", passphrase, leftFree: 2 })).rejects.toThrow(
      /too little room/,
    );
    expect(readdirSync(to)).toEqual(["2026-11-29T031542"]);
  });

  it("is made once a day, and after a try that failed not before an hour has gone by", async () => {
    const to = join(folder, "b6");
    let nowMs = Date.parse(now);
    const clock = createClock("UTC", () => nowMs);
    const log = join(folder, "tries.txt");
    const failing = `require("fs").appendFileSync(${JSON.stringify(log)}, "x"); process.exit(1)`;
    const keeper = createKeeper({ dataFolder, to, clock, command: [process.execPath, "-e", failing] });
    const countTries = () => readFileSync(log, "utf8").length;
    await keeper.runIfDue();
    await keeper.runIfDue();
    expect(countTries()).toBe(1);
    nowMs += 3_700_000;
    await keeper.runIfDue();
    expect(countTries()).toBe(2);
    nowMs += 3_700_000;
    await back(to, new Date(nowMs).toISOString() as Instant);
    await keeper.runIfDue();
    expect(countTries()).toBe(2);
    nowMs += 86_400_000;
    await keeper.runIfDue();
    expect(countTries()).toBe(3);
  });

  it("that fails is said until one goes well; one at a time", async () => {
    const to = join(folder, "b4");
    const clock = createClock("UTC", () => Date.parse(now) + 3_600_000);
    const make = (script: string) => createKeeper({ dataFolder, to, clock, command: [process.execPath, "-e", script] });
    const failing = make('console.error("ravik: there is too little room"); process.exit(1)');
    expect(failing.judge()).toBe("none");
    const both = [failing.run(), failing.run()];
    expect(both[0]).toBe(both[1]);
    expect(failing.read().isRunning).toBe(true);
    await both[0];
    expect(failing.read()).toMatchObject({
      isRunning: false,
      failed: { why: "there is too little room" },
      backups: [],
    });
    await back(to);
    const going = make("");
    expect(going.read().failed).not.toBeNull();
    await going.run();
    expect(going.read()).toMatchObject({ failed: null, backups: [{ name: "2026-11-28T211542" }], isSameDisk: true });
    expect(going.judge()).toBe("good");
    const later = createClock("UTC", () => Date.parse(now) + 3 * 86_400_000);
    expect(createKeeper({ dataFolder, to, clock: later, command: ["none"] }).judge()).toBe("late");
    const missing = createKeeper({ dataFolder, to, clock, command: ["/nowhere/at/all"] });
    await missing.run();
    expect(missing.read().failed!.why).toContain("ENOENT");
  });

  it("that does not come to an end is ended, and so is one whose server stops or is gone", async () => {
    const clock = createClock("UTC", () => Date.parse(now));
    const to = join(folder, "b7");
    const forever = ["-e", "setInterval(() => {}, 1000)"] as const;
    const slow = createKeeper({ dataFolder, to, clock, mostMs: 300, command: [process.execPath, ...forever] });
    await slow.run();
    expect(slow.read().failed!.why).toContain("does the disk of");
    const stopped = createKeeper({ dataFolder, to, clock, command: [process.execPath, ...forever] });
    const ended = stopped.run();
    setTimeout(() => stopped.close(), 200);
    await ended;
    const marker = join(folder, "ended.txt");
    const module = JSON.stringify(new URL("./endWithParent.ts", import.meta.url).href);
    const child = `import { writeFileSync } from "node:fs";
      const { endWithParent } = await import(${module});
      process.on("exit", () => writeFileSync(${JSON.stringify(marker)}, ""));
      endWithParent(); console.log("here"); setInterval(() => {}, 1000);`;
    const script = join(folder, "child.mjs");
    writeFileSync(script, child);
    const parent = `const { spawn } = require("node:child_process");
      const child = spawn(process.execPath, ["--import", "tsx", ${JSON.stringify(script)}],
        { stdio: ["pipe", "pipe", "inherit"], env: { ...process.env, RAVIK_WITH_PARENT: "1" } });
      child.stdout.once("data", () => process.kill(process.pid, "SIGKILL"));`;
    spawnSync(process.execPath, ["-e", parent], { stdio: "ignore" });
    await vi.waitFor(() => expect(existsSync(marker)).toBe(true), { timeout: 20_000, interval: 50 });
  });

  it("into a folder that cannot be made or looked into is refused in words, and the server goes on", async () => {
    const clock = createClock("UTC", () => Date.parse(now));
    await expect(back("/proc/ravik/backups")).rejects.toThrow(/cannot be written to/);
    const file = join(folder, "a-file");
    writeFileSync(file, "");
    await expect(back(join(file, "backups"))).rejects.toThrow(/cannot be written to/);
    const keeper = createKeeper({ dataFolder, to: file, clock, command: [process.execPath, "-e", ""] });
    await keeper.runIfDue();
    expect([keeper.judge(), keeper.read().failed!.why]).toEqual(["none", expect.stringContaining("cannot be read")]);
  });

  it("that was begun and never got its name goes a day later", async () => {
    const to = join(folder, "b8");
    const [old, fresh] = ["2026-11-20T030000.part", "2026-11-29T030000.part"].map((name) => join(to, name));
    for (const each of [old!, fresh!]) mkdirSync(each, { recursive: true });
    touch(fresh!);
    utimesSync(old!, 1_700_000_000, 1_700_000_000);
    await back(to);
    expect([existsSync(old!), existsSync(fresh!)]).toEqual([false, true]);
  });
});
