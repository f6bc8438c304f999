import { bodyParser } from "@koa/bodyparser";
import type { Context, Middleware, Next } from "koa";
import type { z } from "zod";
import {
  type AnswerOf,
  type AuditKind,
  type BodyOf,
  type Endpoint,
  endpoints,
  type ParamsOf,
  type QueryOf,
} from "../api/index.ts";
import { formatIssues } from "../core/compute.ts";
import { describeEntry, describePhoto, describePost, isSent } from "../core/pin/index.ts";
import { findUnfit } from "../core/text/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { sayAddress } from "./canonical.ts";
import type { Clock } from "./clock.ts";
import { Failure } from "./failure.ts";
import type { TakeRate } from "./rates.ts";
import type { Audit } from "./repositories/audit.ts";
import type { OwnerLinks } from "./repositories/ownerLinks.ts";
import type { Person } from "./repositories/people.ts";
import type { Session, Sessions } from "./repositories/sessions.ts";
import { hashBytes } from "./services/bundleFile.ts";
import { findOpenWord, findToken } from "./signIn/cookies.ts";
import type { Pins } from "./signIn/pins.ts";
import type { StoreAddress } from "./storeAddress.ts";
import type { TakeTurn } from "./turns.ts";

export interface Asked<E extends Endpoint> {
  readonly params: ParamsOf<E>;
  readonly query: QueryOf<E>;
  readonly body: BodyOf<E>;
  /** Who asks; the nobody of a public endpoint has an empty id. */
  readonly user: Person;
  /** The session they ask in; of a public endpoint there is none. */
  readonly session: Session | null;
  readonly ctx: Context;
}

/** What deciding who asks needs. */
export interface AuthContext {
  readonly sessions: Pick<Sessions, "find">;
  readonly audit: Pick<Audit, "add">;
  readonly ownerLinks: Pick<OwnerLinks, "find">;
  /** Opens the sessions of shared tablets. */
  readonly pins: Pick<Pins, "isOpen">;
  readonly clock: Clock;
  /** Whom somebody turns to whose link has ended. */
  readonly findStore: () => Promise<{ readonly store: string; readonly phone: string }>;
  /** So much may be asked by one in a while. */
  readonly takeRate: TakeRate;
  /** Large bodies are taken one after the other: several at once would take time and memory from everybody else. */
  readonly takeTurn: TakeTurn;
  /** Papers are printed one after the other. */
  readonly takePaper: TakeTurn;
}

const nobody = {
  user: {
    id: "",
    login: "",
    name: "",
    role: "sales",
    isOff: false,
    needsSecond: false,
    hasSecond: false,
    language: "en",
  },
  session: null,
} as const satisfies { user: Person; session: null };

/**
 * One endpoint as middleware: who may ask, what was asked, the answer. Nothing of a body is read before it is known that they
 * may ask. Answers of endpoints without one set ctx.body.
 */
export function serve<E extends Endpoint>(
  endpoint: E,
  auth: AuthContext,
  answer: (asked: Asked<E>) => Promise<AnswerOf<E>> | AnswerOf<E>,
): Middleware {
  return async (ctx: Context) => {
    ctx.state.endpoint = endpoint;
    ctx.state.bodyLimit = endpoint.bodyLimit ?? usualBody;
    // What is private stays out of the browser's own cache: it would outlive the session that could read it.
    ctx.set("Cache-Control", "no-store");
    const { user, session } =
      endpoint.admits === "public"
        ? await admitLink(ctx, endpoint, auth)
        : await admit(ctx, endpoint, endpoint.admits, auth);
    const asker = user.id === "" ? `link ${String((ctx.params as { token?: string }).token)} ${ctx.ip}` : user.id;
    await auth.takeRate(asker, endpoint);
    const go = async () => {
      if (endpoint.body !== null) await readJson[endpoint.bodyLimit ?? usualBody](ctx, async () => undefined);
      const body = endpoint.body === null ? undefined : parse(endpoint.body, ctx.request.body ?? {}, "");
      if (endpoint.body !== null) checkProof(ctx, endpoint);
      const params = parse(endpoint.params, ctx.params, "path");
      const query = parse(endpoint.query, ctx.query, "query");
      const value = await answer({ params, query, body, user, session, ctx } as Asked<E>);
      if (endpoint.audit !== undefined) await note(endpoint, endpoint.audit, { user, params, body }, auth);
      if (endpoint.answer !== null) ctx.body = value;
    };
    if (endpoint.isPaper) await auth.takePaper(asker, go);
    else await (endpoint.bodyLimit === undefined ? go() : auth.takeTurn(asker, go));
  };
}

