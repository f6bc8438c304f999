import { Secret, TOTP } from "otpauth";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { regions } from "../core/region/index.ts";
import { demoCost } from "../demo/accounts.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";
import { hashHere, hashPassword, isPassword } from "./signIn/passwords.ts";

const words = "grey heron at dawn";

let store: TestStore;
let odile: Caller;
let nowMs = Date.parse("2026-06-13T09:00:00Z");
beforeAll(async () => {
  store = await openTestStore({ nowMs: () => nowMs });
  odile = await store.signIn("odile");
});
afterAll(() => store.stop());

const trySign = (body: object, cookie = "") => store.withCookie(cookie).send("POST", "/api/sign-in", body);
const invite = async (name: string, role = "delivery") =>
  (await odile.send("POST", "/api/invites", { name, role })).body.code as string;
const join = (code: string, login: string, password = words) =>
  store.stranger.send("POST", "/api/join", { code, login, password });
const idOf = async (login: string): Promise<string> =>
  (await odile.get("/api/staff")).body.people.find((person: { login: string }) => person.login === login).id;
const setPerson = async (login: string, change: object) => {
  const { people } = (await odile.get("/api/staff")).body;
  const { id, name, role, isOff, needsSecond } = people.find((person: { login: string }) => person.login === login);
  return odile.send("PUT", `/api/staff/${id}`, { name, role, isOff, needsSecond, ...change });
};

describe("an invitation", () => {
  it("opens once, to whoever holds its code, however it is typed", async () => {
    const code = await invite("Wenna Trew");
    const look = await store.stranger.send("POST", "/api/joining", { code: code.toLowerCase().replace("-", " ") });
    expect(look.body).toMatchObject({ name: "Wenna Trew", role: "delivery", isReset: false, login: null });
    const joined = await join(code, "Wenna");
    expect(joined.body).toMatchObject({ name: "Wenna Trew", role: "delivery" });
    expect((await join(code, "another")).body.error.code).toBe("code-ended");
    expect((await trySign({ login: "wenna", password: words })).status).toBe(200);
  });

  it("taken by two at once, lets one in", async () => {
    const code = await invite("Ruan Pask");
    const answers = await Promise.all([join(code, "ruan"), join(code, "ruan2")]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 410]);
  });

  it("is over after a week, and once it is taken back", async () => {
    const code = await invite("Late Comer");
    nowMs += 7 * 86_400_000 + 1;
    odile = await store.signIn("odile");
    expect((await join(code, "late")).body.error.code).toBe("code-ended");
    const other = await invite("Not Yet");
    const [{ id }] = (await odile.get("/api/staff")).body.invites;
    await odile.send("DELETE", `/api/invites/${id}`, {});
    expect((await join(other, "notyet")).body.error.code).toBe("code-ended");
  });

  it("takes no name that is taken and no password that is guessed, and stays open meanwhile", async () => {
    const code = await invite("Jory Venn");
    expect((await join(code, "NESSA")).body.error.code).toBe("login-taken");
    const weak = async (password: string) => (await join(code, "jory", password)).body.error.why;
    expect(await weak("short")).toBe("short");
    expect(await weak("password1234")).toBe("common");
    expect(await weak("aaaaaaaaaaaa")).toBe("common");
    expect(await weak("Jory Venn 1")).toBe("own");
    expect((await join(code, "jory")).status).toBe(200);
  });
});

