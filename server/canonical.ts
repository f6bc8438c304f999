import type { Context, Middleware, Next } from "koa";
import type { Endpoint } from "../api/index.ts";
import { Failure } from "./failure.ts";

/** What is never written as a code in an address (RFC 3986, 2.3), and slashes, which a code would hide from whoever matches. */
const writtenPlain = /^[A-Za-z0-9\-._~/\\]$/;
/** First parts of an address that stand for something: in any other letters they would be let through as a screen. */
const first = new Set(["api", "o"]);

/**
 * Whether the path of an address stands in its one form: one slash between parts, no `.` or `..`, no code where a letter can stand, no code
 * that is none, `api` and `o` in small letters.
 *
 * @example "/api/today" → true; "/API/today", "/api//today", "/%61pi/today", "/api/%2e%2e/today" → false
 */
export function isCanonical(path: string): boolean {
  if (!path.startsWith("/") || path.includes("//") || path.includes("\\")) return false;
  const parts = path.slice(1).split("/");
  if (parts.some((part) => part === "." || part === "..")) return false;
  try {
    decodeURIComponent(path);
  } catch {
    return false;
  }
  for (const [code] of path.matchAll(/%[0-9A-Fa-f]{2}/g))
    if (writtenPlain.test(String.fromCharCode(Number.parseInt(code.slice(1), 16)))) return false;
  return first.has(parts[0]!) || !first.has(parts[0]!.toLowerCase());
}

/** Every address has one form; any other is the address of nothing, whatever stands behind it. */
export function checkAddress(): Middleware {
  return async (ctx: Context, next: Next) => {
    if (!isCanonical(ctx.path)) throw new Failure("not-found", { what: "address", id: ctx.path });
    await next();
  };
}

/** What of an endpoint's params opens something by itself. */
const opening: ReadonlySet<string> = new Set(["token"]);

/**
 * The address of a request as it may stand in a log, by the endpoint that answered it: what opens an owner's page or the
 * store's calendar does not. What no endpoint has may hold anything mistyped, and is not said.
 */
export function sayAddress(ctx: Context): string {
  const { endpoint } = ctx.state as { endpoint?: Endpoint };
  if (endpoint !== undefined) {
    const params = ctx.params as Record<string, string>;
    return endpoint.path.replace(/:(\w+)/g, (_, name: string) => (opening.has(name) ? "…" : params[name]!));
  }
  return isCanonical(ctx.path) && !/^\/(?:api|o)(?:\/|$)/.test(ctx.path) ? ctx.path : sayFirst(ctx.path);
}

const sayFirst = (path: string) => `${/^\/(?:api|o)\//.exec(path)?.[0] ?? "/"}…`;
