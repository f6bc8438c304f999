import { QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { vi } from "vitest";
import { type AnswerOf, addresses, type EndpointName, type Endpoints } from "../../api/index.ts";
import { meQuery, queryClient } from "../app/queries.ts";
import { makeMe } from "./makeMe.ts";

type Answers = { [N in EndpointName]?: (asked: Asked) => AnswerOf<Endpoints[N]> | Response };

export interface Asked {
  readonly name: EndpointName;
  readonly params: Readonly<Record<string, string>>;
  readonly query: URLSearchParams;
  readonly body: unknown;
}

/** For tests of screens: answers each endpoint named, refuses all others, and keeps what was asked. */
export function answerWith(answers: Answers): Asked[] {
  const log: Asked[] = [];
  vi.stubGlobal("fetch", async (url: string, init: { method: string; body?: string | Blob }) => {
    for (const name of Object.keys(answers) as EndpointName[]) {
      const params = matchPath(addresses[name].path, url);
      if (params === null || addresses[name].method !== init.method) continue;
      const query = new URL(url, "http://yard").searchParams;
      const asked = { name, params, query, body: typeof init.body === "string" ? JSON.parse(init.body) : null };
      log.push(asked);
      const answer = answers[name]!(asked as Asked);
      return answer instanceof Response ? answer : new Response(JSON.stringify(answer));
    }
    return refuse("not-found", { what: "address", id: url }, 404);
  });
  return log;
}

export const refuse = (code: string, facts: object = {}, status = 409) =>
  new Response(JSON.stringify({ error: { code, ...facts } }), { status });

function matchPath(path: string, url: string): Record<string, string> | null {
  const names = [...path.matchAll(/:(\w+)/g)].map((match) => match[1]!);
  const pattern = new RegExp(`^${path.replace(/:\w+/g, "([^/?]+)")}(\\?.*)?$`);
  const found = pattern.exec(url);
  return found === null ? null : Object.fromEntries(names.map((name, i) => [name, decodeURIComponent(found[i + 1]!)]));
}

/** Shows a screen at an address, signed in with a role. */
export function showScreen(routes: { path: string; element: ReactElement }[], at: string, role = "owner") {
  queryClient.clear();
  queryClient.setQueryData(meQuery.queryKey, makeMe({ role: role as "owner" }));
  const router = createMemoryRouter(routes, { initialEntries: [at] });
  render(
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
  return router;
}
