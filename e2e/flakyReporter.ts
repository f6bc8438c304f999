import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import type { FullResult, Reporter, TestCase } from "@playwright/test/reporter";

/** A test that passed only at its second try: the next commit mends it or fails (`cli/test.mjs`). */
interface Flaky {
  readonly title: string;
  readonly file: string;
  /** The commit on which it was seen. */
  readonly commit: string;
}

const listed = new URL("flaky.json", import.meta.url);

/** Writes what passed only at the second try into `e2e/flaky.json`, which belongs into the next commit. */
export default class FlakyReporter implements Reporter {
  readonly #seen = new Map<string, TestCase>();

  onTestEnd(test: TestCase): void {
    this.#seen.set(test.id, test);
  }

  onEnd(_: FullResult): void {
    const found = [...this.#seen.values()].filter((test) => test.outcome() === "flaky");
    if (found.length === 0) return;
    const before = JSON.parse(readFileSync(listed, "utf8")) as Flaky[];
    const commit = execFileSync("git", ["rev-parse", "--short", "HEAD"], { encoding: "utf8" }).trim();
    const fresh = found
      .map(({ title, location }) => ({ title, file: location.file.replace(/^.*\/e2e\//, "e2e/"), commit }))
      .filter(({ title }) => !before.some((each) => each.title === title));
    writeFileSync(listed, `${JSON.stringify([...before, ...fresh], null, 2)}\n`);
    console.log(`\nPassed only at the second try, noted in e2e/flaky.json for the next commit to mend:`);
    for (const { title } of found) console.log(`  ${title}`);
  }
}
