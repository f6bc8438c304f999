import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

const done = { done: true as const };

export function routeSheets(router: Router, { auth, sheetService }: Services) {
  router.post(
    endpoints.addBoat.path,
    serve(endpoints.addBoat, auth, async ({ body }) => ({ boat: await sheetService.add(body) })),
  );
  router.put(
    endpoints.setStock.path,
    serve(endpoints.setStock, auth, async ({ params, body }) => {
      await sheetService.setStock(params.boat, body);
      return done;
    }),
  );
  router.post(
    endpoints.importBoats.path,
    serve(endpoints.importBoats, auth, ({ body }) => sheetService.importStock(body.boats)),
  );
  router.get(
    endpoints.rig.path,
    serve(endpoints.rig, auth, ({ params }) => sheetService.describe(params.boat)),
  );
  router.put(
    endpoints.setRig.path,
    serve(endpoints.setRig, auth, async ({ params, body }) => ({
      version: await sheetService.save(params.boat, body),
    })),
  );
  router.get(
    endpoints.templates.path,
    serve(endpoints.templates, auth, () => sheetService.listTemplates()),
  );
  router.get(
    endpoints.template.path,
    serve(endpoints.template, auth, ({ params }) => sheetService.describeTemplate(params.template)),
  );
  router.put(
    endpoints.setTemplate.path,
    serve(endpoints.setTemplate, auth, async ({ params, body }) => {
      await sheetService.saveTemplate(params.template, body.name, body.rig);
      return done;
    }),
  );
  router.delete(
    endpoints.removeTemplate.path,
    serve(endpoints.removeTemplate, auth, async ({ params }) => {
      await sheetService.removeTemplate(params.template);
      return done;
    }),
  );
}
