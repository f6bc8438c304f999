import { createRandom } from "../core/random.ts";

interface Schema {
  readonly type?: string | readonly string[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly allOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
  readonly prefixItems?: readonly Schema[];
  readonly additionalProperties?: Schema | boolean;
  readonly format?: string;
  readonly pattern?: string;
}

export interface Operation {
  readonly method: string;
  /** With `{name}` for each parameter. */
  readonly path: string;
  readonly body: Schema | null;
}

interface OpenApi {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<string, { readonly requestBody?: { readonly content: Readonly<Record<string, { schema?: Schema }>> } }>
      >
    >
  >;
}

/** What an OpenAPI document says can be asked. Sign-in and what ends one's own session are left out, and live streams. */
export function listOperations(document: unknown): Operation[] {
  const { paths } = document as OpenApi;
  return Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).flatMap(([method, { requestBody }]) =>
      /sign-|password|sessions|second-factor|staff|devices|set-up|\/news$/.test(path)
        ? []
        : [{ method: method.toUpperCase(), path, body: requestBody?.content["application/json"]?.schema ?? null }],
    ),
  );
}

/** A lone surrogate cannot stand in an address at all. */
const encode = (text: string) => encodeURIComponent(text.replace(/[\ud800-\udfff]/g, "?"));

const odd = [
  ...["", " ", "\u0000", "a\u0000b", "..", "../../etc", "%2e%2e", "\ud800", "🛥️".repeat(50), "x".repeat(5000), "-1"],
  ...["2026-13-45", "1e999", "<script>", "'; DROP TABLE boats; --", "null", "\r\n", "01J00000000000000000000000"],
  ...[null, true, 0, -1, 1.5, 1e308, -1e308, Number.MAX_SAFE_INTEGER, [], {}, [[]], { a: { b: {} } }],
];

/** Asks that are nearly right and sometimes wrong, out of what is said of them. The same seed asks the same. */
export function createFuzz(operations: readonly Operation[], ids: readonly string[], seed: number) {
  const random = createRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const createValue = (schema: Schema, depth = 0): unknown => {
    if (random() < 0.12 || depth > 6) return pick(odd);
    if (schema.const !== undefined) return schema.const;
    if (schema.enum !== undefined) return pick(schema.enum);
    const others = schema.anyOf ?? schema.oneOf;
    if (others !== undefined) return createValue(pick(others), depth);
    if (schema.allOf !== undefined)
      return Object.assign({}, ...schema.allOf.map((part) => createValue(part, depth) as object));
    switch (Array.isArray(schema.type) ? pick(schema.type as string[]) : schema.type) {
      case "object": {
        const entries = Object.entries(schema.properties ?? {}).filter(() => random() < 0.95);
        return Object.fromEntries(entries.map(([key, value]) => [key, createValue(value, depth + 1)]));
      }
      case "array": {
        const { prefixItems, items = {} } = schema;
        if (prefixItems !== undefined) return prefixItems.map((part) => createValue(part, depth + 1));
        return Array.from({ length: Math.floor(random() * 4) }, () => createValue(items, depth + 1));
      }
      case "integer":
        return Math.round((random() - 0.2) * pick([3, 100, 10_000]));
      case "number":
        return (random() - 0.2) * pick([1, 100, 1e6]);
      case "boolean":
        return random() < 0.5;
      case "null":
        return null;
      default:
        return random() < 0.6 ? pick(ids) : String(pick(odd));
    }
  };
  return () => {
    const { method, path, body } = pick(operations);
    const said = path.replace(/\{\w+\}/g, () => encode(String(random() < 0.8 ? pick(ids) : pick(odd))));
    return { method, path: said.replaceAll("..", "%2e%2e"), body: body === null ? {} : createValue(body) };
  };
}
