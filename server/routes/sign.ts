import type Router from "@koa/router";
import { endpoints, type Me } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";
import type { Person } from "../repositories/people.ts";
import type { Session } from "../repositories/sessions.ts";
import { frontHeader } from "../signIn/cookies.ts";

/** `open`: what opens the session that has just begun on a shared tablet. */
export type DescribePerson = (person: Person, isShared: boolean, open?: string | null) => Promise<Me>;

/** What the screens know of who is signed in. */
export function createDescriber({ settings, messages, epochs, clock }: Services): DescribePerson {
  return async (person, isShared, open = null) => {
    const { store, region, allowers } = await settings.read();
    return {
      id: person.id,
      name: person.name,
      role: person.role,
      store,
      isCarried: messages.isCarried,
      isHeld: await epochs.isHeld(),
      timeZone: clock.timeZone,
      region,
      allowers,
      hasSecond: person.hasSecond,
      owesSecond: person.needsSecond && !person.hasSecond,
      isShared,
      open,
      language: person.language,
    };
  };
}

/** Elsewhere no PIN stands before a session. Failure: `not-found`. */
function mustBeShared(session: Session | null): Session {
  if (session === null || session.deviceId === null) throw new Failure("not-found", { what: "shared tablet" });
  return session;
}

/** Sign-in, sign-out, who am I. */
export function routeSign(router: Router, services: Services, describeMe: DescribePerson) {
  const { auth, people, settings, sessions, pins, signInService, demoAccounts } = services;
  router.get(
    endpoints.signInOptions.path,
    serve(endpoints.signInOptions, auth, async ({ ctx }) => {
      const device = await signInService.findDevice(ctx);
      return {
        store: (await settings.read()).store,
        isNew: (await people.count()) === 0,
        sharedAs: device?.name ?? null,
        held: await signInService.listHeldNow(ctx),
        demo: demoAccounts?.map(({ login, password, name, role }) => ({ login, password, name, role })) ?? null,
      };
    }),
  );
  router.post(
    endpoints.signIn.path,
    serve(endpoints.signIn, auth, async ({ body, ctx }) => {
      const { account, open } = await signInService.signIn(ctx, body);
      return describeMe(account, open !== null, open);
    }),
  );
  router.post(
    endpoints.signOut.path,
    serve(endpoints.signOut, auth, async ({ ctx, user }) => {
      await signInService.signOut(ctx, user);
      // Not "storage": that would throw away what is not synced yet.
      ctx.set("Clear-Site-Data", '"cache"');
      return { done: true as const };
    }),
  );
  router.post(
    endpoints.beginPin.path,
    serve(endpoints.beginPin, auth, ({ session }) => ({ challenge: pins.challenge(mustBeShared(session).id) })),
  );
  router.post(
    endpoints.openPin.path,
    serve(endpoints.openPin, auth, async ({ session, body }) => ({
      open: await pins.prove(mustBeShared(session), body.challenge, body.proof),
    })),
  );
  router.put(
    endpoints.setPin.path,
    serve(endpoints.setPin, auth, async ({ session, body }) => {
      await sessions.setPinKey(mustBeShared(session).id, body.key);
      return { done: true as const };
    }),
  );
  router.get(
    endpoints.me.path,
    serve(endpoints.me, auth, ({ user, session, ctx }) => {
      // What was saved of one person is no answer for another.
      ctx.vary(frontHeader);
      return describeMe(user, session?.deviceId != null);
    }),
  );
}
