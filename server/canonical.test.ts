import { Writable } from "node:stream";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { isCanonical } from "./canonical.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";

describe("an address", () => {
  it.each(["/", "/boats/w118", "/boats/", "/o/abc_-", "/api/today", "/api/boats/a%20b", "/%C3%A9", "/Oar", "/apiary"])(
    "%s stands in its one form",
    (path) => {
      expect(isCanonical(path)).toBe(true);
    },
  );
  it.each([
    ...[
      "",
      "api/today",
      "//",
      "/api//today",
      "/o//x",
      "/O/x",
      "/API/today",
      "/Api",
      "/%61pi/today",
      "/%6f/x",
      "/%6F/x",
    ],
    ...["/a/../b", "/./a", "/%2e%2e/a", "/%2E%2E%2Fa", "/a%2fb", "/a%5Cb", "/a\\b", "/%", "/%zz", "/a%ff", "/o/%61bc"],
  ])("%s does not", (path) => {
    expect(isCanonical(path)).toBe(false);
  });
  it("written by a browser from any parts does", () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: "grapheme" }), { minLength: 1 }), (parts) => {
        const written = parts.map((part) => encodeURIComponent(part));
        const isWhole = parts.slice(0, -1).every((part) => part !== "") && !parts.some((part) => /^\.\.?$/.test(part));
        const hides = parts.some((part) => /[/\\]/.test(part));
        const isAlias = /^(api|o)$/i.test(parts[0]!) && !/^(api|o)$/.test(parts[0]!);
        fc.pre(parts.length > 1 || parts[0] !== "");
        expect(isCanonical(`/${written.join("/")}`)).toBe(isWhole && !hides && !isAlias);
      }),
    );
  });
});

describe("what opens by its address", () => {
  let store: TestStore;
  let token: string;
  const logged: string[] = [];
  beforeAll(async () => {
    const logTo = new Writable({
      write(chunk, _, done) {
        logged.push(String(chunk));
        done();
      },
    });
    store = await openTestStore({ logTo });
    const odile = await store.signIn("odile");
    token = (await odile.send("POST", "/api/deliveries/d-m204/link", { isRemote: false })).body.token;
  });
  afterAll(() => store.stop());

  it("opens in its one form, and stays in no cache and no log", async () => {
    const page = await store.stranger.get(`/api/owner/${token}`);
    expect([page.status, page.headers.get("cache-control")]).toEqual([200, "no-store"]);
    for (const form of ["API/OWNER/", "api/Owner/", "api//owner/", "%61pi/owner/", "api/%6Fwner/"]) {
      const answer = await fetch(`${store.address}/${form}${token}`);
      expect([form, answer.status, answer.headers.get("cache-control")]).toEqual([form, 404, "no-store"]);
    }
    for (const path of [`/api/owner/${token}/`, `/O/${token}`, `/o//${token}`, `/%6f/${token}`, `/api/owners/${token}`])
      expect([path, (await fetch(store.address + path)).status]).toEqual([path, 404]);
    await fetch(`${store.address}/o/${token}`);
    expect(logged.join("")).toContain("/api/owner/…");
    expect(logged.join("")).not.toContain(token);
  });

  it("a write from the same host by another scheme is one from elsewhere", async () => {
    const nessa = await store.signIn("nessa");
    const origin = store.address.replace("http:", "https:");
    const answer = await nessa.send("PUT", "/api/language", { language: "en" }, { origin });
    expect([answer.status, answer.body.error.code]).toEqual([403, "wrong-origin"]);
    for (const odd of [store.address.slice("http://".length), `${store.address}/`, "null"])
      expect((await nessa.send("PUT", "/api/language", { language: "en" }, { origin: odd })).status).toBe(403);
  });
});
