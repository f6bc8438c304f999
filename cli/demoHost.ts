import { demo } from "../demo/demo.ts";
import { readConfig } from "../server/config.ts";
import { createPressWorker } from "../server/pdf/press.ts";
import { createPlanWorker } from "../server/planning/planner.ts";
import { createHashWorker } from "../server/signIn/hasher.ts";
import { type RunningStore, startStore, type Workers } from "../server/startStore.ts";

/** What is asked of the host: a demo store on what `env` names, or the end of one. */
export type HostQuestion =
  | { readonly id: number; readonly start: Record<string, string> }
  | { readonly id: number; readonly stop: number };
export type HostAnswer = { readonly id: number } & ({ readonly port: number } | { readonly error: string });

/** Many demo stores in one process, one after the other, for tests: what is loaded and warm for one is so for the next. */
const stores = new Map<number, RunningStore>();
const shared: Workers = { planner: createPlanWorker(), hasher: createHashWorker(), press: createPressWorker() };

/** The planner remembers what it was told of a store by its version, which another store may have too. */
const workersOf = (id: number): Workers => ({
  ...shared,
  planner: {
    ...shared.planner,
    prepare: (rig, teaching, options) =>
      shared.planner.prepare(rig, { ...teaching, version: `${id} ${teaching.version}` }, options),
  },
});

async function answer(question: HostQuestion): Promise<number> {
  if ("stop" in question) {
    await stores.get(question.stop)?.stop();
    stores.delete(question.stop);
    return 0;
  }
  const config = readConfig({ ...process.env, ...question.start });
  const store = await startStore(config, demo, workersOf(question.id));
  stores.set(question.id, store);
  return store.port;
}

process.on("message", (question: HostQuestion) => {
  const { id } = question;
  const send = (said: HostAnswer) => process.send!(said);
  answer(question).then(
    (port) => send({ id, port }),
    (error: Error) => send({ id, error: error.message }),
  );
});
