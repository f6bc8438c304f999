import { z } from "zod";
import { type PartKind, partKinds, type Rig } from "./rig.ts";

const path = z.string().regex(/^[a-zA-Z]+(\.[a-zA-Z]+)*$/, "must be names joined by dots, such as trailer.brakes");

/**
 * When does a topic apply? A question over the rig, written as JSON:
 * `{has: partKind}`, `{count: partKind, atLeast}`, `{equals: path, value}`, `{atLeast: path, value}` (a list counts its
 * items), and `{any: [...]}`, `{all: [...]}`, `{not: ...}`. An empty `all` is always true. A path that goes through a list
 * asks each of its items: `{equals: "engines.kind", value: "kicker"}` is met when any engine is a kicker.
 * Described for authors in docs/formats/condition.md.
 */
export type Condition =
  | { has: PartKind }
  | { count: PartKind; atLeast: number }
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
  if ("count" in condition) return countParts(rig, condition.count) >= condition.atLeast;
  if ("equals" in condition) return readPath(rig, condition.equals).some((value) => value === condition.value);
  if ("atLeast" in condition)
    return readPath(rig, condition.atLeast).some((value) => (sizeOf(value) ?? Number.NaN) >= condition.value);
  if ("any" in condition) return condition.any.some((inner) => isMet(inner, rig));
  if ("all" in condition) return condition.all.every((inner) => isMet(inner, rig));
  return !isMet(condition.not, rig);
}

const countParts = (rig: Rig, kind: PartKind) => rig.parts.filter((part) => part.kind === kind).length;
function sizeOf(value: unknown): number | null {
  if (Array.isArray(value)) return value.length;
  return typeof value === "number" ? value : null;
}

/** What stands at the path: one value, or one for each item where it goes through a list; null where there is nothing. */
function readPath(rig: Rig, dotted: string): unknown[] {
  let at: unknown[] = [rig];
  for (const name of dotted.split(".")) {
    at = at.flatMap((value) => {
      const items = Array.isArray(value) ? value : [value];
      return items.map((item) =>
        typeof item === "object" && item !== null && Object.hasOwn(item, name)
          ? (item as Record<string, unknown>)[name]
          : null,
      );
    });
  }
  return at.length === 0 ? [null] : at;
}
