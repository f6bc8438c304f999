import { type KeyboardEvent, type ReactNode, useMemo } from "react";
import type { Tell } from "../../core/language/index.ts";
import { atRest, drawWiring, hasOwnButton, listLiveLinks } from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { useTell } from "../ui/tell.ts";
import type { Power } from "./usePower.ts";

interface DiagramProps {
  readonly rig: Rig;
  readonly power: Power;
}

/** The wiring from battery to load: what is live is drawn thick, what is dead broken. Switches and breakers can be turned. */
export function WiringDiagram({ rig, power }: DiagramProps) {
  const tell = useTell();
  const drawing = useMemo(() => drawWiring(rig), [rig]);
  const { setting } = power;
  const liveLinks = useMemo(() => listLiveLinks(rig, setting), [rig, setting]);
  // What is live lies over what is dead where two wires run together.
  const wires = drawing.wires.toSorted((a, b) => Number(liveLinks.has(a.link)) - Number(liveLinks.has(b.link)));
  return (
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      role="group"
      aria-label={tell("Wiring of the {0}, from the batteries on the left to what they feed on the right", rig.model)}
      className="block w-full min-w-[700px] font-head"
    >
      {wires.map(({ link, points }) => (
        <polyline
          key={link}
          points={points.map((point) => point.join()).join(" ")}
          fill="none"
          strokeLinejoin="round"
          {...(liveLinks.has(link)
            ? { stroke: "var(--ink)", strokeWidth: 3 }
            : { stroke: "var(--soft)", strokeWidth: 1.3, strokeDasharray: "5 5" })}
        />
      ))}
      {drawing.batteries.map(({ id, x, y }) => (
        <BatteryBox key={id} rig={rig} power={power} id={id} x={x} y={y} />
      ))}
      {drawing.knobs.map(({ switch: id, x, y }) => (
        <Knob key={id} power={power} id={id} x={x} y={y} />
      ))}
      {drawing.breakers.map(({ breaker, link, x, y }) => (
        <BreakerPill key={link} rig={rig} power={power} id={breaker} x={x} y={y} />
      ))}
      {drawing.switches.map(({ switch: id, link, x, y }) => (
        <PanelKey key={link} power={power} id={id} x={x} y={y} isLive={liveLinks.has(link)} />
      ))}
      {drawing.loads.map(({ id, x, y }) => (
        <LoadName key={id} rig={rig} power={power} id={id} x={x} y={y} />
      ))}
    </svg>
  );
}

interface At {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

interface PressableProps {
  readonly says: string;
  readonly isPressed?: boolean;
  readonly onPress: () => void;
  /** Half its width and height, and how round its corners are: what is touched, and where focus is drawn. */
  readonly half: readonly [width: number, height: number];
  readonly round: number;
  readonly at: Pick<At, "x" | "y">;
  /** Half the height that is touched, where things lie closer than a finger is high. */
  readonly touch?: number;
  readonly children: ReactNode;
}

const touchHalf = 22;
/** Half the room of a load's name. */
const loadHalf = 90;

/** A drawn thing that a touch or Enter works; at least a finger high, with a focus ring of its own. */
function Pressable(props: PressableProps) {
  const { says, isPressed, onPress, half, round, at, touch = touchHalf, children } = props;
  const [width, height] = half;
  const { x, y } = at;
  const press = (event: KeyboardEvent) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    onPress();
  };
  const ring = { x: x - width - 3, y: y - height - 3, width: 2 * width + 6, height: 2 * height + 6, rx: round + 3 };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={says}
      {...(isPressed === undefined ? {} : { "aria-pressed": isPressed })}
      className="cursor-pointer outline-none [&:focus-visible>.wire-focus]:opacity-100"
      onClick={onPress}
      onKeyDown={press}
    >
      <title>{says}</title>
      <rect x={ring.x} y={y - touch} width={ring.width} height={2 * touch} fill="transparent" />
      <rect {...ring} className="wire-focus opacity-0" fill="none" stroke="var(--focus)" strokeWidth={3} />
      {children}
    </g>
  );
}

interface WordsProps extends Pick<At, "x" | "y"> {
  readonly size: number;
  readonly ink: string;
  readonly isBold?: boolean;
  /** Stands over wires: they are kept clear of it. */
  readonly isLoose?: boolean;
  readonly children: string;
}

function Words({ x, y, size, ink, isBold = false, isLoose = false, children }: WordsProps) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      fontSize={size}
      fontWeight={isBold ? 700 : 400}
      fill={ink}
      {...(isLoose ? { stroke: "var(--sheet)", strokeWidth: 4, paintOrder: "stroke" } : {})}
    >
      {children}
    </text>
  );
}

const cut = (text: string, most: number) => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);

function BatteryBox({ rig, power, id, x, y }: DiagramProps & At) {
  const tell = useTell();
  const { label: named, chemistry } = rig.batteries.find((each) => each.id === id)!;
  const label = tell(named);
  const isLoose = power.setting.loose.includes(id);
  const percent = Math.round((power.setting.charge[id] ?? 1) * 100);
  const ink = isLoose ? "var(--magenta)" : "var(--ink)";
  const mid = x + 66;
  return (
    <Pressable
      says={
        isLoose
          ? tell("{0}: a clamp is off. Put it on", label)
          : tell("{0}: {1} % charged. Take a clamp off", label, percent)
      }
      isPressed={isLoose}
      onPress={() => power.loosen(id)}
      half={[66, 26]}
      round={5}
      at={{ x: mid, y }}
    >
      <rect x={x} y={y - 26} width={132} height={52} rx={5} fill="var(--panel)" stroke={ink} strokeWidth={2} />
      <Words x={mid} y={y - 4} size={15} ink="var(--ink)" isBold>
        {cut(label, 17)}
      </Words>
      <Words x={mid} y={y + 15} size={13} ink={isLoose ? ink : "var(--soft)"}>
        {isLoose ? tell("▲ clamp off") : `${percent} % · ${tell(chemistry)}`}
      </Words>
    </Pressable>
  );
}

