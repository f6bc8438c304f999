import { mkdtempSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pino } from "pino";
import { demoAccounts } from "../demo/accounts.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createApp } from "./app.ts";
import { createClock } from "./clock.ts";
import { type Database, openDatabase } from "./database/open.ts";
import { createServices, type Services } from "./services.ts";

export interface Answer {
  readonly status: number;
  readonly body: {
    error: { code: string; issues?: { path: string; message: string }[]; [fact: string]: unknown };
  } & Record<
    string,
    // biome-ignore lint/suspicious/noExplicitAny: tests read answers freely
    any
  >;
  readonly headers: Headers;
}

export interface Caller {
  get(path: string): Promise<Answer>;
  send(method: "POST" | "PUT", path: string, body: unknown, headers?: Record<string, string>): Promise<Answer>;
}

export interface TestStore {
  readonly address: string;
  readonly services: Services;
  readonly database: Database;
  /** Somebody who is not signed in. */
  readonly stranger: Caller;
  signIn(login: string): Promise<Caller>;
  stop(): Promise<void>;
}

/** The real server over HTTP on a real SQLite file with the demo in it, for tests. */
export async function openTestStore({ isDemo = true } = {}): Promise<TestStore> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-test-"));
  const database = await openDatabase(folder);
  const clock = createClock("UTC");
  await makeDemoStore(database, clock.today(), "UTC");
  const services = createServices(database, clock, isDemo ? demoAccounts : null);
  const app = createApp(services, { version: "test", webFolder: null, log: pino({ level: "silent" }) });
  const server: Server = createServer(app.callback());
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const createCaller = (cookie: string): Caller => ({
    get: async (path) => read(await fetch(address + path, { headers: { cookie } })),
    send: async (method, path, body, headers = {}) =>
      read(
        await fetch(address + path, {
          method,
          headers: { cookie, origin: address, "content-type": "application/json", ...headers },
          body: typeof body === "string" ? body : JSON.stringify(body),
        }),
      ),
  });
  const stranger = createCaller("");
  return {
    address,
    services,
    database,
    stranger,
    async signIn(login) {
      const answer = await stranger.send("POST", "/api/sign-in", { login, password: "slack-water" });
      return createCaller(answer.headers.get("set-cookie")!.split(";")[0]!);
    },
    async stop() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await database.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function read(response: Response): Promise<Answer> {
  const text = await response.text();
  const isJson = response.headers.get("content-type")?.includes("json") ?? false;
  return { status: response.status, body: isJson ? JSON.parse(text) : { text }, headers: response.headers };
}