const proofHeader = "Ravik-Proof";

interface Proved {
  readonly entries?: unknown;
  readonly proofs?: Readonly<Record<string, unknown>>;
}

/** What was sent, as it came, stands under the word of whoever it says wrote it. Failure: `pin-needed`. */
function checkProof(ctx: Context, endpoint: Endpoint) {
  const { mustProve: key } = ctx.state as { mustProve?: string };
  if (key === undefined) return;
  const body = (ctx.request.body ?? {}) as Proved;
  const isProvedEntry = (entry: Entry) => {
    const proof = body.proofs?.[entry?.id];
    return typeof proof === "string" && isSent(key, describeEntry(entry), proof);
  };
  // By what the endpoint takes, not by what somebody chose to send.
  const isProved =
    names.get(endpoint) === "addEntries"
      ? (body.entries as readonly Entry[]).every(isProvedEntry)
      : isSent(key, describePost(names.get(endpoint)!, ctx.params as object, body), ctx.get(proofHeader));
  if (!isProved) throw new Failure("pin-needed");
}
const names = new Map(Object.entries(endpoints).map(([name, each]) => [each as Endpoint, name]));

const usualBody = "1mb";
const createReader = (jsonLimit: string) => bodyParser({ enableTypes: ["json"], jsonLimit, jsonStrict: false });
const readJson = { [usualBody]: createReader(usualBody), "5mb": createReader("5mb") } as const;

/** What is public needs no session; what is asked by an owner's link needs one that opens. */
async function admitLink(ctx: Context, endpoint: Endpoint, { ownerLinks, findStore, clock }: AuthContext) {
  const { token } = ctx.params as { token?: string };
  if (
    token !== undefined &&
    endpoint.path.startsWith("/api/owner/") &&
    (await ownerLinks.find(token, clock.now())) === null
  )
    throw new Failure("link-ended", await findStore());
  return nobody;
}

async function admit(
  ctx: Context,
  endpoint: Endpoint,
  roles: readonly string[],
  { sessions, pins, clock }: AuthContext,
) {
  const token = findToken(ctx);
  const found = token === null ? null : await sessions.find(token, clock.nowMs());
  if (found === null) throw new Failure("sign-in-needed");
  const { person, session } = found;
  if (session.deviceId !== null && endpoint.withoutPin !== true && !pins.isOpen(session.id, findOpenWord(ctx))) {
    // What was written while its author was in front bears their word: it is looked at once it is read.
    if (endpoint.takesProof !== true || session.pinKey === null) throw new Failure("pin-needed");
    ctx.state.mustProve = session.pinKey;
  }
  if (person.needsSecond && !person.hasSecond && endpoint.withoutSecond !== true) throw new Failure("second-missing");
  if (!roles.includes(person.role)) throw new Failure("not-allowed", { role: person.role, admits: roles });
  return { user: person, session };
}

/** Who did it, what, and to what: the parts of its address, and of what was sent what is short and no secret. */
async function note(
  { summary, unsaid = [] }: Endpoint,
  kind: AuditKind,
  { user, params, body }: { user: Person; params: unknown; body: unknown },
  { audit, clock }: AuthContext,
) {
  const isSaid = ([name, value]: [string, unknown]) =>
    !secrets.has(name) &&
    !unsaid.includes(name) &&
    value !== "" &&
    ["string", "number", "boolean"].includes(typeof value);
  const said = [params, body]
    .flatMap((part) => Object.entries(part ?? {}))
    .filter(isSaid)
    .map(([name, value]) => `${name} ${String(value)}`);
  await audit.add({ at: clock.now(), by: user.id, name: user.name, kind, what: summary, about: said.join(", ") });
}
const secrets: ReadonlySet<string> = new Set(["password", "old", "code", "token"]);