describe("somebody who works here", () => {
  it("has their new role at once, and is out at once when they are switched off; their past stays", async () => {
    await join(await invite("Piran Hale", "sales"), "piran");
    const signedIn = await trySign({ login: "piran", password: words });
    const piran = store.withCookie(signedIn.headers.get("set-cookie")!.split(";")[0]!);
    expect((await piran.get("/api/me")).body.role).toBe("sales");
    await setPerson("piran", { role: "technician" });
    expect((await piran.get("/api/me")).body.role).toBe("technician");
    await setPerson("piran", { isOff: true });
    expect((await piran.get("/api/me")).status).toBe(401);
    expect((await trySign({ login: "piran", password: words })).body.error.code).toBe("wrong-sign-in");
    expect((await odile.get("/api/staff")).body.people.some(({ login }: { login: string }) => login === "piran")).toBe(
      true,
    );
  });

  it("is no longer owner only where another is", async () => {
    expect((await setPerson("odile", { role: "sales" })).body.error.code).toBe("last-owner");
    expect((await setPerson("odile", { isOff: true })).body.error.code).toBe("last-owner");
  });

  it("who has lost their password gets a code from the owner, which ends what was", async () => {
    const ines = await store.signIn("ines");
    const { code } = (await odile.send("POST", `/api/staff/${await idOf("ines")}/reset`, {})).body;
    expect((await ines.get("/api/me")).status).toBe(401);
    expect((await trySign({ login: "ines", password: "slack-water" })).body.error.code).toBe("wrong-sign-in");
    const look = await store.stranger.send("POST", "/api/joining", { code });
    expect(look.body).toMatchObject({ isReset: true, login: "ines" });
    expect((await store.stranger.send("POST", "/api/join", { code, password: words })).body.name).toBe("Ines Marr");
    expect((await trySign({ login: "ines", password: words })).status).toBe(200);
  });

  it("has their hash made anew, at today's cost, when they next sign in", async () => {
    const { people } = store.services;
    const old = await hashPassword(hashHere, "slack-water", { N: 512, r: 8, p: 1 });
    await people.change("nessa", { kept: old });
    await store.signIn("nessa");
    const { kept } = (await people.find("nessa"))!;
    expect(kept.cost).toEqual(demoCost);
    expect(await isPassword(hashHere, "slack-water", kept)).toBe(true);
  });

  it("changes their password by saying the old one; their other sessions end", async () => {
    const [here, elsewhere] = [await store.signIn("corwin"), await store.signIn("corwin")];
    const wrong = await here.send("PUT", "/api/password", { old: "guess", password: words });
    expect(wrong.body.error.code).toBe("wrong-password");
    expect((await here.send("PUT", "/api/password", { old: "slack-water", password: words })).status).toBe(200);
    expect((await here.get("/api/me")).status).toBe(200);
    expect((await elsewhere.get("/api/me")).status).toBe(401);
  });

  it("sees where they are signed in, and ends one of them", async () => {
    const [here, elsewhere] = [await store.signIn("tobin"), await store.signIn("tobin")];
    const { sessions } = (await here.get("/api/sessions")).body;
    const other = sessions.find(({ isThis }: { isThis: boolean }) => !isThis);
    await here.send("DELETE", `/api/sessions/${other.id}`, {});
    expect((await elsewhere.get("/api/me")).status).toBe(401);
    // Not another's.
    const theirs = (await odile.get("/api/sessions")).body.sessions[0].id;
    expect((await here.send("DELETE", `/api/sessions/${theirs}`, {})).status).toBe(404);
  });
});

describe("a session", () => {
  it("ends after half a day unused, and after a day in any case", async () => {
    const idle = await store.signIn("nessa");
    nowMs += 11 * 3_600_000;
    expect((await idle.get("/api/me")).status).toBe(200);
    nowMs += 11 * 3_600_000;
    expect((await idle.get("/api/me")).status).toBe(200);
    nowMs += 3 * 3_600_000;
    expect((await idle.get("/api/me")).status).toBe(401);
    odile = await store.signIn("odile");
  });

  it("ends where the next begins on the same browser, and takes its live streams with it", async () => {
    const first = await store.signIn("nessa");
    const stream = await fetch(`${store.address}/api/deliveries/d-w118/news`, { headers: { cookie: first.cookie } });
    const ended = stream.text();
    await trySign({ login: "tobin", password: "slack-water" }, first.cookie);
    expect((await first.get("/api/me")).status).toBe(401);
    expect(await ended).toContain("event: hello");
  });

  it("keeps so many live streams open and no more", async () => {
    const { cookie } = await store.signIn("nessa");
    const open = () => fetch(`${store.address}/api/deliveries/d-w118/news`, { headers: { cookie } });
    const answers = [];
    for (let i = 0; i < 14; i++) answers.push(await open());
    expect(answers.map(({ status }) => status).filter((status) => status === 503)).toHaveLength(2);
    await Promise.all(answers.map(({ body }) => body?.cancel()));
  });
});

