import { z } from "zod";
import { partKinds, type Rig } from "./rig.ts";

const path = z.string().regex(/^[a-zA-Z]+(\.[a-zA-Z]+)*$/, "must be names joined by dots, such as trailer.brakes");

/**
 * When does a topic apply? A question over the rig, written as JSON:
 * `{has: partKind}`, `{count: partKind, atLeast}`, `{equals: path, value}`, `{atLeast: path, value}` (a list counts its
 * items), and `{any: [...]}`, `{all: [...]}`, `{not: ...}`. An empty `all` is always true.
 */
export type Condition =
  | { has: (typeof partKinds)[number] }
  | { count: (typeof partKinds)[number]; atLeast: number }
  | { equals: string; value: string | number | boolean | null }
  | { atLeast: string; value: number }
  | { any: Condition[] }
  | { all: Condition[] }
  | { not: Condition };

export const conditionSchema: z.ZodType<Condition, Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ has: z.enum(partKinds) }),
    z.strictObject({ count: z.enum(partKinds), atLeast: z.int().min(1) }),
    z.strictObject({ equals: path, value: z.union([z.string(), z.number(), z.boolean(), z.null()]) }),
    z.strictObject({ atLeast: path, value: z.number() }),
    z.strictObject({ any: z.array(conditionSchema).min(1) }),
    z.strictObject({ all: z.array(conditionSchema) }),
    z.strictObject({ not: conditionSchema }),
  ]),
);

/** Whether the rig answers the condition. `{has: "windlass"}` on a boat with a windlass → true. */
export function isMet(condition: Condition, rig: Rig): boolean {
  if ("has" in condition) return rig.parts.some((part) => part.kind === condition.has);
  if ("count" in condition)
    return rig.parts.filter((part) => part.kind === condition.count).length >= condition.atLeast;
  if ("equals" in condition) return readPath(rig, condition.equals) === condition.value;
  if ("atLeast" in condition) {
    const value = readPath(rig, condition.atLeast);
    const size = Array.isArray(value) ? value.length : value;
    return typeof size === "number" && size >= condition.value;
  }
  if ("any" in condition) return condition.any.some((inner) => isMet(inner, rig));
  if ("all" in condition) return condition.all.every((inner) => isMet(inner, rig));
  return !isMet(condition.not, rig);
}

function readPath(rig: Rig, dotted: string): unknown {
  let at: unknown = rig;
  for (const name of dotted.split(".")) {
    if (typeof at !== "object" || at === null || !Object.hasOwn(at, name)) return null;
    at = (at as Record<string, unknown>)[name];
  }
  return at;
}
