import { type TowInput, type TowOutput, type TowRules, towWords } from "../../core/tow/index.ts";
import { say, spell } from "../ui/amounts.ts";

type Check = TowOutput["checks"][number];

interface TowBarsProps {
  readonly checks: readonly Check[];
  readonly ask: TowInput;
  readonly rules: TowRules;
}

/** Every limit as a bar with its margin: what is broken first, then the weakest. */
export function TowBars({ checks, ask, rules }: TowBarsProps) {
  return (
    <ul aria-label="Limits, the weakest first" className="mt-4 border-t border-ink">
      {checks.map((check) => {
        const isOver = check.verdict === "over";
        const isMass = check.limit > 0;
        return (
          <li key={check.id} className="border-b border-rule py-2">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <strong className={isOver ? "text-magenta" : ""}>
                {isOver ? "▲ " : check.verdict === "ok" ? "✓ " : "● "}
                {spell(towWords[check.id][0])}
              </strong>
              {isMass ? (
                <>
                  <span className="num text-soft">
                    {say(check.actual, "mass")} of {say(check.limit, "mass")}
                  </span>
                  <span className={`num ml-auto font-bold ${isOver ? "text-magenta" : ""}`}>{sayMargin(check)}</span>
                </>
              ) : (
                <span className="text-soft">{sayFit(check, ask, rules)}</span>
              )}
            </p>
            {isMass && <Bar check={check} />}
          </li>
        );
      })}
    </ul>
  );
}

const sayMargin = ({ actual, limit }: Check) =>
  actual > limit ? `${say(actual - limit, "mass")} too much` : `${say(limit - actual, "mass")} left`;

/** To half above the limit; the limit is a line across it. */
function Bar({ check: { ratio, verdict } }: { check: Check }) {
  const look = verdict === "over" ? "bg-magenta" : verdict === "tight" ? "bg-amber" : "bg-helm";
  return (
    <span aria-hidden className="relative mt-1 block h-2.5 w-full bg-shoal">
      <span
        className={`absolute inset-y-0 left-0 ${look}`}
        style={{ width: `${Math.min(100, (ratio / 1.5) * 100)}%` }}
      />
      <span className="absolute -inset-y-1 w-0.5 bg-ink" style={{ left: `${100 / 1.5}%` }} />
    </span>
  );
}

function sayFit({ id, verdict }: Check, { trailer, vehicle, tongueKg }: TowInput, rules: TowRules): string {
  const isOk = verdict === "ok";
  switch (id) {
    case "ball-size":
      return isOk
        ? `both ${say(trailer.couplerBallMm, "ball")}`
        : `the coupler takes ${say(trailer.couplerBallMm, "ball")}, the ball is ${say(vehicle.ballMm, "ball")}: stop, it comes off`;
    case "brakes":
      return isOk
        ? "as heavy as it is, they are enough"
        : `without brakes it may weigh ${say(rules.brakesAboveKg, "mass")}`;
    case "plug":
      return isOk
        ? `${trailer.pins} pins into ${vehicle.pins}`
        : `${trailer.pins} pins, the car has ${vehicle.pins}: brakes or lights stay dark`;
    default:
      return `${say(tongueKg, "mass")} of tongue; it tows steadily from ${percent(rules.tongueShareMin)} to ${percent(rules.tongueShareMax)} of what is towed`;
  }
}
const percent = (share: number) => `${Math.round(share * 100)} %`;
