import { useSyncExternalStore } from "react";
import { type JudgedTrip, sayClock, type TripPlan, toClockMinutes } from "../../core/trip/index.ts";

const narrow = "(max-width: 639px)";
const useIsNarrow = () =>
  useSyncExternalStore(
    (tell) => {
      const query = matchMedia(narrow);
      query.addEventListener("change", tell);
      return () => query.removeEventListener("change", tell);
    },
    () => matchMedia(narrow).matches,
  );

/** The day along its hours: wind above with its limit, the legs out and back below, as long as they take. */
export function TripChart({ plan, judged }: { plan: TripPlan; judged: JudgedTrip }) {
  const isNarrow = useIsNarrow();
  const { answer, backMin, sunsetMin } = judged;
  if (answer.oneWayH === 0) return null;
  const departMin = toClockMinutes(plan.departAt);
  const width = isNarrow ? 370 : 760;
  const [left, right, top, windHeight] = [34, 24, 22, 120];
  const fromMin = Math.floor((departMin - 20) / 60) * 60;
  const untilMin =
    Math.ceil((Math.max(backMin + 30, sunsetMin !== null && sunsetMin < backMin + 240 ? sunsetMin + 10 : 0) + 1) / 60) *
    60;
  const x = (min: number) => left + ((min - fromMin) / (untilMin - fromMin)) * (width - left - right);
  const wind = plan.wind.map(({ at, kn }) => ({ min: toClockMinutes(at), kn }));
  const mostKn = Math.max(plan.windLimitKn * 1.4, ...wind.map(({ kn }) => kn * 1.1), 10);
  const y = (kn: number) => top + windHeight - (kn / mostKn) * windHeight;
  const base = top + windHeight;
  const legY = base + 34;
  const turnMin = departMin + answer.oneWayH * 60;
  const legs = layLegs(plan, departMin);
  const hours = Array.from({ length: (untilMin - fromMin) / 60 + 1 }, (_, i) => fromMin + i * 60);
  const every = Math.ceil(hours.length / (isNarrow ? 6 : 13));
  // With the one before and the one after, so that the line runs to the edges.
  const first = Math.max(
    0,
    wind.findLastIndex(({ min }) => min <= fromMin),
  );
  const after = wind.findIndex(({ min }) => min >= untilMin);
  const line = wind.slice(first, after < 0 ? undefined : after + 1);
  const inside = wind.filter(({ min }) => min >= fromMin && min <= untilMin);
  const label = `From ${plan.departAt} to ${sayClock(backMin)}: ${plan.legs.map(({ to, nm }) => `${to}, ${nm.toFixed(1)} sea miles`).join("; ")}. ${
    wind.length === 0
      ? "No wind entered."
      : `Wind up to ${Math.max(...wind.map(({ kn }) => kn))} knots, limit ${plan.windLimitKn}.`
  }`;
  return (
    <svg role="img" aria-label={label} viewBox={`0 0 ${width} ${legY + 62}`} className="mt-3 w-full">
      <clipPath id="trip-hours">
        <rect x={left} y={0} width={width - left - right} height={base} />
      </clipPath>
      {hours.map((min, i) => (
        <g key={min}>
          <line x1={x(min)} x2={x(min)} y1={top} y2={legY + 26} className="stroke-rule" />
          {i % every === 0 && (
            <text x={x(min)} y={legY + 44} textAnchor="middle" className="num fill-soft text-[12px]">
              {sayHour(min)}
            </text>
          )}
        </g>
      ))}
      <text x={left} y={13} className="fill-soft text-[12px]">
        Wind, kn{plan.windSource === "made-up" && wind.length > 0 ? ": made up, for the demo" : ""}
      </text>
      {[0, plan.windLimitKn].map((kn) => (
        <text key={kn} x={left - 5} y={y(kn) + 4} textAnchor="end" className="num fill-soft text-[12px]">
          {kn}
        </text>
      ))}
      <line
        x1={left}
        x2={width - right}
        y1={y(plan.windLimitKn)}
        y2={y(plan.windLimitKn)}
        className="stroke-magenta"
        strokeDasharray="5 4"
        strokeWidth="1.5"
      />
      <text
        x={width - right}
        y={y(plan.windLimitKn) - 5}
        textAnchor="end"
        className="fill-magenta text-[12px] font-semibold"
      >
        your limit
      </text>
      {line.length > 1 && (
        <path
          clipPath="url(#trip-hours)"
          d={`M${line.map(({ min, kn }) => `${x(min)} ${y(kn)}`).join("L")}`}
          className="fill-none stroke-ink"
          strokeWidth="2.5"
        />
      )}
      {inside.map(({ min, kn }) => (
        <circle key={min} cx={x(min)} cy={y(kn)} r="3" className="fill-ink" />
      ))}
      {wind.length === 0 && (
        <text
          x={(left + width - right) / 2}
          y={base - 14}
          textAnchor="middle"
          className="fill-amber text-[14px] font-semibold"
        >
          Wind not checked
        </text>
      )}
      <line x1={left} x2={width - right} y1={base} y2={base} className="stroke-ink" />
      {sunsetMin !== null && sunsetMin < untilMin && (
        <g>
          <rect
            x={x(Math.max(fromMin, sunsetMin))}
            y={top}
            width={width - right - x(Math.max(fromMin, sunsetMin))}
            height={legY + 26 - top}
            className="fill-ink opacity-10"
          />
          <text x={x(sunsetMin) - 4} y={base - 6} textAnchor="end" className="fill-soft text-[12px]">
            sunset
          </text>
        </g>
      )}
      {answer.latestTurnAt !== null && (
        <Mark
          x={x(toClock(answer.latestTurnAt))}
          from={top}
          to={legY + 26}
          says="turn back by"
          isRight={toClock(answer.latestTurnAt) < (fromMin + untilMin) / 2}
          y={base + 16}
        />
      )}
      {legs.map(({ from, until, says, isBack }) => (
        <g key={`${from}`}>
          <rect
            x={x(from)}
            y={legY}
            width={Math.max(1, x(until) - x(from) - 1.5)}
            height="24"
            className={isBack ? "fill-helm opacity-75" : "fill-helm"}
            rx="2"
          />
          <LegWords
            x={(x(from) + x(until)) / 2}
            y={legY + 17}
            says={says.find((words) => x(until) - x(from) > words.length * 6.6)}
          />
        </g>
      ))}
      {plan.stayH > 0 && (
        <g>
          <rect
            x={x(turnMin)}
            y={legY}
            width={x(turnMin + plan.stayH * 60) - x(turnMin)}
            height="24"
            className="fill-shoal"
          />
          <text x={x(turnMin + plan.stayH * 30)} y={legY + 17} textAnchor="middle" className="fill-ink text-[12px]">
            there
          </text>
        </g>
      )}
    </svg>
  );
}

