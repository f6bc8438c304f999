import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

export function routeBoats(router: Router, { door, boatService }: Services) {
  router.get(
    endpoints.today.path,
    serve(endpoints.today, door, () => boatService.today()),
  );
  router.get(
    endpoints.owed.path,
    serve(endpoints.owed, door, () => boatService.owed()),
  );
  router.get(
    endpoints.boats.path,
    serve(endpoints.boats, door, () => boatService.list()),
  );
  router.get(
    endpoints.boat.path,
    serve(endpoints.boat, door, ({ params }) => boatService.describe(params.boat)),
  );
}