describe("wrong tries", () => {
  it("that come a hundred at once are looked at ten times", async () => {
    const answers = await Promise.all(
      Array.from({ length: 100 }, () => trySign({ login: "tobin", password: "a guess at it" })),
    );
    expect(answers.filter(({ status }) => status === 401)).toHaveLength(10);
    expect(answers.filter(({ status }) => status === 429)).toHaveLength(90);
  });

  it("from elsewhere do not lock out whoever has signed in from their browser before", async () => {
    const before = await trySign({ login: "jory", password: words });
    const known = before.headers
      .getSetCookie()
      .find((cookie) => cookie.startsWith("ravik-known."))!
      .split(";")[0]!;
    for (let i = 0; i < 12; i++) await trySign({ login: "jory", password: "a guess at it" });
    expect((await trySign({ login: "jory", password: words })).status).toBe(429);
    expect((await trySign({ login: "jory", password: words }, known)).status).toBe(200);
    const forged = known.replace(/=.{8}/, "=00000000");
    expect((await trySign({ login: "jory", password: words }, forged)).status).toBe(429);
  });
});

describe("a second factor", () => {
  const codeAt = (secret: string, ms: number) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: ms });

  it("is asked for from then on, each code once; a recovery code stands in once", async () => {
    await join(await invite("Ketti Orme"), "ketti");
    const signedIn = await trySign({ login: "ketti", password: words });
    const ketti = store.withCookie(signedIn.headers.get("set-cookie")!.split(";")[0]!);
    expect((await ketti.send("POST", "/api/second-factor", { password: "guess" })).status).toBe(403);
    const { secret, address } = (await ketti.send("POST", "/api/second-factor", { password: words })).body;
    expect(address).toMatch(/^otpauth:\/\/totp\/.*ketti/);
    expect((await ketti.send("PUT", "/api/second-factor", { code: "000000" })).body.error.code).toBe("wrong-code");
    const { recovery } = (await ketti.send("PUT", "/api/second-factor", { code: codeAt(secret, nowMs) })).body;
    expect(recovery).toHaveLength(8);

    const sign = (code?: string) =>
      trySign({ login: "ketti", password: words, ...(code === undefined ? {} : { code }) });
    expect((await sign()).body.error.code).toBe("second-needed");
    expect((await sign(codeAt(secret, nowMs))).body.error.code).toBe("wrong-code");
    nowMs += 31_000;
    // Five at once: one of them gets in.
    const atOnce = async (code: string) =>
      (await Promise.all(Array.from({ length: 5 }, () => sign(code)))).filter(({ status }) => status === 200).length;
    expect(await atOnce(codeAt(secret, nowMs))).toBe(1);
    nowMs += 20 * 60_000;
    expect(await atOnce(recovery[0].toLowerCase())).toBe(1);
    nowMs += 20 * 60_000;
    expect((await sign(recovery[0])).body.error.code).toBe("wrong-code");
  });

  it("that the owner wants of somebody comes before everything else", async () => {
    await join(await invite("Bram Tolly"), "bram");
    const signedIn = await trySign({ login: "bram", password: words });
    const bram = store.withCookie(signedIn.headers.get("set-cookie")!.split(";")[0]!);
    await setPerson("bram", { needsSecond: true });
    expect((await bram.get("/api/today")).body.error.code).toBe("second-missing");
    expect((await bram.get("/api/me")).body.owesSecond).toBe(true);
    const { secret } = (await bram.send("POST", "/api/second-factor", { password: words })).body;
    await bram.send("PUT", "/api/second-factor", { code: codeAt(secret, nowMs) });
    expect((await bram.get("/api/today")).status).toBe(200);
    expect((await bram.send("POST", "/api/second-factor/off", { password: words })).body.error.code).toBe(
      "second-missing",
    );
  });
});

