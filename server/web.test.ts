import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pino } from "pino";
import { afterAll, beforeAll, expect, it } from "vitest";
import { createApp } from "./app.ts";
import { createClock } from "./clock.ts";
import { createServices } from "./createServices.ts";
import { type Database, openDatabase } from "./database/open.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-web-"));
let database: Database;
let server: Server;
let address: string;

beforeAll(async () => {
  mkdirSync(join(folder, "web", "assets"), { recursive: true });
  writeFileSync(join(folder, "web", "index.html"), "<title>Ravik</title>");
  writeFileSync(join(folder, "web", "assets", "app-1a2b.js"), `export const big = "${"x".repeat(5000)}";`);
  database = await openDatabase(join(folder, "store"));
  const services = createServices(database, createClock("UTC"), null);
  const app = createApp(services, { version: "test", webFolder: join(folder, "web"), log: pino({ level: "silent" }) });
  server = createServer(app.callback());
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

it.each(["/", "/boats/w118", "/deliveries/d-1/walk"])(
  "gives the app at %s, to be asked for anew each time",
  async (path) => {
    const answer = await fetch(address + path);
    expect(answer.status).toBe(200);
    expect(await answer.text()).toContain("<title>Ravik</title>");
    expect(answer.headers.get("cache-control")).toBe("no-cache");
    expect(answer.headers.get("content-security-policy")).toContain("default-src 'self'");
  },
);

it("gives built files compressed and to be kept for good", async () => {
  const answer = await fetch(`${address}/assets/app-1a2b.js`);
  expect(answer.headers.get("content-type")).toContain("javascript");
  expect(answer.headers.get("cache-control")).toContain("immutable");
  expect(answer.headers.get("content-encoding")).toMatch(/br|gzip|deflate/);
  expect(await answer.text()).toContain("export const big");
});

it("never answers an unknown API address with the app", async () => {
  const answer = await fetch(`${address}/api/nothing`);
  expect(answer.status).toBe(404);
  expect(((await answer.json()) as { error: { code: string } }).error.code).toBe("not-found");
});

it("lets nobody climb out of the folder", async () => {
  const answer = await fetch(`${address}/assets/..%2f..%2fstore%2fravik.sqlite`);
  expect(await answer.text()).not.toContain("SQLite format");
});

it("refuses to start without a build", () => {
  const services = createServices(database, createClock("UTC"), null);
  const options = { version: "test", webFolder: join(folder, "nowhere"), log: pino({ level: "silent" }) };
  expect(() => createApp(services, options)).toThrow("expected a build");
});
