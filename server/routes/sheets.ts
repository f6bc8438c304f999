import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

const done = { done: true as const };

export function routeSheets(router: Router, { door, sheetService }: Services) {
  router.post(
    endpoints.addBoat.path,
    serve(endpoints.addBoat, door, async ({ body }) => ({ boat: await sheetService.add(body) })),
  );
  router.post(
    endpoints.importBoats.path,
    serve(endpoints.importBoats, door, ({ body }) => sheetService.importStock(body.boats)),
  );
  router.get(
    endpoints.rig.path,
    serve(endpoints.rig, door, ({ params }) => sheetService.describe(params.boat)),
  );
  router.put(
    endpoints.setRig.path,
    serve(endpoints.setRig, door, async ({ params, body }) => ({
      version: await sheetService.save(params.boat, body),
    })),
  );
  router.get(
    endpoints.templates.path,
    serve(endpoints.templates, door, () => sheetService.listTemplates()),
  );
  router.get(
    endpoints.template.path,
    serve(endpoints.template, door, ({ params }) => sheetService.describeTemplate(params.template)),
  );
  router.put(
    endpoints.setTemplate.path,
    serve(endpoints.setTemplate, door, async ({ params, body }) => {
      await sheetService.saveTemplate(params.template, body.name, body.rig);
      return done;
    }),
  );
  router.delete(
    endpoints.removeTemplate.path,
    serve(endpoints.removeTemplate, door, async ({ params }) => {
      await sheetService.removeTemplate(params.template);
      return done;
    }),
  );
}
