import { existsSync } from "node:fs";
import { Worker } from "node:worker_threads";
import { Failure } from "./failure.ts";

type Answer<A> = { readonly id: number } & ({ readonly answer: A } | { readonly error: string });

/**
 * One thread, one question after the other; started when it is first asked, and anew if it ever dies. It keeps nothing
 * running by itself. `mostWaiting`: whoever comes when so many wait is told to try again.
 */
export function createAskWorker<Q extends object, A>(findEntry: () => URL, mostWaiting: number) {
  let worker: Worker | null = null;
  let last = 0;
  const waiting = new Map<number, { resolve: (answer: A) => void; reject: (error: Error) => void }>();
  const fail = (error: Error) => {
    worker = null;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const start = (): Worker => {
    const started = new Worker(findEntry());
    started.unref();
    started.on("message", (message: Answer<A>) => {
      const asked = waiting.get(message.id);
      waiting.delete(message.id);
      if ("error" in message) asked?.reject(new Error(message.error));
      else asked?.resolve(message.answer);
    });
    started.on("error", (error) => fail(error as Error));
    started.on("exit", (code) => {
      if (worker === started) fail(new Error(`worker: ended with ${code}`));
    });
    return started;
  };
  return {
    /** Whether a thread runs that remembers what it was told. */
    isRunning: () => worker !== null,
    /** Failure: `busy`. */
    ask(question: Q): Promise<A> {
      if (waiting.size >= mostWaiting) return Promise.reject(new Failure("busy"));
      worker ??= start();
      const id = ++last;
      worker.postMessage({ ...question, id });
      return new Promise((resolve, reject) => waiting.set(id, { resolve, reject }));
    },
    async close() {
      const ended = worker;
      worker = null;
      await ended?.terminate();
    },
  };
}

/** A built worker by its name, beside the server or one folder above its parts. */
export function findBuilt(name: string): URL {
  const places = [`./${name}.js`, `../${name}.js`].map((path) => new URL(path, import.meta.url));
  const found = places.find((place) => existsSync(place));
  if (found === undefined) throw new Error(`worker: expected dist/server/${name}.js, found none (npm run build)`);
  return found;
}
