import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { listRights } from "../../api/rights.ts";
import type { Services } from "../createServices.ts";
import { writeCsv } from "../csv.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import { nameThings } from "../services/auditNames.ts";
import { setDevice } from "../signIn/cookies.ts";
import type { DescribePerson } from "./sign.ts";

const done = { done: true } as const;
const mostLines = 200;
const mostCsvLines = 100_000;

/** The store's people, from the first one on. */
export function routePeople(router: Router, services: Services, describeMe: DescribePerson) {
  routeSetUp(router, services, describeMe);
  routeStaff(router, services);
  routeJoin(router, services, describeMe);
  routeOwn(router, services);
  routeAudit(router, services);
}

/** A new store: whoever holds the code its server printed says what it is and becomes its owner. */
function routeSetUp(router: Router, services: Services, describeMe: DescribePerson) {
  const { auth, signInService, setUpService } = services;
  router.post(
    endpoints.setUp.path,
    serve(endpoints.setUp, auth, async ({ body, ctx }) => {
      await signInService.takeCodeTry(ctx);
      const account = await setUpService.setUp(body);
      const open = await signInService.begin(ctx, account);
      return describeMe(account, open !== null, open);
    }),
  );
  router.get(
    endpoints.storeFacts.path,
    serve(endpoints.storeFacts, auth, () => setUpService.read()),
  );
  router.put(
    endpoints.setStoreFacts.path,
    serve(endpoints.setStoreFacts, auth, async ({ body }) => {
      await setUpService.change(body);
      return done;
    }),
  );
}

function routeStaff(router: Router, services: Services) {
  const { auth, staffService, signInService } = services;
  router.get(
    endpoints.staff.path,
    serve(endpoints.staff, auth, async ({ ctx }) =>
      staffService.describe((await signInService.findDevice(ctx))?.id ?? null),
    ),
  );
  router.get(
    endpoints.rights.path,
    serve(endpoints.rights, auth, () => ({
      jobs: listRights().map(({ job, rights }) => ({
        job,
        rights: rights.map(({ what, admits }) => ({ what, admits: [...admits] })),
      })),
    })),
  );
  router.post(
    endpoints.invite.path,
    serve(endpoints.invite, auth, ({ body, user }) => staffService.invite(body.name, body.role, user.id)),
  );
  router.delete(
    endpoints.removeInvite.path,
    serve(endpoints.removeInvite, auth, async ({ params }) => {
      await staffService.removeInvite(params.invite);
      return done;
    }),
  );
  router.put(
    endpoints.setPerson.path,
    serve(endpoints.setPerson, auth, async ({ params, body }) => {
      await staffService.change(params.person, body);
      return done;
    }),
  );
  router.post(
    endpoints.resetPerson.path,
    serve(endpoints.resetPerson, auth, ({ params, user }) => staffService.reset(params.person, user.id)),
  );
  router.post(
    endpoints.admitDevice.path,
    serve(endpoints.admitDevice, auth, async ({ body, user, ctx }) => {
      setDevice(ctx, await staffService.admitDevice(body.name, user.id));
      return done;
    }),
  );
  router.delete(
    endpoints.removeDevice.path,
    serve(endpoints.removeDevice, auth, async ({ params }) => {
      await staffService.removeDevice(params.device);
      return done;
    }),
  );
}

function routeJoin(router: Router, services: Services, describeMe: DescribePerson) {
  const { auth, staffService, signInService } = services;
  router.post(
    endpoints.joining.path,
    serve(endpoints.joining, auth, async ({ body, ctx }) => {
      await signInService.takeCodeTry(ctx);
      return staffService.describeInvite(body.code);
    }),
  );
  router.post(
    endpoints.join.path,
    serve(endpoints.join, auth, async ({ body, ctx }) => {
      await signInService.takeCodeTry(ctx);
      const account = await staffService.join(body.code, body);
      const open = await signInService.begin(ctx, account);
      return describeMe(account, open !== null, open);
    }),
  );
}

/** What everybody does with their own account. */
function routeOwn(router: Router, services: Services) {
  const { auth, staffService, signInService, sessions, clock } = services;
  router.put(
    endpoints.setPassword.path,
    serve(endpoints.setPassword, auth, async ({ body, user, session }) => {
      const account = await staffService.find(user.id);
      await signInService.confirm(account, body.old);
      await staffService.setPassword(account, body.password, session!.id);
      return done;
    }),
  );
  router.put(
    endpoints.setLanguage.path,
    serve(endpoints.setLanguage, auth, async ({ body, user }) => {
      await staffService.setLanguage(user.id, body.language);
      return done;
    }),
  );
  router.get(
    endpoints.sessions.path,
    serve(endpoints.sessions, auth, async ({ user, session }) => {
      const mine = await sessions.listOf(user.id, clock.nowMs());
      return {
        sessions: mine.map(({ id, device, deviceId, beganAtMs, seenAtMs }) => ({
          id,
          device,
          isShared: deviceId !== null,
          isThis: id === session!.id,
          beganAtMs,
          seenAtMs,
        })),
        recoveryLeft: (await staffService.find(user.id)).recovery.length,
      };
    }),
  );
  router.delete(
    endpoints.endSession.path,
    serve(endpoints.endSession, auth, async ({ params, user }) => {
      if (!(await sessions.end(params.session, user.id)))
        throw new Failure("not-found", { what: "session", id: params.session });
      return done;
    }),
  );
  router.post(
    endpoints.beginSecond.path,
    serve(endpoints.beginSecond, auth, async ({ body, user }) => {
      const account = await staffService.find(user.id);
      await signInService.confirm(account, body.password);
      return staffService.beginSecond(account);
    }),
  );
  router.put(
    endpoints.setSecond.path,
    serve(endpoints.setSecond, auth, async ({ body, user, ctx }) => {
      await signInService.takeCodeTry(ctx);
      return staffService.setSecond(await staffService.find(user.id), body.code);
    }),
  );
  router.post(
    endpoints.removeSecond.path,
    serve(endpoints.removeSecond, auth, async ({ body, user }) => {
      const account = await staffService.find(user.id);
      await signInService.confirm(account, body.password);
      await staffService.removeSecond(account);
      return done;
    }),
  );
}

function routeAudit(router: Router, services: Services) {
  const { auth, audit } = services;
  router.get(
    endpoints.audit.path,
    serve(endpoints.audit, auth, async ({ query: { find, before = null } }) => ({
      lines: await nameThings(services, await audit.list({ find, before, most: mostLines })),
    })),
  );
  router.get(
    endpoints.auditCsv.path,
    serve(endpoints.auditCsv, auth, async ({ query: { find, before = null }, ctx }) => {
      const lines = await nameThings(services, await audit.list({ find, before, most: mostCsvLines }));
      ctx.type = "text/csv";
      ctx.set("Content-Disposition", 'attachment; filename="audit.csv"');
      ctx.body = writeCsv(lines, ["number", "at", "by", "name", "kind", "what", "about"]);
      return undefined;
    }),
  );
}
