import type { Delivery } from "../../../api/index.ts";
import { listTooLate, timeWalk } from "../../../core/route/index.ts";
import { shortenTitles } from "../../../core/topic/index.ts";
import { formatMinutes } from "../../ui/words.ts";

/** Whether the walk fits into the time there is, and if not, which musts do not: the first thing said of a plan. */
export function Verdict({ delivery }: { delivery: Delivery }) {
  const { plan, planOptions, rig, topics } = delivery;
  const { budgetMin } = planOptions;
  const told = plan.visits.reduce((sum, visit) => sum + visit.topics.length, 0);
  if (budgetMin === null)
    return (
      <p className="text-lg">
        <strong>All {told} topics</strong> in <strong className="num">{formatMinutes(plan.totalMin)}</strong>.
      </p>
    );
  const overMin = plan.totalMin - budgetMin;
  if (overMin <= 1e-9)
    return (
      <p className="text-lg">
        <strong>It fits:</strong> <strong className="num">{told}</strong> topics in{" "}
        <strong className="num">{formatMinutes(plan.totalMin)}</strong> of {formatMinutes(budgetMin)}.
        {plan.deferred.length > 0 && ` ${plan.deferred.length} wait.`}
      </p>
    );
  const late = shortenTitles(listTooLate(timeWalk(rig, topics, plan.visits), budgetMin).map(({ title }) => title));
  return (
    <p className="border-l-4 border-magenta pl-3 text-lg text-magenta" role="status">
      <strong>▲ {formatMinutes(overMin)} too long.</strong>{" "}
      {late.length > 0 && `These must-do topics do not fit into ${formatMinutes(budgetMin)}: ${late.join(", ")}. `}
      {plan.isByHand
        ? "Take topics out of the order made by hand, or make more time."
        : "Make more time, or plan a second session. Must-do topics are never left out."}
    </p>
  );
}
