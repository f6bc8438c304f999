import sqlite3 from "sqlite3";

/** A copy of the database file as it stands now, whoever is writing to it, by a connection of its own that holds nobody up. */
export function copyDatabase(from: string, to: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const source = new sqlite3.Database(from, sqlite3.OPEN_READONLY, (error) => {
      if (error) return reject(error);
      source.run("VACUUM INTO ?", [to], (failed) => source.close(() => (failed ? reject(failed) : resolve())));
    });
  });
}
