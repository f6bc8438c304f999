import type Router from "@koa/router";
import { endpoints } from "../../api/index.ts";
import { faultContent, gearPacks, sequences, synonyms } from "../../content/index.ts";
import type { Services } from "../createServices.ts";
import { serve } from "../http.ts";

const done = { done: true as const };

export function routeLibrary(
  router: Router,
  { auth, dockCallService, forecaster, languageService, libraryService }: Services,
) {
  router.get(
    endpoints.library.path,
    serve(endpoints.library, auth, () => libraryService.describe()),
  );
  router.get(
    endpoints.glossary.path,
    serve(endpoints.glossary, auth, async () => ({ ...(await libraryService.readGlossary()), synonyms })),
  );
  router.get(
    endpoints.guides.path,
    serve(endpoints.guides, auth, async () => ({ sequences, gearPacks, hasForecast: forecaster !== null })),
  );
  router.get(
    endpoints.faults.path,
    serve(endpoints.faults, auth, async () => faultContent),
  );
  router.get(
    endpoints.dockCalls.path,
    serve(endpoints.dockCalls, auth, () => dockCallService.describe()),
  );
  router.post(
    endpoints.forgetCalls.path,
    serve(endpoints.forgetCalls, auth, async () => {
      await dockCallService.forget();
      return done;
    }),
  );
  router.put(
    endpoints.setTopic.path,
    serve(endpoints.setTopic, auth, async ({ params, body, user }) => {
      await libraryService.edit([{ ...body, id: params.topic }], user.name);
      return done;
    }),
  );
  router.delete(
    endpoints.revertTopic.path,
    serve(endpoints.revertTopic, auth, async ({ params }) => {
      await libraryService.revert(params.topic);
      return done;
    }),
  );
  router.post(
    endpoints.importTopics.path,
    serve(endpoints.importTopics, auth, ({ body, user }) => libraryService.edit(body.topics, user.name)),
  );
  router.get(
    endpoints.languages.path,
    serve(endpoints.languages, auth, () => languageService.describe()),
  );
  router.put(
    endpoints.setPhrase.path,
    serve(endpoints.setPhrase, auth, async ({ params, body }) => {
      await languageService.setPhrase(params.language, body);
      return done;
    }),
  );
  router.put(
    endpoints.setWord.path,
    serve(endpoints.setWord, auth, async ({ body }) => {
      await libraryService.setWord(body.key, body.entry);
      return done;
    }),
  );
  router.put(
    endpoints.setSchools.path,
    serve(endpoints.setSchools, auth, async ({ body }) => {
      await libraryService.setSchools(body.schools);
      return done;
    }),
  );
  router.put(
    endpoints.setStyles.path,
    serve(endpoints.setStyles, auth, async ({ body }) => {
      await libraryService.setStyles(body.styles);
      return done;
    }),
  );
}
