import sqlite3 from "sqlite3";

/**
 * What is wrong with a database file, in SQLite's own words: null where it is sound. Read beside whoever uses it, through a connection of
 * its own, at the speed of the disk. Rejects where the file cannot be opened.
 */
export function findDamage(file: string): Promise<string | null> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY, (failed) => {
      if (failed) return reject(failed);
      database.all("PRAGMA quick_check(3)", (error, rows: { quick_check: string }[]) => {
        const said = error === null ? rows.map((row) => row.quick_check).join("; ") : error.message;
        database.close(() => resolve(said === "ok" ? null : said));
      });
    });
  });
}

/** What was found of the store's file when it was looked through last. */
export function createSoundness(log: { warn(facts: object, message: string): void } | undefined) {
  let damage: string | null = null;
  return {
    /** Null where it is sound, or was not looked through yet. */
    read: () => damage,
    async look(file: string): Promise<void> {
      damage = await findDamage(file);
      if (damage !== null) log?.warn({ damage }, "the store's file is damaged: put it back from a backup");
    },
  };
}

export type Soundness = ReturnType<typeof createSoundness>;