describe("a shared tablet", () => {
  it("holds a session for each person; who is in front is asked by name", async () => {
    const admitted = await odile.send("POST", "/api/devices", { name: "Dock tablet" });
    const device = admitted.headers.get("set-cookie")!.split(";")[0]!;
    const cookies = [device];
    const open = new Map<string, string>();
    await join(await invite("Sefa Noll", "sales"), "sefa");
    for (const login of ["sefa", "wenna"]) {
      const answer = await trySign({ login, password: words }, cookies.join("; "));
      cookies.push(...answer.headers.getSetCookie().map((cookie) => cookie.split(";")[0]!));
      expect(answer.body.isShared).toBe(true);
      open.set(login, answer.body.open);
    }
    const tablet = store.withCookie(cookies.join("; "));
    const wenna = await idOf("wenna");
    expect((await tablet.get("/api/sign-in")).body).toMatchObject({
      sharedAs: "Dock tablet",
      held: expect.arrayContaining([wenna]),
    });
    expect((await tablet.get("/api/me")).status).toBe(401);
    const front = `${wenna}.${open.get("wenna")}`;
    expect((await tablet.get("/api/me", { "Ravik-Person": wenna, "Ravik-Open": open.get("wenna")! })).body.name).toBe(
      "Wenna Trew",
    );
    expect((await store.withCookie(`${cookies.join("; ")}; ravik-front=${front}`).get("/api/me")).body.name).toBe(
      "Wenna Trew",
    );
    const ofAnother = { "Ravik-Person": wenna, "Ravik-Open": open.get("sefa")! };
    expect((await tablet.get("/api/me", ofAnother)).body.error.code).toBe("pin-needed");

    const { devices } = (await odile.get("/api/staff")).body;
    await odile.send("DELETE", `/api/devices/${devices[0].id}`, {});
    expect(
      (await tablet.get("/api/me", { "Ravik-Person": wenna, "Ravik-Open": open.get("wenna")! })).body.error.code,
    ).toBe("sign-in-needed");
  });
});

describe("the store's rules", () => {
  it("say who else may let a boat go that is not ready; the owner always may", async () => {
    await join(await invite("Tegen Rowe", "service"), "tegen");
    const signedIn = await trySign({ login: "tegen", password: words });
    const tegen = store.withCookie(signedIn.headers.get("set-cookie")!.split(";")[0]!);
    const { id } = (await tegen.get("/api/me")).body;
    const allow = () =>
      tegen.send("POST", "/api/deliveries/d-w121/entries", {
        entries: [
          {
            id: ulid(nowMs),
            delivery: "d-w121",
            at: toInstant(nowMs),
            by: id,
            device: "t",
            kind: "allow",
            reason: "x",
          },
        ],
      });
    expect((await allow()).body.error.code).toBe("not-allowed");
    const facts = (await odile.get("/api/store")).body;
    expect((await odile.send("PUT", "/api/store", { ...facts, allowers: ["service"] })).status).toBe(422);
    expect((await odile.send("PUT", "/api/store", { ...facts, allowers: ["owner", "service"] })).status).toBe(200);
    expect((await tegen.get("/api/me")).body.allowers).toEqual(["owner", "service"]);
    expect((await allow()).status).toBe(200);
  });
});

describe("the time for a walk", () => {
  it("is what the store usually has in every new plan, until the plan has its own", async () => {
    const plan = async () => {
      const booked = {
        boat: "w118",
        date: "2026-07-01",
        time: "10:00",
        buyers: ["Ada Tran"],
        note: "",
        phone: "",
        email: "",
      };
      const { delivery } = (await odile.send("POST", "/api/deliveries", booked)).body;
      const { planOptions, plan: planned } = (await odile.get(`/api/deliveries/${delivery}`)).body;
      return { budgetMin: planOptions.budgetMin, totalMin: planned.totalMin };
    };
    const usual = await plan();
    expect(usual.budgetMin).toBe(90);
    expect(usual.totalMin).toBeLessThanOrEqual(90);
    const facts = (await odile.get("/api/store")).body;
    expect((await odile.send("PUT", "/api/store", { ...facts, usualMin: 3 })).status).toBe(422);
    expect((await odile.send("PUT", "/api/store", { ...facts, usualMin: 45 })).status).toBe(200);
    expect((await plan()).totalMin).toBeLessThanOrEqual(45);
    await odile.send("PUT", "/api/store", { ...facts, usualMin: null });
    expect((await plan()).budgetMin).toBeNull();
  });
});

