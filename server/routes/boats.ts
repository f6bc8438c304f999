import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

export function routeBoats(router: Router, { door, boatDesk }: Services) {
  router.get(
    endpoints.today.path,
    serve(endpoints.today, door, () => boatDesk.today()),
  );
  router.get(
    endpoints.owed.path,
    serve(endpoints.owed, door, () => boatDesk.owed()),
  );
  router.get(
    endpoints.boats.path,
    serve(endpoints.boats, door, () => boatDesk.list()),
  );
  router.get(
    endpoints.boat.path,
    serve(endpoints.boat, door, ({ params }) => boatDesk.describe(params.boat)),
  );
}
