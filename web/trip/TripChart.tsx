import { fromClock } from "../../core/dates/index.ts";
import type { Tell } from "../../core/language/index.ts";
import {
  type ClockIdiom,
  fromContractClock,
  type JudgedTrip,
  sayClock,
  sayContractClock,
  type TripPlan,
} from "../../core/trip/index.ts";
import { useIdiom, useReader, useTell } from "../ui/tell.ts";
import { useMediaQuery } from "../ui/useMediaQuery.ts";
import { formatHour } from "../ui/words.ts";
import { type Day, layDay, layLegs } from "./layDay.ts";

const narrow = "(max-width: 639px)";

const small = "text-[12px]";
const strong = "text-[12px] font-semibold";

/** The day along its hours: wind above with its limit, the legs out and back below, as long as they take. */
export function TripChart({ plan, judged }: { plan: TripPlan; judged: JudgedTrip }) {
  const isNarrow = useMediaQuery(narrow);
  const tell = useTell();
  const idiom = useIdiom();
  const { answer, sunsetMin } = judged;
  if (answer.oneWayH === 0) return null;
  const day = layDay(plan, judged, isNarrow);
  return (
    <svg
      role="img"
      aria-label={sayDay(plan, judged, idiom, tell)}
      viewBox={`0 0 ${day.width} ${day.legY + 62}`}
      className="mt-3 w-full"
    >
      <Hours day={day} />
      <Wind day={day} plan={plan} />
      {sunsetMin !== null && sunsetMin < day.untilMin && <Dark day={day} sunsetMin={sunsetMin} />}
      {answer.latestTurnAt !== null && <TurnBack day={day} min={fromContractClock(answer.latestTurnAt)} />}
      <Legs day={day} plan={plan} turnMin={fromClock(plan.departAt) + answer.oneWayH * 60} />
    </svg>
  );
}

function sayDay(
  { departAt, legs, wind, windLimitKn }: TripPlan,
  { backMin }: JudgedTrip,
  idiom: ClockIdiom,
  tell: Tell,
): string {
  const route = legs.map(({ to, nm }) => tell("{0}, {1} sea miles", to, nm.toFixed(1))).join("; ");
  const blows =
    wind.length === 0
      ? tell("No wind entered.")
      : tell("Wind up to {0} knots, limit {1}.", Math.max(...wind.map(({ kn }) => kn)), windLimitKn);
  return `${tell("From {0} to {1}: {2}.", sayContractClock(departAt, idiom), sayClock(backMin, idiom), route)} ${blows}`;
}

function Hours({ day: { hours, every, x, top, legY } }: { day: Day }) {
  const reader = useReader();
  return hours.map((min, i) => (
    <g key={min}>
      <line x1={x(min)} x2={x(min)} y1={top} y2={legY + 26} className="stroke-rule" />
      {i % every === 0 && (
        <text x={x(min)} y={legY + 44} textAnchor="middle" className={`num fill-soft ${small}`}>
          {formatHour((min + 2880) % 1440, reader)}
        </text>
      )}
    </g>
  ));
}

