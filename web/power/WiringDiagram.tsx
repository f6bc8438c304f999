import { type KeyboardEvent, useMemo } from "react";
import { atRest, drawWiring, hasOwnButton, listLiveLinks } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Power } from "./usePower.ts";

/** What a touch or Enter on a drawn thing does. */
const pressable = (says: string, act: () => void, isPressed?: boolean) => ({
  role: "button",
  tabIndex: 0,
  "aria-label": says,
  ...(isPressed === undefined ? {} : { "aria-pressed": isPressed }),
  className: "cursor-pointer [&:focus-visible>.wire-focus]:opacity-100 outline-none",
  onClick: act,
  onKeyDown: (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    act();
  },
});

/** The next position of a switch, after the last the first; one that springs back is pressed and let go. */
export function nextPosition(power: Power, id: string): string | undefined {
  const found = power.switches.find((each) => each.id === id)!;
  const all = found.springsBack ? [...found.positions, atRest] : found.positions;
  const now = power.setting.positions[id] ?? (found.springsBack ? atRest : all[0]!);
  const next = all[(all.indexOf(now) + 1) % all.length]!;
  return next === atRest ? undefined : next;
}

interface DiagramProps {
  readonly rig: Rig;
  readonly power: Power;
}

/** The wiring from battery to load: what is live is drawn thick, what is dead broken. Switches and breakers can be turned. */
export function WiringDiagram({ rig, power }: DiagramProps) {
  const drawing = useMemo(() => drawWiring(rig), [rig]);
  const { setting } = power;
  const liveLinks = useMemo(() => listLiveLinks(rig, setting), [rig, setting]);
  const at = (id: string) => {
    const found = power.switches.find((each) => each.id === id)!;
    return setting.positions[id] ?? (found.springsBack ? atRest : found.positions[0]!);
  };
  return (
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      role="group"
      aria-label={`Wiring of the ${rig.model}, from the batteries on the left to what they feed on the right`}
      className="block w-full min-w-[700px] font-head"
    >
      {/* What is live lies over what is dead where two wires run together. */}
      {drawing.wires
        .toSorted((a, b) => Number(liveLinks.has(a.link)) - Number(liveLinks.has(b.link)))
        .map(({ link, points }) => (
          <polyline
            key={link}
            points={points.map((point) => point.join()).join(" ")}
            fill="none"
            stroke={liveLinks.has(link) ? "var(--ink)" : "var(--soft)"}
            strokeWidth={liveLinks.has(link) ? 3 : 1.3}
            strokeDasharray={liveLinks.has(link) ? undefined : "5 5"}
            strokeLinejoin="round"
          />
        ))}
      {drawing.batteries.map(({ id, x, y }) => {
        const { label, chemistry } = rig.batteries.find((each) => each.id === id)!;
        const share = setting.charge[id] ?? 1;
        const isLoose = setting.loose.includes(id);
        const says = isLoose ? "a clamp is off" : `${Math.round(share * 100)} % charged`;
        return (
          <g
            key={id}
            {...pressable(`${label}: ${says}. Take a clamp off or put it on`, () => power.loosen(id), isLoose)}
          >
            <rect
              x={x - 3}
              y={y - 29}
              width={138}
              height={58}
              rx={7}
              className="wire-focus opacity-0"
              fill="none"
              stroke="var(--focus)"
              strokeWidth={3}
            />
            <rect
              x={x}
              y={y - 26}
              width={132}
              height={52}
              rx={5}
              fill="var(--panel)"
              stroke={isLoose ? "var(--magenta)" : "var(--ink)"}
              strokeWidth={2}
            />
            <text x={x + 66} y={y - 4} textAnchor="middle" fontSize={15} fontWeight={700} fill="var(--ink)">
              {cut(label, 17)}
            </text>
            <text
              x={x + 66}
              y={y + 15}
              textAnchor="middle"
              fontSize={13}
              fill={isLoose ? "var(--magenta)" : "var(--soft)"}
            >
              {isLoose ? "▲ clamp off" : `${Math.round(share * 100)} % · ${chemistry}`}
            </text>
          </g>
        );
      })}
      {drawing.knobs.map(({ switch: id, x, y }) => {
        const { label } = rig.powerSwitches.find((each) => each.id === id)!;
        const position = at(id);
        return (
          <g
            key={id}
            {...pressable(`${label}: ${position}. Turn it on`, () => power.turn(id, nextPosition(power, id)))}
          >
            <circle
              cx={x}
              cy={y}
              r={31}
              className="wire-focus opacity-0"
              fill="none"
              stroke="var(--focus)"
              strokeWidth={3}
            />
            <circle
              cx={x}
              cy={y}
              r={27}
              fill={/^(off|normal)$/i.test(position) ? "var(--panel)" : "var(--helm)"}
              stroke="var(--ink)"
              strokeWidth={2}
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize={13}
              fontWeight={700}
              fill={/^(off|normal)$/i.test(position) ? "var(--ink)" : "var(--onhelm)"}
            >
              {cut(position, 8)}
            </text>
            <text
              x={x}
              y={y + 43}
              textAnchor="middle"
              fontSize={12}
              fill="var(--soft)"
              stroke="var(--sheet)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {cut(label, 22)}
            </text>
          </g>
        );
      })}
      {drawing.breakers.map(({ breaker, link, x, y }) => {
        const found = rig.breakers.find((each) => each.id === breaker);
        const isOut = setting.tripped.includes(breaker);
        const says = `${found?.label ?? breaker}: ${isOut ? "tripped" : "in"}`;
        return (
          <g key={link} {...pressable(`${says}. Trip it or reset it`, () => power.trip(breaker), isOut)}>
            <title>{says}</title>
            <rect x={x - 38} y={y - 22} width={76} height={44} fill="transparent" />
            <rect
              x={x - 33}
              y={y - 16}
              width={66}
              height={32}
              rx={16}
              className="wire-focus opacity-0"
              fill="none"
              stroke="var(--focus)"
              strokeWidth={3}
            />
            <rect
              x={x - 30}
              y={y - 13}
              width={60}
              height={26}
              rx={13}
              fill={isOut ? "var(--magenta)" : "var(--panel)"}
              stroke={isOut ? "var(--magenta)" : "var(--ink)"}
              strokeWidth={1.6}
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize={13}
              fontWeight={600}
              fill={isOut ? "var(--sheet)" : "var(--ink)"}
            >
              {isOut ? "out" : `${found?.ratingA ?? ""} A`}
            </text>
            <text
              x={x}
              y={y - 17}
              textAnchor="middle"
              fontSize={11.5}
              fill="var(--soft)"
              stroke="var(--sheet)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {cut(found?.label ?? "", 14)}
            </text>
          </g>
        );
      })}
      {drawing.switches.map(({ switch: id, link, x, y }) => {
        const { label } = power.switches.find((each) => each.id === id)!;
        const position = at(id);
        return (
          <g
            key={link}
            {...pressable(`${label}: ${position}. Turn it on`, () => power.turn(id, nextPosition(power, id)))}
          >
            <title>{`${label}: ${position}`}</title>
            <rect x={x - 42} y={y - 22} width={84} height={44} fill="transparent" />
            <rect
              x={x - 41}
              y={y - 16}
              width={82}
              height={32}
              rx={5}
              className="wire-focus opacity-0"
              fill="none"
              stroke="var(--focus)"
              strokeWidth={3}
            />
            <rect
              x={x - 38}
              y={y - 13}
              width={76}
              height={26}
              rx={3}
              fill={liveLinks.has(link) ? "var(--helm)" : "var(--panel)"}
              stroke="var(--ink)"
              strokeWidth={1.2}
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize={12.5}
              fill={liveLinks.has(link) ? "var(--onhelm)" : "var(--soft)"}
            >
              {cut(position === atRest ? "press" : position, 10)}
            </text>
          </g>
        );
      })}
      {drawing.loads.map(({ id, x, y }) => {
        const { label, amps } = rig.loads.find((each) => each.id === id)!;
        const reason = power.reasons.find((each) => each.load === id)!;
        const draws = power.drawing.find((each) => each.load === id);
        return (
          <text
            key={id}
            x={x + 8}
            y={y + 5}
            fontSize={14}
            fontWeight={draws ? 700 : 400}
            fill={draws ? "var(--magenta)" : reason.isLive ? "var(--ink)" : "var(--soft)"}
          >
            {draws ? "▲ " : ""}
            {cut(label, 20)}
            <tspan fontSize={12} fontWeight={400} fill="var(--soft)">
              {reason.isLive && hasOwnButton(rig, rig.loads.find((each) => each.id === id)!) && !draws
                ? " ready"
                : ` ${amps} A`}
            </tspan>
          </text>
        );
      })}
    </svg>
  );
}

const cut = (text: string, most: number) => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);
