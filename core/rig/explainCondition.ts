import { type Condition, isMet } from "./condition.ts";
import { describeFact } from "./facts.ts";
import type { Rig } from "./rig.ts";

/**
 * Why is the condition met, or not, on this boat? The facts that decide it, as plain sentences without a full stop.
 * `{has: "windlass"}` on a boat without one → ["it has no windlass"]; always true → ["every boat has it"].
 */
export function explainCondition(condition: Condition, rig: Rig): string[] {
  if ("not" in condition) return explainCondition(condition.not, rig);
  if ("any" in condition || "all" in condition) {
    const inner = "any" in condition ? condition.any : condition.all;
    if (inner.length === 0) return ["every boat has it"];
    // Only what decides: of an `any` that is met the met ones, of an `all` that is not met the ones that fail.
    const met = isMet(condition, rig);
    const deciding = inner.filter((one) => isMet(one, rig) === met);
    return [...new Set(deciding.flatMap((one) => explainCondition(one, rig)))];
  }
  const said = `it ${toOne(describeFact(condition, !isMet(condition, rig)))}`;
  const named = "has" in condition ? rig.parts.filter(({ kind }) => kind === condition.has) : [];
  return [named.length === 0 ? said : `${said} (${named.map(({ label }) => label).join(", ")})`];
}

/** What is said of boats, said of one: "have a windlass" → "has a windlass". */
const toOne = (said: string): string =>
  said
    .replace(/^have\b/, "has")
    .replace(/^are\b/, "is")
    .replace(/^do not have\b/, "does not have");
