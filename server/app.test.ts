import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Endpoint, endpoints } from "../api/index.ts";
import { contractNames } from "../core/compute.ts";
import { defaultPlanOptions } from "../core/route/index.ts";
import { roles } from "../core/walk/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let odile: Caller;
let token: string;
const runId = ulid();

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
  token = (await nessa.send("POST", "/api/deliveries/d-w097/link", { isRemote: false })).body.token;
  const run = { date: store.services.clock.today(), startMin: 720, source: "hand", fileName: "" };
  const samples = Array.from({ length: 600 }, (_, s) => [s, 1200]);
  await nessa.send("POST", "/api/boats/w097/runs", { ...run, engines: [{ id: runId, engine: "port", samples }] });
});
afterAll(() => store.stop());

const all = Object.entries(endpoints) as [string, Endpoint][];
const examplePath = (path: string) =>
  (path.includes(":run") ? path.replace(":boat", "w097").replace(":run", runId) : path)
    .replace(":delivery", "d-w118")
    .replace(":person", "b1")
    .replace(":token", token)
    .replace(":boat", "w118")
    .replace(":name", "route")
    .replace(":template", "wending-23")
    .replace(":topic", "horn")
    .replace(":photo", "none")
    .replace(":begins", "2026-06-01")
    .replace(/^\/api\/wind$/, "$&?lat=45.2&lon=-93.4&date=2026-06-13");

describe("the HTTP API", () => {
  it.each(all.filter(([, { admits }]) => admits !== "public"))(
    "%s answers nobody without a session",
    async (_, each) => {
      const path = examplePath(each.path);
      const answer = await (each.method === "GET"
        ? store.stranger.get(path)
        : store.stranger.send(each.method, path, {}));
      expect(answer.status).toBe(401);
      expect(answer.body).toEqual({ error: { code: "sign-in-needed" } });
    },
  );

  it.each(all.filter(([, { method, answer }]) => method === "GET" && answer !== null))(
    "%s answers what its description says",
    async (_, each) => {
      const may = each.admits === "public" || each.admits.includes("delivery");
      const answer = await (may ? nessa : odile).get(examplePath(each.path));
      expect(answer.status).toBe(200);
      const parsed = each.answer!.safeParse(answer.body);
      expect(parsed.error?.issues ?? []).toEqual([]);
    },
  );

  const asked = all.filter(([name, { admits }]) => admits !== "public" && name !== "news");
  it.each(roles.map((role) => [role]))(
    "admits a person of %s to what its descriptions say, and to nothing else",
    async (role) => {
      const logins = { owner: "odile", sales: "corwin", delivery: "nessa", technician: "tobin", service: "ines" };
      const caller = await store.signIn(logins[role]);
      for (const [name, each] of asked) {
        const path = examplePath(each.path);
        // What is sent is no body at all: whoever is admitted is told so, and nothing is done.
        const answer = await (each.method === "GET" ? caller.get(path) : caller.send(each.method, path, "[]"));
        const isAdmitted = (each.admits as readonly string[]).includes(role);
        if (!isAdmitted) expect([name, answer.status, answer.body.error?.code]).toEqual([name, 403, "not-allowed"]);
        else expect([name, [401, 403].includes(answer.status)]).toEqual([name, false]);
      }
    },
  );

  it.each([
    ["another origin", { origin: "http://elsewhere.test" }, 403, "wrong-origin"],
    ["no origin", { origin: "" }, 403, "wrong-origin"],
    ["a form instead of JSON", { "content-type": "text/plain" }, 415, "not-json"],
  ])("refuses a write with %s", async (_, headers, status, code) => {
    const answer = await nessa.send("PUT", "/api/deliveries/d-w118/plan", { style: "sweep" }, headers);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
  });

  it("sends a strict content policy and a cookie that scripts cannot read", async () => {
    const answer = await store.stranger.send("POST", "/api/sign-in", { login: "Nessa", password: "slack-water" });
    expect(answer.headers.get("set-cookie")).toMatch(/httponly/i);
    expect(answer.headers.get("set-cookie")).toMatch(/samesite=strict/i);
    const policy = answer.headers.get("content-security-policy");
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self';");
    expect(policy).toContain("frame-ancestors 'none'");
  });

  it("ends a session on sign-out", async () => {
    const once = await store.signIn("ines");
    expect((await once.get("/api/me")).body.name).toBe("Ines Marr");
    await once.send("POST", "/api/sign-out", {});
    expect((await once.get("/api/me")).status).toBe(401);
  });

  it("tells wrong passwords and unknown names alike, and stops after ten", async () => {
    const tryOnce = (login: string) => store.stranger.send("POST", "/api/sign-in", { login, password: "guess" });
    expect((await tryOnce("nobody")).body).toEqual({ error: { code: "wrong-sign-in" } });
    for (let i = 0; i < 10; i++) expect((await tryOnce("corwin")).status).toBe(401);
    const stopped = await store.stranger.send("POST", "/api/sign-in", { login: "corwin", password: "slack-water" });
    expect(stopped.status).toBe(429);
    expect(stopped.body.error.waitS).toBeGreaterThan(0);
  });

  it("keeps demo accounts to demo mode", async () => {
    expect((await store.stranger.get("/api/sign-in")).body.demo).toHaveLength(5);
    const real = await openTestStore({ isDemo: false });
    expect((await real.stranger.get("/api/sign-in")).body.demo).toBeNull();
    await real.stop();
  });

  it("is ready, with its migrations counted", async () => {
    expect((await store.stranger.get("/api/health")).body).toEqual({
      ready: true,
      version: "test",
      database: { open: true, migrations: 26, fault: null },
      jobs: { failed: 0 },
      details: null,
    });
    // How disk and backups stand is the owner's business.
    expect((await nessa.get("/api/health")).body.details).toBeNull();
    expect((await odile.get("/api/health")).body.details).toMatchObject({
      disk: { freeBytes: expect.any(Number) },
      backup: { folder: null, lastAt: null, ageH: null, failed: null },
      isHeld: false,
    });
  });

  it("describes every endpoint in OpenAPI 3.1", async () => {
    const { body } = await nessa.get("/api/openapi.json");
    expect(body.openapi).toBe("3.1.0");
    for (const [name, { path, method }] of all) {
      const described = body.paths[path.replace(/:(\w+)/g, "{$1}")]?.[method.toLowerCase()];
      expect(described?.operationId, name).toBe(name);
    }
    expect(
      body.paths["/api/boats/{boat}/readings"].post.requestBody.content["application/json"].schema.required,
    ).toContain("hours");
  });
});

