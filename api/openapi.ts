import { z } from "zod";
import type { Endpoint } from "./endpoint.ts";
import { endpoints } from "./endpoints/index.ts";

/** The endpoints as an OpenAPI 3.1 document, made from the very schemas that check them. */
export function createOpenApi(version: string): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, each] of Object.entries(endpoints)) {
    const path = each.path.replace(/:(\w+)/g, "{$1}");
    paths[path] = { ...paths[path], [each.method.toLowerCase()]: describeEndpoint(name, each) };
  }
  return {
    openapi: "3.1.0",
    info: { title: "Ravik", version },
    components: { securitySchemes: { session: { type: "apiKey", in: "cookie", name: "ravik.{person}" } } },
    paths,
  };
}

function describeEndpoint(name: string, each: Endpoint): Record<string, unknown> {
  const parameters = [...describeParameters(each.params, "path"), ...describeParameters(each.query, "query")];
  const content =
    each.answer === null
      ? { [each.file ?? "application/pdf"]: { schema: { type: "string", format: "binary" } } }
      : { "application/json": { schema: toSchema(each.answer, "output") } };
  return {
    operationId: name,
    summary: each.summary,
    security: each.admits === "public" ? [] : [{ session: [] }],
    ...(each.admits === "public" ? {} : { "x-admits": each.admits }),
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(each.upload === undefined ? {} : { requestBody: { required: true, content: describeUpload(each.upload) } }),
    ...(each.body === null
      ? {}
      : { requestBody: { required: true, content: { "application/json": { schema: toSchema(each.body, "input") } } } }),
    responses: { 200: { description: each.summary, content }, default: { description: "{error:{code,…}}" } },
  };
}

const describeUpload = (types: readonly string[]) =>
  Object.fromEntries(types.map((type) => [type, { schema: { type: "string", format: "binary" } }]));

function describeParameters(schema: z.ZodType, place: "path" | "query"): Record<string, unknown>[] {
  const json = toSchema(schema, "input") as { properties?: Record<string, unknown>; required?: string[] };
  return Object.entries(json.properties ?? {}).map(([name, property]) => ({
    name,
    in: place,
    required: place === "path" || (json.required ?? []).includes(name),
    schema: property,
  }));
}

function toSchema(schema: z.ZodType, io: "input" | "output"): object {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { io, unrepresentable: "any" });
  return json;
}
