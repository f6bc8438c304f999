import { conditionSchema } from "../../../core/rig/index.ts";

/** What is wrong with a condition as it is typed; null when it can be used. */
export function formatConditionProblem(text: string): string | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return "This is not JSON yet: check quotes and brackets.";
  }
  if (conditionSchema.safeParse(value).success) return null;
  return "No such question. Use has, count, equals, atLeast, any, all or not, and names the rig has.";
}
