import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

const done = { done: true as const };

export function routeSheets(router: Router, { door, sheetDesk }: Services) {
  router.post(
    endpoints.addBoat.path,
    serve(endpoints.addBoat, door, async ({ body }) => ({ boat: await sheetDesk.add(body) })),
  );
  router.post(
    endpoints.importBoats.path,
    serve(endpoints.importBoats, door, ({ body }) => sheetDesk.importStock(body.boats)),
  );
  router.get(
    endpoints.rig.path,
    serve(endpoints.rig, door, ({ params }) => sheetDesk.describe(params.boat)),
  );
  router.put(
    endpoints.setRig.path,
    serve(endpoints.setRig, door, async ({ params, body }) => ({ version: await sheetDesk.save(params.boat, body) })),
  );
  router.get(
    endpoints.templates.path,
    serve(endpoints.templates, door, () => sheetDesk.listTemplates()),
  );
  router.get(
    endpoints.template.path,
    serve(endpoints.template, door, ({ params }) => sheetDesk.describeTemplate(params.template)),
  );
  router.put(
    endpoints.setTemplate.path,
    serve(endpoints.setTemplate, door, async ({ params, body }) => {
      await sheetDesk.saveTemplate(params.template, body.name, body.rig);
      return done;
    }),
  );
  router.delete(
    endpoints.removeTemplate.path,
    serve(endpoints.removeTemplate, door, async ({ params }) => {
      await sheetDesk.removeTemplate(params.template);
      return done;
    }),
  );
}
