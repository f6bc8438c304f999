import { closeMoves } from "../paths/closeMoves.ts";
import { fail, type Result, succeed } from "../result.ts";
import type { RouteInput, RouteOutput } from "./contract.ts";
import { orderTopics } from "./internal/blocks.ts";
import { chooseForBudget } from "./internal/chooseForBudget.ts";
import { orderWalk } from "./internal/orderWalk.ts";

export type RouteError = { code: "cycle"; message: string; topics: string[] };

/** States opened before the search settles for the best walk found: about two seconds of an ordinary laptop core. */
const maxStates = 120_000;

/**
 * In which order should the stations be walked, and what is left out when time is short?
 *
 * Least total move time such that every kept topic is told at its station after all it comes after (contract `route`).
 * All times in minutes. `optimal` says the answer is proven. With `budgetMin`, the kept topics have the most total value
 * that fits; when the musts alone do not fit, only they are kept and `overBudgetMin` says by how much.
 * A circle of `after` answers the error `cycle`.
 *
 * @example two stations a minute apart, b after a: visits a then b, `moveMin` 1.
 */
export function route(input: RouteInput): Result<RouteOutput, RouteError> {
  const ordered = orderTopics(input.topics);
  if (!ordered.ok) {
    const topics = ordered.circle;
    return fail({ code: "cycle", message: `a circle of after: ${topics.join(", ")}`, topics });
  }
  const moves = closeMoves(input.moveMin);
  if (input.budgetMin === undefined) {
    return succeed({ ...orderWalk(input, input.topics, moves, maxStates), deferred: [] });
  }
  return succeed(chooseForBudget(input, input.budgetMin, moves, maxStates));
}