function Wind({ day, plan: { windLimitKn, windSource } }: { day: Day; plan: TripPlan }) {
  const tell = useTell();
  const { left, edge, base, x, y, wind, fromMin, untilMin } = day;
  // With the one before and the one after, so that the line runs to the edges.
  const before = wind.findLastIndex(({ min }) => min <= fromMin);
  const after = wind.findIndex(({ min }) => min >= untilMin);
  const line = wind.slice(Math.max(0, before), after < 0 ? undefined : after + 1);
  return (
    <>
      <clipPath id="trip-hours">
        <rect x={left} y={0} width={edge - left} height={base} />
      </clipPath>
      <text x={left} y={13} className={`fill-soft ${small}`}>
        {tell(windSource === "made-up" && wind.length > 0 ? "Wind, kn: made up, for the demo" : "Wind, kn")}
      </text>
      {[0, windLimitKn].map((kn) => (
        <text key={kn} x={left - 5} y={y(kn) + 4} textAnchor="end" className={`num fill-soft ${small}`}>
          {kn}
        </text>
      ))}
      <line
        x1={left}
        x2={edge}
        y1={y(windLimitKn)}
        y2={y(windLimitKn)}
        className="stroke-magenta"
        strokeDasharray="5 4"
        strokeWidth="1.5"
      />
      <text x={edge} y={y(windLimitKn) - 5} textAnchor="end" className={`fill-magenta ${strong}`}>
        {tell("your limit")}
      </text>
      <g clipPath="url(#trip-hours)">
        {line.length > 1 && (
          <path
            d={`M${line.map(({ min, kn }) => `${x(min)} ${y(kn)}`).join("L")}`}
            className="fill-none stroke-ink"
            strokeWidth="2.5"
          />
        )}
        {line.map(({ min, kn }) => (
          <circle key={min} cx={x(min)} cy={y(kn)} r="3" className="fill-ink" />
        ))}
      </g>
      {wind.length === 0 && (
        <text x={(left + edge) / 2} y={base - 14} textAnchor="middle" className="fill-amber text-[14px] font-semibold">
          {tell("Wind not checked")}
        </text>
      )}
      <line x1={left} x2={edge} y1={base} y2={base} className="stroke-ink" />
    </>
  );
}

function Dark({ day: { x, edge, top, base, legY, fromMin }, sunsetMin }: { day: Day; sunsetMin: number }) {
  const tell = useTell();
  const from = x(Math.max(fromMin, sunsetMin));
  return (
    <>
      <rect x={from} y={top} width={edge - from} height={legY + 26 - top} className="fill-ink opacity-10" />
      {sunsetMin >= fromMin && (
        <text x={from - 4} y={base - 6} textAnchor="end" className={`fill-soft ${small}`}>
          {tell("sunset")}
        </text>
      )}
    </>
  );
}

function TurnBack({ day: { x, top, base, legY, fromMin, untilMin }, min }: { day: Day; min: number }) {
  const tell = useTell();
  if (min < fromMin || min > untilMin) return null;
  const isLeft = min < (fromMin + untilMin) / 2;
  return (
    <>
      <line x1={x(min)} x2={x(min)} y1={top} y2={legY + 26} className="stroke-magenta" strokeWidth="2" />
      <text
        x={x(min) + (isLeft ? 5 : -5)}
        y={base + 16}
        textAnchor={isLeft ? "start" : "end"}
        className={`fill-magenta ${strong}`}
      >
        {tell("turn back by")}
      </text>
    </>
  );
}

function Legs({ day: { x, legY }, plan, turnMin }: { day: Day; plan: TripPlan; turnMin: number }) {
  const tell = useTell();
  const stayMin = plan.stayH * 60;
  return (
    <>
      {layLegs(plan).map(({ from, until, says, isBack }) => {
        const width = x(until) - x(from);
        return (
          <g key={from}>
            <rect
              x={x(from)}
              y={legY}
              width={Math.max(1, width - 1.5)}
              height="24"
              className={isBack ? "fill-helm opacity-75" : "fill-helm"}
              rx="2"
            />
            <text x={x((from + until) / 2)} y={legY + 17} textAnchor="middle" className={`fill-onhelm ${strong}`}>
              {says.find((words) => width > words.length * 6.6)}
            </text>
          </g>
        );
      })}
      {stayMin > 0 && (
        <>
          <rect x={x(turnMin)} y={legY} width={x(turnMin + stayMin) - x(turnMin)} height="24" className="fill-shoal" />
          <text x={x(turnMin + stayMin / 2)} y={legY + 17} textAnchor="middle" className={`fill-ink ${small}`}>
            {tell("there")}
          </text>
        </>
      )}
    </>
  );
}