describe("bad input", () => {
  it.each([
    ["malformed JSON", '{"style":', 400, "malformed-json"],
    ["a wrong type", { ...defaultPlanOptions, style: 7 }, 422, "invalid-input"],
    ["an unknown field", { ...defaultPlanOptions, style: "sweep", extra: true }, 422, "invalid-input"],
    ["a style that is no name", { ...defaultPlanOptions, style: "Zig Zag" }, 422, "invalid-input"],
    ["no minutes at all", { ...defaultPlanOptions, style: "sweep", budgetMin: 0 }, 422, "invalid-input"],
    ["nine people", { ...defaultPlanOptions, style: "sweep", people: 9 }, 422, "invalid-input"],
    ["an array for an object", [], 422, "invalid-input"],
  ])("%s is refused with what and where", async (_, body, status, code) => {
    const answer = await nessa.send("PUT", "/api/deliveries/d-w118/plan", body);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
    if (code === "invalid-input") expect(answer.body.error.issues!.length).toBeGreaterThan(0);
  });

  it("is not read at all from those who may not ask", async () => {
    const large = `{"entries":["${"x".repeat(900_000)}`;
    const write = "/api/deliveries/d-w118/entries";
    expect((await store.stranger.send("POST", write, large)).body.error.code).toBe("sign-in-needed");
    expect((await store.stranger.send("POST", "/api/verify", large)).body.error.code).toBe("sign-in-needed");
    const link = "/api/owner/no-such-token-no-such-token/runs";
    expect((await store.stranger.send("POST", link, large)).body.error.code).toBe("link-ended");
    const tobin = await store.signIn("tobin");
    expect((await tobin.send("PUT", "/api/library/topics/horn", large)).body.error.code).toBe("not-allowed");
    expect((await nessa.send("POST", write, large)).body.error.code).toBe("malformed-json");
  });

  it("refuses more than a megabyte before reading it", async () => {
    const answer = await nessa.send("POST", "/api/deliveries/d-w118/entries", { entries: ["x".repeat(1_100_000)] });
    expect([answer.status, answer.body.error.code]).toEqual([413, "too-large"]);
  });

  it.each([
    ["/api/deliveries/none", "delivery"],
    ["/api/boats/none", "boat"],
    ["/api/compute/none/schema", "calculation"],
    ["/api/nowhere", "address"],
  ])("%s: no such %s", async (path, what) => {
    const answer = await nessa.get(path);
    expect([answer.status, answer.body.error.what]).toEqual([404, what]);
  });
});

describe("compute over HTTP", () => {
  it("lists what is built, answers it, and tells bad input from no answer", async () => {
    expect((await nessa.get("/api/compute")).body).toEqual({
      names: contractNames,
    });
    const bad = await nessa.send("POST", "/api/compute/route", { stations: [], moveMin: [], topics: [], extra: 1 });
    expect([bad.status, bad.body.error.code]).toEqual([422, "invalid-input"]);
    const topic = (id: string, after: string) => ({
      id,
      station: "a",
      minutes: 1,
      after: [after],
      must: false,
      value: 1,
    });
    const circle = { stations: [{ id: "a" }], moveMin: [[0]], topics: [topic("x", "y"), topic("y", "x")] };
    const none = await nessa.send("POST", "/api/compute/route", circle);
    expect([none.status, none.body.error.code, none.body.error.topics]).toEqual([409, "cycle", ["x", "y"]]);
  });
});