describe("the store's logo", () => {
  it("is a photo that was checked; it stands on the record and on the owner's page, and is nobody else's to read", async () => {
    const facts = (await odile.get("/api/store")).body;
    expect(facts.logo).toBeNull();
    expect((await odile.send("PUT", "/api/store", { ...facts, logo: "no-such" })).status).toBe(404);
    const record = async () => {
      const answer = await fetch(`${store.address}/api/deliveries/d-m204/record.pdf`, {
        headers: { cookie: odile.cookie },
      });
      return (
        Buffer.from(await answer.arrayBuffer())
          .toString("latin1")
          .split("/Subtype /Image").length - 1
      );
    };
    const without = await record();
    const bytes = await sharp({ create: { width: 90, height: 30, channels: 3, background: "#0a5" } })
      .png()
      .withExif({ IFD0: { Artist: "somebody" } })
      .toBuffer();
    const logo = ulid().toLowerCase();
    expect((await store.sendFile(odile, `/api/photos/${logo}`, bytes, "image/png")).status).toBe(200);
    expect((await odile.send("PUT", "/api/store", { ...facts, logo })).status).toBe(200);
    expect(await record()).toBe(without + 1);
    const { token } = (await odile.send("POST", "/api/deliveries/d-m204/link", { isRemote: false, send: false })).body;
    expect((await store.stranger.get(`/api/owner/${token}`)).body.logo).toBe(logo);
    expect((await store.stranger.get(`/api/owner/${token}/photos/${logo}`)).status).toBe(200);
    expect((await store.stranger.get(`/api/photos/${logo}`)).status).toBe(401);
    expect((await odile.send("PUT", "/api/store", { ...facts, logo: null })).status).toBe(200);
    expect((await store.stranger.get(`/api/owner/${token}/photos/${logo}`)).status).toBe(404);
  });
});

describe("what was done in whose name", () => {
  it("is kept, found by words, and taken along; nobody changes it, and no secret stands in it", async () => {
    await odile.send("PUT", "/api/care/texts", { texts: {} });
    const { lines } = (await odile.get("/api/audit?find=Wenna%20invite")).body;
    expect(lines[0]).toMatchObject({ kind: "staff", name: "Odile Pellow", about: "name Wenna Trew, role delivery" });
    await trySign({ login: "typed where the name goes", password: "x" });
    const all = JSON.stringify((await odile.get("/api/audit")).body.lines);
    expect(all).toContain("Wrong name or password");
    for (const secret of [words, "slack-water", "a guess at it", "typed where the name goes"])
      expect(all).not.toContain(secret);
    expect((await odile.get("/api/audit.csv")).body.text).toMatch(/^number,at,by,name,kind,what,about\r\n/);
    const before = await odile.get("/api/audit");
    const change = store.database.models.audit.update({ what: "nothing" }, { where: {} });
    await expect(change).rejects.toThrow();
    await expect(store.database.models.audit.destroy({ where: {} })).rejects.toThrow();
    expect((await odile.get("/api/audit")).body).toEqual(before.body);
  });
});

describe("a new store", () => {
  const facts = {
    store: "Tarn Boats",
    place: "1 Slip Road",
    phone: "555 0100",
    webAddress: "https://ravik.tarn.test/",
    timeZone: "America/Halifax",
    region: regions.us,
    name: "Maud Ferris",
    login: "maud",
    password: words,
  };

  it("is begun by whoever holds the code its server printed, and by nobody after", async () => {
    const fresh = await openTestStore({ isEmpty: true });
    expect((await fresh.stranger.get("/api/sign-in")).body).toMatchObject({ isNew: true, demo: null });
    const code = (await fresh.services.setUpService.begin())!;
    expect((await fresh.stranger.send("POST", "/api/set-up", { ...facts, code: "AAAAA-AAAAA" })).body.error.code).toBe(
      "wrong-code",
    );
    expect((await fresh.stranger.send("POST", "/api/set-up", { ...facts, code, timeZone: "Mars/North" })).status).toBe(
      422,
    );
    const answer = await fresh.stranger.send("POST", "/api/set-up", { ...facts, code });
    expect(answer.body).toMatchObject({
      name: "Maud Ferris",
      role: "owner",
      store: "Tarn Boats",
      timeZone: "America/Halifax",
    });
    const maud = fresh.withCookie(answer.headers.get("set-cookie")!.split(";")[0]!);
    expect((await maud.get("/api/store")).body).toMatchObject({
      webAddress: "https://ravik.tarn.test",
      place: "1 Slip Road",
    });
    expect(fresh.services.origin()).not.toBeNull();
    expect((await fresh.stranger.send("POST", "/api/set-up", { ...facts, code })).body.error.code).toBe("set-up-done");
    expect(await fresh.services.setUpService.begin()).toBeNull();
    await fresh.stop();
  });
});
