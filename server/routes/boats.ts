import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

export function routeBoats(router: Router, { auth, boatService }: Services) {
  router.get(
    endpoints.today.path,
    serve(endpoints.today, auth, ({ user }) => boatService.today(user.role)),
  );
  router.get(
    endpoints.owed.path,
    serve(endpoints.owed, auth, () => boatService.owed()),
  );
  router.get(
    endpoints.boats.path,
    serve(endpoints.boats, auth, ({ query }) => boatService.list(query)),
  );
  router.get(
    endpoints.hulls.path,
    serve(endpoints.hulls, auth, async () => ({ hulls: await boatService.listHulls() })),
  );
  router.get(
    endpoints.boat.path,
    serve(endpoints.boat, auth, ({ params }) => boatService.describe(params.boat)),
  );
}