function parse(schema: z.ZodType, value: unknown, where: string): unknown {
  const unfit = findUnfit(value);
  if (unfit !== null) {
    const path = [where, unfit.path].filter((part) => part !== "").join(".");
    throw new Failure("invalid-input", { issues: [{ path, message: unfit.message }] });
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const issues = formatIssues(parsed.error).map((issue) => ({
    ...issue,
    path: [where, issue.path].filter((part) => part !== "").join("."),
  }));
  throw new Failure("invalid-input", { issues });
}

/** The outermost layer: every refusal becomes a status and `{error:{code,…}}`; the unknown is logged and told nothing of. */
export function answerErrors(log: { error(facts: object, message: string): void }): Middleware {
  return async (ctx: Context, next: Next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith("/api/"))
        throw new Failure("not-found", { what: "address", id: ctx.path });
    } catch (error) {
      const failure = toFailure(error, ctx);
      if (failure.code === "unexpected") log.error({ err: error, path: sayAddress(ctx) }, "unexpected error");
      ctx.set("Cache-Control", "no-store");
      ctx.status = failure.status;
      ctx.body = { error: { ...failure.facts, code: failure.code } };
    }
  };
}

function toFailure(error: unknown, ctx: Context): Failure {
  if (error instanceof Failure) return error;
  const status = (error as { status?: unknown }).status;
  // What the built files do not hold, and would rather not be asked.
  if (status === 403 || status === 404) return new Failure("not-found", { what: "address", id: ctx.path });
  if (status === 413)
    return new Failure("too-large", { limit: String(ctx.state.bodyLimit ?? usualBody).replace("mb", " MB") });
  if (status === 415) return new Failure("not-json");
  // What says it is packed and is not.
  if (String((error as { code?: unknown }).code).startsWith("Z_"))
    return new Failure("malformed-json", { message: "it cannot be unpacked" });
  if (status === 400) return new Failure("malformed-json", { message: (error as Error).message });
  return new Failure("unexpected");
}

const uploads = Object.values(endpoints).flatMap((each: Endpoint) =>
  each.upload === undefined
    ? []
    : [
        {
          method: each.method,
          path: new RegExp(`^${each.path.replace(/:\w+/g, "[^/]+")}$`),
          types: [...each.upload],
        },
      ],
);
const takesFile = (ctx: Context) =>
  uploads.some(({ method, path, types }) => method === ctx.method && path.test(ctx.path) && ctx.is(...types) !== false);

/**
 * The body of an upload as it came, at most `mostBytes` of it; on a shared tablet under its author's word. Failure: `too-large`,
 * `pin-needed`.
 */
export async function readUpload(ctx: Context, mostBytes: number): Promise<Buffer> {
  const bytes = await readBytes(ctx, mostBytes);
  const { mustProve: key } = ctx.state as { mustProve?: string };
  const { photo = "" } = ctx.params as { photo?: string };
  if (key !== undefined && !isSent(key, describePhoto(photo, hashBytes(bytes)), ctx.get(proofHeader)))
    throw new Failure("pin-needed");
  return bytes;
}

async function readBytes(ctx: Context, mostBytes: number): Promise<Buffer> {
  const tooLarge = () => new Failure("too-large", { limit: `${mostBytes / 1_000_000} MB` });
  if ((ctx.request.length ?? 0) > mostBytes) throw tooLarge();
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of ctx.req) {
    size += chunk.length;
    if (size > mostBytes) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/**
 * Every write must come from this very address (Origin, scheme and all) or from the one the store is known by, so that no
 * other site can send one with our cookie. A write without an Origin is refused too: browsers always send it, and a program can.
 */
export function checkOrigin(storeAddress: Pick<StoreAddress, "find">): Middleware {
  return async (ctx: Context, next: Next) => {
    if (!["GET", "HEAD", "OPTIONS"].includes(ctx.method)) {
      const origin = ctx.get("Origin");
      const expected = `${ctx.protocol}://${ctx.host}`;
      if (origin !== expected && origin !== storeAddress.find())
        throw new Failure("wrong-origin", { got: origin, expected });
      if (!ctx.is("application/json") && !takesFile(ctx)) throw new Failure("not-json");
    }
    await next();
  };
}