function Mark({
  x,
  from,
  to,
  says,
  isRight,
  y,
}: {
  x: number;
  from: number;
  to: number;
  says: string;
  isRight: boolean;
  y: number;
}) {
  return (
    <g>
      <line x1={x} x2={x} y1={from} y2={to} className="stroke-magenta" strokeWidth="2" />
      <text
        x={x + (isRight ? 5 : -5)}
        y={y}
        textAnchor={isRight ? "start" : "end"}
        className="fill-magenta text-[12px] font-semibold"
      >
        {says}
      </text>
    </g>
  );
}

/** The longest words that have room in a leg; none in a short one. */
function LegWords({ x, y, says }: { x: number; y: number; says: string | undefined }) {
  return says === undefined ? null : (
    <text x={x} y={y} textAnchor="middle" className="fill-onhelm text-[12px] font-semibold">
      {says}
    </text>
  );
}

const toClock = (clock: string) => (clock.startsWith("-") ? -1 : 1) * toClockMinutes(clock.replace("-", ""));
const sayHour = (min: number) => `${String(Math.floor(min / 60) % 24).padStart(2, "0")}:00`;

/** Legs out and back along the clock, minutes after midnight. */
function layLegs(plan: TripPlan, departMin: number) {
  const minutes = (nm: number) => (nm / plan.cruiseKn) * 60;
  const laid: { from: number; until: number; says: string[]; isBack: boolean }[] = [];
  let at = departMin;
  for (const { to, nm } of plan.legs) {
    laid.push({
      from: at,
      until: at + minutes(nm),
      says: [`${to} ${nm.toFixed(1)} nm`, `${nm.toFixed(1)} nm`],
      isBack: false,
    });
    at += minutes(nm);
  }
  at += plan.stayH * 60;
  for (const { nm } of [...plan.legs].reverse()) {
    laid.push({ from: at, until: at + minutes(nm), says: [`${nm.toFixed(1)} nm`], isBack: true });
    at += minutes(nm);
  }
  return laid.filter(({ from, until }) => until > from);
}
