import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

const done = { done: true as const };

export function routeTowing(router: Router, { auth, towingService }: Services) {
  router.get(
    endpoints.towing.path,
    serve(endpoints.towing, auth, ({ params }) => towingService.describe(params.boat)),
  );
  router.put(
    endpoints.setVehicle.path,
    serve(endpoints.setVehicle, auth, async ({ params, body }) => {
      await towingService.setVehicle(params.boat, body);
      return done;
    }),
  );
  router.post(
    endpoints.addLaunch.path,
    serve(endpoints.addLaunch, auth, async ({ params, body, user }) => {
      await towingService.addLaunch(params.boat, { ...body, by: user.name });
      return done;
    }),
  );
  router.delete(
    endpoints.removeLaunch.path,
    serve(endpoints.removeLaunch, auth, async ({ params }) => {
      await towingService.removeLaunch(params.boat, params.launch);
      return done;
    }),
  );
  router.put(
    endpoints.setRamp.path,
    serve(endpoints.setRamp, auth, async ({ params, body }) => {
      await towingService.setRamp({ ...body, id: params.ramp });
      return done;
    }),
  );
  router.put(
    endpoints.setTowRules.path,
    serve(endpoints.setTowRules, auth, async ({ body }) => {
      await towingService.setRules(body);
      return done;
    }),
  );
  router.delete(
    endpoints.removeTowRules.path,
    serve(endpoints.removeTowRules, auth, async ({ params }) => {
      await towingService.removeRules(params.rules);
      return done;
    }),
  );
  router.delete(
    endpoints.removeRamp.path,
    serve(endpoints.removeRamp, auth, async ({ params }) => {
      await towingService.removeRamp(params.ramp);
      return done;
    }),
  );
}
