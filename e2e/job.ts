import { readFileSync } from "node:fs";
import type { BrowserContext } from "@playwright/test";
import { nowMsOf } from "../cli/demoProcess.ts";
import { expect, test as storeTest } from "./store.ts";

/** One of the twenty-four jobs, done while what the person does is counted. */
export interface Job {
  /** Another browser in which it is done too, the buyer's phone: before its first page is opened. */
  watch(context: BrowserContext): Promise<void>;
  /** From here on it is this job. */
  begin(job: number): Promise<void>;
  /** It is done, in as many actions as `docs/jobs.md` says. */
  done(): Promise<void>;
}

/** Actions by job, as the table in docs/jobs.md has them: `| 13 | … | 9 |`. */
const written = new Map(
  [...readFileSync("docs/jobs.md", "utf8").matchAll(/^\|\s*(\d+)\s*\|.*\|\s*(\d+)\s*\|$/gm)].map(([, job, actions]) => [
    Number(job),
    Number(actions),
  ]),
);

/**
 * A person's actions: each touch, each field filled (however many letters), each choice from a list, each file given, each key
 * pressed outside a field. Where a page is opened by its address, that is none: it stands for a link that somebody was sent.
 */
async function tellActions(context: BrowserContext, onAction: (atMs: number) => void): Promise<void> {
  await context.exposeBinding("ravikAction", (_, atMs: number) => onAction(atMs));
  await context.addInitScript(() => {
    const act = () => (window as unknown as { ravikAction?: (atMs: number) => void }).ravikAction?.(Date.now());
    const isField = (target: EventTarget | null) =>
      target instanceof HTMLTextAreaElement ||
      target instanceof HTMLSelectElement ||
      (target instanceof HTMLInputElement && !["checkbox", "radio", "button", "submit"].includes(target.type));
    let last: EventTarget | null = null;
    addEventListener(
      "pointerdown",
      ({ target }) => {
        last = target;
        act();
      },
      true,
    );
    addEventListener(
      "input",
      ({ target }) => {
        if (!isField(target) || target === last) return;
        last = target;
        act();
      },
      true,
    );
    addEventListener(
      "keydown",
      ({ target, key }) => {
        if (isField(target) && key.length === 1) return;
        last = null;
        act();
      },
      true,
    );
  });
}

const quietMs = 250;

export const test = storeTest.extend<{ job: Job }>({
  job: async ({ context, time }, use) => {
    // When each was done: what is told late, as of an action that left its page, still falls to the job it belongs to.
    const actions: number[] = [];
    const watched: BrowserContext[] = [];
    const watch = async (each: BrowserContext) => {
      watched.push(each);
      await tellActions(each, (atMs) => actions.push(atMs));
    };
    await watch(context);
    let now: { readonly job: number; readonly fromMs: number } | null = null;
    // What a page tells of an action comes after it: a question of ours comes after that, until nothing more is told.
    const settle = async () => {
      for (let before = -1; before !== actions.length; ) {
        before = actions.length;
        await Promise.all(watched.flatMap((each) => each.pages()).map((page) => page.evaluate("0")));
        await new Promise((resolve) => setTimeout(resolve, quietMs));
      }
    };
    await use({
      watch,
      async begin(job) {
        await settle();
        now = { job, fromMs: nowMsOf(time) };
      },
      async done() {
        await settle();
        const { job, fromMs } = now!;
        const done = actions.filter((atMs) => atMs >= fromMs);
        expect.soft(done.length, `actions of job ${job}, in docs/jobs.md`).toBe(written.get(job));
      },
    });
  },
});