/** Where a switch stands, where it goes next (after the last to the first; one that springs back is let go), and its name. */
function readSwitch(power: Power, id: string, tell: Tell) {
  const { label, positions, springsBack } = power.switches.find((each) => each.id === id)!;
  const all = springsBack ? [...positions, atRest] : positions;
  const now = power.setting.positions[id] ?? (springsBack ? atRest : all[0]!);
  const next = all[(all.indexOf(now) + 1) % all.length]!;
  return {
    now,
    label,
    says: tell("{0}: {1}. Turn to {2}", label, now, next),
    turn: () => power.turn(id, next === atRest ? undefined : next),
  };
}

function Knob({ power, id, x, y }: { readonly power: Power } & At) {
  const tell = useTell();
  const { now, label, says, turn } = readSwitch(power, id, tell);
  const isOff = /^(off|normal)$/i.test(now);
  return (
    <Pressable says={says} onPress={turn} half={[27, 27]} round={27} at={{ x, y }}>
      <circle cx={x} cy={y} r={27} fill={isOff ? "var(--panel)" : "var(--helm)"} stroke="var(--ink)" strokeWidth={2} />
      <Words x={x} y={y + 5} size={13} ink={isOff ? "var(--ink)" : "var(--onhelm)"} isBold>
        {cut(now, 8)}
      </Words>
      <Words x={x} y={y + 43} size={12} ink="var(--soft)" isLoose>
        {cut(label, 22)}
      </Words>
    </Pressable>
  );
}

function BreakerPill({ rig, power, id, x, y }: DiagramProps & At) {
  const tell = useTell();
  const breaker = rig.breakers.find((each) => each.id === id);
  const label = tell.label(breaker?.label ?? id);
  const isOut = power.setting.tripped.includes(id);
  const ink = isOut ? "var(--magenta)" : "var(--ink)";
  return (
    <Pressable
      says={tell(isOut ? "{0}: tripped. Reset it" : "{0}: in. Trip it", label)}
      isPressed={isOut}
      onPress={() => power.trip(id)}
      half={[30, 13]}
      round={13}
      at={{ x, y }}
    >
      <rect x={x - 30} y={y - 13} width={60} height={26} rx={13} fill={isOut ? ink : "var(--panel)"} stroke={ink} />
      <Words x={x} y={y + 5} size={13} ink={isOut ? "var(--sheet)" : ink} isBold>
        {isOut ? tell("out") : `${breaker?.ratingA ?? ""} A`}
      </Words>
      <Words x={x} y={y - 17} size={11.5} ink="var(--soft)" isLoose>
        {cut(label, 14)}
      </Words>
    </Pressable>
  );
}

function PanelKey({ power, id, x, y, isLive }: { readonly power: Power; readonly isLive: boolean } & At) {
  const tell = useTell();
  const { now, says, turn } = readSwitch(power, id, tell);
  return (
    <Pressable says={says} onPress={turn} half={[38, 13]} round={3} at={{ x, y }}>
      <rect
        x={x - 38}
        y={y - 13}
        width={76}
        height={26}
        rx={3}
        fill={isLive ? "var(--helm)" : "var(--panel)"}
        stroke="var(--ink)"
      />
      <Words x={x} y={y + 5} size={12.5} ink={isLive ? "var(--onhelm)" : "var(--soft)"}>
        {cut(now === atRest ? tell("press") : now, 10)}
      </Words>
    </Pressable>
  );
}

function LoadName({ rig, power, id, x, y }: DiagramProps & At) {
  const tell = useTell();
  const load = rig.loads.find((each) => each.id === id)!;
  const label = tell.label(load.label);
  const { isLive } = power.reasons.find((each) => each.load === id)!;
  const draws = power.drawing.some((each) => each.load === id);
  const ink = draws ? "var(--magenta)" : isLive ? "var(--ink)" : "var(--soft)";
  const isReady = isLive && !draws && hasOwnButton(rig, load);
  const isOff = power.setting.wiresOff?.includes(id) === true;
  return (
    <Pressable
      says={
        isOff ? tell("{0}: its wire is off. Put it on", label) : tell("{0}: {1} A. Take its wire off", label, load.amps)
      }
      isPressed={isOff}
      onPress={() => power.unwire(id)}
      half={[loadHalf, 11]}
      round={3}
      touch={12}
      at={{ x: x + 8 + loadHalf, y }}
    >
      <text x={x + 8} y={y + 5} fontSize={14} fontWeight={draws ? 700 : 400} fill={isOff ? "var(--magenta)" : ink}>
        {draws ? "▲ " : ""}
        {cut(label, 20)}
        <tspan fontSize={12} fontWeight={400} fill={isOff ? "var(--magenta)" : "var(--soft)"}>
          {isOff ? ` ▲ ${tell("wire off")}` : isReady ? ` ${tell("ready")}` : ` ${load.amps} A`}
        </tspan>
      </text>
    </Pressable>
  );
}
