import { existsSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import Router from "@koa/router";
import Koa from "koa";
import compress from "koa-compress";
import helmet from "koa-helmet";
import serveStatic from "koa-static";
import type { Logger } from "pino";
import { createOpenApi, endpoints } from "../api/index.ts";
import { checkAddress, sayAddress } from "./canonical.ts";
import type { Services } from "./createServices.ts";
import { answerErrors, checkOrigin, serve } from "./http.ts";
import { routeBoats } from "./routes/boats.ts";
import { routeBundles } from "./routes/bundles.ts";
import { routeBuyers } from "./routes/buyers.ts";
import { routeCare } from "./routes/care.ts";
import { routeCompute } from "./routes/compute.ts";
import { routeDeliveries } from "./routes/deliveries.ts";
import { routeFiles } from "./routes/files.ts";
import { routeKeeping } from "./routes/keeping.ts";
import { routeLibrary } from "./routes/library.ts";
import { routeOwner } from "./routes/owner.ts";
import { routePeople } from "./routes/people.ts";
import { routePhotos } from "./routes/photos.ts";
import { routeSheets } from "./routes/sheets.ts";
import { createDescriber, routeSign } from "./routes/sign.ts";
import { routeTowing } from "./routes/towing.ts";
import { routeTrips } from "./routes/trips.ts";
import { findToken } from "./signIn/cookies.ts";

export interface AppOptions {
  readonly version: string;
  /** The built web app; null serves the API alone. */
  readonly webFolder: string | null;
  readonly log: Logger;
  /** A reverse proxy stands before this server: what it says of who asks, and how, is believed. */
  readonly hasProxy?: boolean;
}

const yearMs = 365 * 24 * 60 * 60 * 1000;

/** Everything a page uses comes from here. */
const securityHeaders: Parameters<typeof helmet>[0] = {
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", "data:", "blob:"],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      workerSrc: ["'self'", "blob:"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  hsts: false,
};

/** A reader that went away in mid-answer: no fault of ours. */
const leftByReader: ReadonlySet<string> = new Set(["EPIPE", "ECONNRESET", "ERR_STREAM_PREMATURE_CLOSE"]);

/** Wires the server: errors outermost, then headers, origin, routes, and the web app for every other address. */
export function createApp(services: Services, options: AppOptions): Koa {
  const app = new Koa({ proxy: options.hasProxy ?? false, maxIpsCount: 1 });
  app.on("error", (error: NodeJS.ErrnoException) => {
    if (!leftByReader.has(error.code ?? "")) options.log.error({ err: error }, "connection error");
  });
  app.use(async (ctx, next) => {
    const startMs = performance.now();
    await next();
    const tookMs = Math.round(performance.now() - startMs);
    options.log.info({ method: ctx.method, path: sayAddress(ctx), status: ctx.status, tookMs }, "request");
  });
  app.use(answerErrors(options.log));
  app.use(helmet(securityHeaders));
  app.use(async (ctx, next) => {
    // Whoever takes nothing that is not packed gets it plain all the same: an answer is better than none.
    if (/identity\s*;\s*q=0(?:\.0*)?(?:$|[,\s])/i.test(ctx.get("Accept-Encoding")))
      delete ctx.headers["accept-encoding"];
    await next();
  });
  app.use(compress());
  app.use(checkAddress());
  app.use(checkOrigin(services.storeAddress));

  const router = new Router({ sensitive: true, strict: true });
  routeServer(router, services, options.version);
  const describeMe = createDescriber(services);
  routeSign(router, services, describeMe);
  routePeople(router, services, describeMe);
  routeBoats(router, services);
  routeCare(router, services);
  routeSheets(router, services);
  routeTowing(router, services);
  routeTrips(router, services);
  routeLibrary(router, services);
  routePhotos(router, services);
  routeFiles(router, services);
  routeDeliveries(router, services);
  routeOwner(router, services);
  routeBundles(router, services);
  routeBuyers(router, services);
  routeKeeping(router, services);
  routeCompute(router, services);
  app.use(router.routes());
  if (options.webFolder !== null) serveWeb(app, options.webFolder);
  return app;
}

/** The server about itself: whether it can work, what time it has, what it can be asked. */
function routeServer(router: Router, services: Services, version: string) {
  router.get(
    endpoints.health.path,
    serve(endpoints.health, services.auth, async ({ ctx }) => {
      const open = await services.database.isOpen();
      const fault = open ? await services.database.findFault() : null;
      const ready = open && fault === null;
      if (!ready) ctx.status = 503;
      return {
        ready,
        version,
        database: { open, migrations: services.database.migrationsRun, fault },
        jobs: { failed: open ? await services.jobs.countFailed() : 0 },
        details: open && (await isOwner(ctx, services)) ? await readDetails(services) : null,
      };
    }),
  );
  router.get(
    endpoints.clock.path,
    serve(endpoints.clock, services.auth, async () => ({
      nowMs: services.clock.nowMs(),
      epoch: await services.epochs.findId(),
    })),
  );
  router.get(
    endpoints.openapi.path,
    serve(endpoints.openapi, services.auth, () => createOpenApi(version)),
  );
}

async function isOwner(ctx: Koa.Context, { sessions, clock }: Services): Promise<boolean> {
  const token = findToken(ctx);
  return token !== null && (await sessions.find(token, clock.nowMs()))?.person.role === "owner";
}

const hourMs = 3_600_000;

async function readDetails({ database, keeper, epochs, soundness, clock }: Services) {
  const { folder, failed, backups } = keeper.read();
  const lastAt = backups[0]?.at ?? null;
  return {
    disk: database.measureDisk(),
    backup: {
      folder,
      lastAt,
      ageH: lastAt === null ? null : Math.round((clock.nowMs() - Date.parse(lastAt)) / hourMs),
      failed: failed?.why ?? null,
    },
    isHeld: await epochs.isHeld(),
    damage: soundness.read(),
  };
}

/** Built files by name; every other address gets the app, which knows its own screens. */
function serveWeb(app: Koa, folder: string) {
  if (!existsSync(join(folder, "index.html"))) throw new Error(`web app: expected a build in ${folder}, found none`);
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith("/api/")) return;
    await next();
  });
  app.use(
    serveStatic(folder, {
      index: "index.html",
      setHeaders: (response, path) => {
        const isHashed = path.includes(`${join(folder, "assets")}`);
        response.setHeader("Cache-Control", isHashed ? `public, max-age=${yearMs / 1000}, immutable` : "no-cache");
      },
    }),
  );
  app.use(async (ctx) => {
    if (ctx.method !== "GET" && ctx.method !== "HEAD") return;
    ctx.type = "html";
    ctx.set("Cache-Control", "no-cache");
    ctx.body = await readFile(join(folder, "index.html"));
  });
}
