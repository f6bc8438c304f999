import type { Tell } from "../../core/language/index.ts";
import { type TowInput, type TowOutput, type TowRules, towWords } from "../../core/tow/index.ts";
import { say } from "../ui/amounts.ts";
import { useTell } from "../ui/tell.ts";

type Check = TowOutput["checks"][number];

interface TowBarsProps {
  readonly checks: readonly Check[];
  readonly ask: TowInput;
  readonly rules: TowRules;
}

/** Every limit as a bar with its margin: what is broken first, then the weakest. */
export function TowBars({ checks, ask, rules }: TowBarsProps) {
  const tell = useTell();
  return (
    <ul aria-label={tell("Limits, the weakest first")} className="mt-4 border-t border-ink">
      {checks.map((check) => {
        const isOver = check.verdict === "over";
        const isMass = check.limit > 0;
        return (
          <li key={check.id} className="border-b border-rule py-2">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <strong className={isOver ? "text-magenta" : ""}>
                {isOver ? "▲ " : check.verdict === "ok" ? "✓ " : "● "}
                {tell(towWords[check.id][0])}
              </strong>
              {isMass ? (
                <>
                  <span className="num text-soft">
                    {tell("{0} of {1}", say(check.actual, "mass"), say(check.limit, "mass"))}
                  </span>
                  <span className={`num ml-auto font-bold ${isOver ? "text-magenta" : ""}`}>
                    {sayMargin(check, tell)}
                  </span>
                </>
              ) : (
                <span className="text-soft">{sayFit(check, ask, rules, tell)}</span>
              )}
            </p>
            {isMass && <Bar check={check} />}
          </li>
        );
      })}
    </ul>
  );
}

const sayMargin = ({ actual, limit }: Check, tell: Tell) =>
  actual > limit ? tell("{0} too much", say(actual - limit, "mass")) : tell("{0} left", say(limit - actual, "mass"));

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

function sayFit({ id, verdict }: Check, { trailer, vehicle, tongueKg }: TowInput, rules: TowRules, tell: Tell): string {
  const isOk = verdict === "ok";
  switch (id) {
    case "ball-size":
      return isOk
        ? tell("both {0}", say(trailer.couplerBallMm, "ball"))
        : tell(
            "the coupler takes {0}, the ball is {1}: stop, it comes off",
            say(trailer.couplerBallMm, "ball"),
            say(vehicle.ballMm, "ball"),
          );
    case "brakes":
      return isOk
        ? tell("the brakes are enough for this weight")
        : tell("without brakes it may weigh {0}", say(rules.brakesAboveKg, "mass"));
    case "plug":
      return isOk
        ? tell("{0} pins into {1}", trailer.pins, vehicle.pins)
        : tell("{0} pins, the car has {1}: brakes or lights stay dark", trailer.pins, vehicle.pins);
    default:
      return tell(
        "{0} of tongue; it tows steadily from {1} to {2} of what is towed",
        say(tongueKg, "mass"),
        percent(rules.tongueShareMin),
        percent(rules.tongueShareMax),
      );
  }
}
const percent = (share: number) => `${Math.round(share * 100)} %`;
