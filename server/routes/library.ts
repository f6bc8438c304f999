import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { glossary } from "../../content/index.ts";
import { serve } from "../http.ts";
import type { Services } from "../services.ts";

const done = { done: true as const };

export function routeLibrary(router: Router, { door, libraryDesk }: Services) {
  router.get(
    endpoints.library.path,
    serve(endpoints.library, door, () => libraryDesk.describe()),
  );
  router.get(
    endpoints.glossary.path,
    serve(endpoints.glossary, door, () => ({ entries: glossary })),
  );
  router.put(
    endpoints.setTopic.path,
    serve(endpoints.setTopic, door, async ({ params, body, user }) => {
      await libraryDesk.edit([{ ...body, id: params.topic }], user.name);
      return done;
    }),
  );
  router.delete(
    endpoints.revertTopic.path,
    serve(endpoints.revertTopic, door, async ({ params }) => {
      await libraryDesk.revert(params.topic);
      return done;
    }),
  );
  router.post(
    endpoints.importTopics.path,
    serve(endpoints.importTopics, door, ({ body, user }) => libraryDesk.edit(body.topics, user.name)),
  );
  router.put(
    endpoints.setSchools.path,
    serve(endpoints.setSchools, door, async ({ body }) => {
      await libraryDesk.setSchools(body.schools);
      return done;
    }),
  );
  router.put(
    endpoints.setStyles.path,
    serve(endpoints.setStyles, door, async ({ body }) => {
      await libraryDesk.setStyles(body.styles);
      return done;
    }),
  );
}
