import { afterEach, describe, expect, it, vi } from "vitest";
import { addresses, endpoints } from "../../api/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import { addressOf, ask, Refused } from "./client.ts";

afterEach(() => vi.unstubAllGlobals());

function answerWith(make: (url: string, init: RequestInit) => Response | Promise<Response>) {
  const seen: { url: string; init: RequestInit }[] = [];
  vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
    seen.push({ url, init });
    return make(url, init);
  });
  return seen;
}
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const refusal = async (promise: Promise<unknown>) => {
  const error = await promise.then(
    () => null,
    (reason: unknown) => reason,
  );
  if (!(error instanceof Refused)) throw new Error(`expected to be refused, got ${String(error)}`);
  return error;
};

describe("addresses", () => {
  it("are those of the endpoints, each once", () => {
    expect(Object.keys(addresses).sort()).toEqual(Object.keys(endpoints).sort());
    const all = Object.values(addresses).map(({ method, path }) => `${method} ${path}`);
    expect(new Set(all).size).toBe(all.length);
  });

  it("name every param of their endpoint, and no other", () => {
    for (const [name, endpoint] of Object.entries(endpoints)) {
      const inPath = [...endpoint.path.matchAll(/:(\w+)/g)].map((match) => match[1]);
      expect(Object.keys(endpoint.params.shape), name).toEqual(inPath);
    }
  });

  it("are filled in and escaped", () => {
    expect(addressOf("boat", { boat: "w 1/2" })).toBe("/api/boats/w%201%2F2");
    expect(addressOf("today")).toBe("/api/today");
  });
});

describe("ask", () => {
  it("gives the answer, with the session and nothing sent on a GET", async () => {
    const seen = answerWith(() => json({ boats: [] }));
    expect(await ask("boats")).toEqual({ boats: [] });
    expect(seen[0]).toMatchObject({ url: "/api/boats", init: { method: "GET", credentials: "same-origin" } });
    expect(seen[0]!.init.body).toBeUndefined();
  });

  it("sends JSON on a write, an empty object when there is nothing to say", async () => {
    const seen = answerWith(() => json({ done: true }));
    await ask("signOut");
    await ask("setPlan", { params: { delivery: "d-1" }, body: { ...defaultPlanOptions, style: "sweep" } });
    expect(seen.map(({ init }) => init.body)).toEqual([
      "{}",
      JSON.stringify({ ...defaultPlanOptions, style: "sweep" }),
    ]);
    expect(seen[1]).toMatchObject({ url: "/api/deliveries/d-1/plan", init: { method: "PUT" } });
  });

  it("says no signal when nothing answers", async () => {
    answerWith(() => Promise.reject(new TypeError("failed")));
    expect((await refusal(ask("today"))).code).toBe("no-signal");
  });

  it("hands on the code and facts of a refusal", async () => {
    answerWith(() => json({ error: { code: "hours-fall", before: 14.5 } }, 409));
    const error = await refusal(ask("today"));
    expect([error.code, error.facts.before]).toEqual(["hours-fall", 14.5]);
  });

  it("calls it unexpected when the answer is no JSON, or an error without a body", async () => {
    answerWith(() => new Response("<html>proxy</html>", { status: 502 }));
    expect((await refusal(ask("today"))).code).toBe("unexpected");
    answerWith(() => json({}, 500));
    expect((await refusal(ask("today"))).code).toBe("unexpected");
  });
});
