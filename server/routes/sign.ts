import type Router from "@koa/router";
import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve, sessionCookie } from "../http.ts";
import type { Person } from "../repositories/people.ts";
import { isPassword } from "../signIn/password.ts";

const nobodysPassword = { salt: "00", hash: "0".repeat(64) };

/** Sign-in, sign-out, who am I. Ten wrong tries an address and name in ten minutes, then a wait. */
export function routeSign(router: Router, services: Services) {
  const { people, settings, messages, clock, demoAccounts } = services;
  const failures = new RateLimiterMemory({ points: 10, duration: 600 });
  const describePerson = async (person: Person) => ({
    id: person.id,
    name: person.name,
    role: person.role,
    store: (await settings.read()).store,
    isCarried: messages.isCarried,
    timeZone: clock.timeZone,
  });
  router.get(
    endpoints.signInOptions.path,
    serve(endpoints.signInOptions, services.auth, async () => ({
      store: (await settings.read()).store,
      demo: demoAccounts?.map(({ login, password, name, role }) => ({ login, password, name, role })) ?? null,
    })),
  );
  router.post(
    endpoints.signIn.path,
    serve(endpoints.signIn, services.auth, async ({ body, ctx }) => {
      const key = `${ctx.ip} ${body.login.trim().toLowerCase()}`;
      const tries = await failures.get(key);
      if (tries !== null && tries.remainingPoints <= 0)
        throw new Failure("too-many-tries", { waitS: Math.ceil(tries.msBeforeNext / 1000) });
      const person = await people.findByLogin(body.login);
      const isRight = await isPassword(body.password, person ?? nobodysPassword);
      if (person === null || !isRight) {
        await failures.consume(key).catch((error: unknown) => {
          if (!(error instanceof RateLimiterRes)) throw error;
        });
        throw new Failure("wrong-sign-in");
      }
      await failures.delete(key);
      const { token, maxAgeMs } = await people.beginSession(person.id, clock.nowMs());
      ctx.cookies.set(sessionCookie, token, {
        httpOnly: true,
        sameSite: "strict",
        secure: ctx.secure,
        maxAge: maxAgeMs,
        overwrite: true,
      });
      return describePerson(person);
    }),
  );
  router.post(
    endpoints.signOut.path,
    serve(endpoints.signOut, services.auth, async ({ ctx }) => {
      const token = ctx.cookies.get(sessionCookie);
      if (token !== undefined) await people.endSession(token);
      ctx.cookies.set(sessionCookie, null);
      // Not "storage": that would throw away what is not synced yet.
      ctx.set("Clear-Site-Data", '"cache"');
      return { done: true as const };
    }),
  );
  router.get(
    endpoints.me.path,
    serve(endpoints.me, services.auth, ({ user }) => describePerson(user)),
  );
}
