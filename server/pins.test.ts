import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { hashBytes } from "../core/hash/index.ts";
import { derivePinKey, describeEntry, describePhoto, describePost, signOpening, signSent } from "../core/pin/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nowMs = Date.now();
/** What the browser of a shared tablet holds: the tablet's cookie and one session a person. */
const cookies = new Map<string, string>();
const salt = "00".repeat(16);
const pins = { nessa: derivePinKey("2580", salt), odile: derivePinKey("1357", salt) };
type Name = keyof typeof pins;
const tablet = (): Caller => store.withCookie([...cookies].map((pair) => pair.join("=")).join("; "));
const keepCookies = (headers: Headers) => {
  for (const cookie of headers.getSetCookie()) {
    const [name, value] = cookie.split(";")[0]!.split("=") as [string, string];
    cookies.set(name, value);
  }
};
const asked = (name: Name, open = "") => ({ "Ravik-Person": name, "Ravik-Open": open });

/** With the password; answers the word that opens. */
async function signIn(login: Name): Promise<string> {
  const answer = await tablet().send("POST", "/api/sign-in", { login, password: "slack-water" });
  keepCookies(answer.headers);
  return answer.body.open;
}
async function openByPin(name: Name, { seed } = pins[name]) {
  const { challenge } = (await tablet().send("POST", "/api/pin/challenge", {}, asked(name))).body;
  return tablet().send("POST", "/api/pin/open", { challenge, proof: signOpening(seed, challenge) }, asked(name));
}

beforeAll(async () => {
  store = await openTestStore({ nowMs: () => nowMs });
  const admitted = await (await store.signIn("odile")).send("POST", "/api/devices", { name: "Dock tablet" });
  keepCookies(admitted.headers);
  for (const name of ["nessa", "odile"] as const) {
    const open = await signIn(name);
    expect(open).toMatch(/^\d+-[0-9a-f]{128}$/);
    await tablet().send("PUT", "/api/pin", { key: pins[name].publicKey }, asked(name, open));
  }
});
afterAll(() => store.stop());

const snag = (note: string) => ({
  id: ulid(nowMs),
  delivery: "d-w118",
  at: new Date(nowMs).toISOString(),
  by: "odile",
  device: "dock",
  kind: "snag" as const,
  topic: null,
  note,
  stops: false,
});
const post = (entries: readonly object[], more: object = {}, headers: Record<string, string> = asked("odile")) =>
  tablet().send("POST", "/api/deliveries/d-w118/entries", { entries, ...more }, headers);

describe("a session on a shared tablet", () => {
  it("that was begun before it was shared ends when somebody else comes: no PIN stands before it", async () => {
    const first = await store.stranger.send("POST", "/api/sign-in", { login: "odile", password: "slack-water" });
    const own = new Map([first.headers.getSetCookie()[0]!.split(";")[0]!.split("=") as [string, string]]);
    const browser = () => store.withCookie([...own].map((pair) => pair.join("=")).join("; "));
    const shared = await browser().send("POST", "/api/devices", { name: "Counter tablet" });
    const [name, value] = shared.headers.getSetCookie()[0]!.split(";")[0]!.split("=") as [string, string];
    own.set(name, value);
    expect((await browser().get("/api/me", asked("odile"))).status).toBe(200);
    await browser().send("POST", "/api/sign-in", { login: "nessa", password: "slack-water" });
    expect((await browser().get("/api/me", asked("odile"))).body.error.code).toBe("sign-in-needed");
  });

  it("opens for nobody who only names its person, reads nothing and ends nothing but itself", async () => {
    for (const path of ["/api/me", "/api/today", "/api/audit", "/api/deliveries/d-w118"]) {
      const answer = await tablet().get(path, asked("odile"));
      expect([path, answer.status, answer.body.error.code]).toEqual([path, 401, "pin-needed"]);
    }
    const writes = [
      ["PUT", "/api/pin", { key: pins.nessa.publicKey }],
      ["PUT", "/api/password", { old: "slack-water", password: "a new one of mine" }],
      ["POST", "/api/invites", { name: "Anybody", role: "owner" }],
    ] as const;
    for (const [method, path, body] of writes)
      expect([path, (await tablet().send(method, path, body, asked("odile"))).body.error.code]).toEqual([
        path,
        "pin-needed",
      ]);
  });

  it("elsewhere has no PIN, and is ended by none", async () => {
    const ines = await store.signIn("ines");
    for (let i = 0; i < 7; i++)
      expect((await ines.send("POST", "/api/pin/open", { challenge: "x", proof: "00" })).status).toBe(404);
    expect((await ines.send("PUT", "/api/pin", { key: pins.nessa.publicKey })).status).toBe(404);
    expect((await ines.get("/api/me")).status).toBe(200);
  });

  it("opens by the PIN's key, for whoever got the word, and the word of another or an old one opens nothing", async () => {
    const open: string = (await openByPin("odile")).body.open;
    expect((await tablet().get("/api/me", asked("odile", open))).body.name).toBe("Odile Pellow");
    const byCookie = store.withCookie(
      [...cookies, ["ravik-front", `odile.${open}`]].map((pair) => pair.join("=")).join("; "),
    );
    expect((await byCookie.get("/api/me")).body.name).toBe("Odile Pellow");
    const nessas: string = (await openByPin("nessa")).body.open;
    for (const word of [
      nessas,
      `${open}0`,
      open.replace(/^\d+/, (ms) => String(+ms + 1)),
      "",
      "x",
      `${nowMs + 9e9}-00`,
    ])
      expect((await tablet().get("/api/me", asked("odile", word))).status).toBe(401);
    nowMs += 12 * 3_600_000;
    expect((await tablet().get("/api/me", asked("odile", open))).status).toBe(401);
  });

  it("is not opened by another's key, an old challenge or another's, and ends after five wrong tries", async () => {
    expect((await openByPin("nessa", pins.odile)).body.error.code).toBe("wrong-pin");
    const { challenge } = (await tablet().send("POST", "/api/pin/challenge", {}, asked("odile"))).body;
    const proof = signOpening(pins.nessa.seed, challenge);
    expect((await tablet().send("POST", "/api/pin/open", { challenge, proof }, asked("nessa"))).body.error.code).toBe(
      "wrong-pin",
    );
    const mine = (await tablet().send("POST", "/api/pin/challenge", {}, asked("nessa"))).body.challenge;
    nowMs += 61_000;
    const late = { challenge: mine, proof: signOpening(pins.nessa.seed, mine) };
    expect((await tablet().send("POST", "/api/pin/open", late, asked("nessa"))).body.error.code).toBe("wrong-pin");
    expect((await openByPin("nessa")).status).toBe(200);
    // Six at once: five are looked at.
    const { challenge: last } = (await tablet().send("POST", "/api/pin/challenge", {}, asked("nessa"))).body;
    const guesses = Array.from({ length: 6 }, () =>
      tablet().send("POST", "/api/pin/open", { challenge: last, proof: "00".repeat(64) }, asked("nessa")),
    );
    const codes = (await Promise.all(guesses)).map(({ body }) => body.error.code);
    expect(codes.toSorted()).toEqual(["sign-in-needed", ...Array(5).fill("wrong-pin")]);
    expect((await openByPin("nessa")).status).toBe(401);
    const open = await signIn("nessa");
    expect((await tablet().get("/api/me", asked("nessa", open))).status).toBe(200);
    // The PIN of before is none of this session's until it is chosen again.
    expect((await openByPin("nessa")).body.error.code).toBe("wrong-pin");
  });
});

