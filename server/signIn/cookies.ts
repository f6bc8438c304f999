import type { Context } from "koa";
import type { StoreKey } from "../storeKey.ts";

/** One a person: `ravik.nessa`. On a shared tablet there are several, and the page says who is in front. */
const sessionPrefix = "ravik.";
/** Who is in front, as the page says; kept in a cookie too, for pictures and streams, which carry no headers. */
export const frontCookie = "ravik-front";
export const frontHeader = "Ravik-Person";
const openHeader = "Ravik-Open";
const deviceCookie = "ravik-device";
/** Says that this person has signed in here before: guessing from elsewhere does not lock them out. */
const knownPrefix = "ravik-known.";
const knownMs = 180 * 86_400_000;
const deviceMs = 10 * 365 * 86_400_000;

const listCookies = (ctx: Context): ReadonlyMap<string, string> =>
  new Map(
    (ctx.get("Cookie") === "" ? [] : ctx.get("Cookie").split(/;\s*/)).map((pair) => {
      const at = pair.indexOf("=");
      return [pair.slice(0, at), pair.slice(at + 1)] as const;
    }),
  );

function set(ctx: Context, name: string, value: string | null, maxAgeMs = 0) {
  ctx.cookies.set(name, value, {
    httpOnly: true,
    sameSite: "strict",
    secure: ctx.secure,
    overwrite: true,
    ...(value === null ? {} : { maxAge: maxAgeMs }),
  });
}

/** The sessions this browser holds, by whose they are. */
export const listHeld = (ctx: Context): ReadonlyMap<string, string> =>
  new Map(
    [...listCookies(ctx)].flatMap(([name, token]) =>
      name.startsWith(sessionPrefix) && token !== "" ? [[name.slice(sessionPrefix.length), token] as const] : [],
    ),
  );

/** Whom the page names, and the word that opens their session on a shared tablet; in the cookie both are one: `nessa.1760000000000-0f…`. */
function readFront(ctx: Context): { readonly person: string; readonly word: string } {
  const named = ctx.get(frontHeader);
  if (named !== "") return { person: named, word: ctx.get(openHeader) };
  const said = listCookies(ctx).get(frontCookie) ?? "";
  const at = said.indexOf(".");
  return at < 0 ? { person: said, word: "" } : { person: said.slice(0, at), word: said.slice(at + 1) };
}

/** What opens the session this is asked in, on a shared tablet; empty without. */
export const findOpenWord = (ctx: Context): string => readFront(ctx).word;

/** The session this is asked in: of whom the page names, else of the only one here. Null for none. */
export function findToken(ctx: Context): string | null {
  const held = listHeld(ctx);
  const { person: front } = readFront(ctx);
  if (front !== "") return held.get(front) ?? null;
  const [only, another] = held.values();
  return another === undefined ? (only ?? null) : null;
}

export const setSession = (ctx: Context, person: string, token: string, maxAgeMs: number) =>
  set(ctx, sessionPrefix + person, token, maxAgeMs);
export const dropSession = (ctx: Context, person: string) => set(ctx, sessionPrefix + person, null);

export const findDeviceToken = (ctx: Context): string | null => listCookies(ctx).get(deviceCookie) ?? null;
export const setDevice = (ctx: Context, token: string) => set(ctx, deviceCookie, token, deviceMs);

const knownText = (person: string) => `has signed in here: ${person}`;

export const setKnown = (ctx: Context, person: string, storeKey: StoreKey) =>
  set(ctx, knownPrefix + person, storeKey.sign(knownText(person)), knownMs);
export const isKnown = (ctx: Context, person: string, storeKey: StoreKey): boolean => {
  const said = listCookies(ctx).get(knownPrefix + person);
  return said !== undefined && said === storeKey.sign(knownText(person));
};

/** What a session is used with, as far as its browser says; only to be recognised by whoever it belongs to. */
export function describeDevice(ctx: Context): string {
  const said = ctx.get("User-Agent");
  if (/tablet/i.test(said)) return "Tablet";
  if (/mobi/i.test(said)) return "Phone";
  return /mozilla/i.test(said) ? "Computer or tablet" : "Program";
}