describe("what was written while its author was in front", () => {
  const { seed } = pins.odile;
  it("is taken under their word, also with its clock put right, and without it is not", async () => {
    const entry = snag("Bow cleat loose");
    expect((await post([entry])).body.error.code).toBe("pin-needed");
    expect(
      (await post([entry], { proofs: { [entry.id]: signSent(pins.nessa.seed, describeEntry(entry as never)) } }))
        .status,
    ).toBe(401);
    const proofs = { [entry.id]: signSent(seed, describeEntry(entry as never)) };
    const other = snag("Not hers");
    expect((await post([entry, other], { proofs })).status).toBe(401);
    expect((await post([{ ...entry, note: "Bow cleat fine" }], { proofs })).status).toBe(401);
    expect((await post([{ ...entry, id: other.id }], { proofs: { [other.id]: proofs[entry.id] } })).status).toBe(401);
    const corrected = { ...entry, at: new Date(nowMs + 5000).toISOString(), clockMs: 5000 };
    expect((await post([corrected], { proofs })).body.stored).toEqual([entry.id]);
  });

  it("so are hours and photos, by name, place and bytes", async () => {
    const reading = { id: ulid(nowMs), engine: "port", date: store.services.clock.today(), hours: 31, source: "phone" };
    const proof = signSent(seed, describePost("addReading", { boat: "w097" }, reading));
    const send = (boat: string, body: object, word: string) =>
      tablet().send("POST", `/api/boats/${boat}/readings`, body, { ...asked("odile"), "Ravik-Proof": word });
    expect((await send("w097", { ...reading, hours: 310 }, proof)).status).toBe(401);
    expect((await send("w112", reading, proof)).status).toBe(401);
    expect((await send("w097", reading, proof)).status).toBe(200);
    const bytes = Buffer.from(
      "/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wgALCAABAAEBAREA/8QAFBABAAAAAAAAAAAAAAAAAAAAAP/aAAgBAQABPxA=",
      "base64",
    );
    const put = (photo: string, word: string) =>
      fetch(`${store.address}/api/photos/${photo}`, {
        method: "PUT",
        body: bytes,
        headers: {
          cookie: tablet().cookie,
          origin: store.address,
          "content-type": "image/jpeg",
          "Ravik-Proof": word,
          ...asked("odile"),
        },
      });
    const word = signSent(seed, describePhoto("p-dock-1", hashBytes(bytes)));
    expect((await put("p-dock-2", word)).status).toBe(401);
    expect((await put("p-dock-1", "00")).status).toBe(401);
    expect((await put("p-dock-1", word)).status).not.toBe(401);
    // Anything else they may do wants their PIN.
    expect((await tablet().send("POST", "/api/pin/challenge", {}, asked("odile"))).status).toBe(200);
    expect((await tablet().get("/api/deliveries/d-w118", { ...asked("odile"), "Ravik-Proof": word })).status).toBe(401);
  });
});
