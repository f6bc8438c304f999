import { Anchor, Armchair, BatteryMedium, Cog, Droplets, LifeBuoy, type LucideIcon, ShipWheel } from "lucide-react";
import { type PointerEvent, useMemo, useRef, useState } from "react";
import { type Part, type PartKind, type Place, partGroups, type Rig } from "../../core/rig/index.ts";
import { DeckShapes, paperOf } from "./DeckPlan.tsx";

interface PlacePlanProps {
  readonly rig: Rig;
  readonly picked: string | null;
  /** The kind of thing to be put down next; a touch on the plan puts it there. */
  readonly armed: PartKind | null;
  readonly onPick: (part: string | null) => void;
  readonly onPut: (at: Place) => void;
  readonly onMove: (part: string, to: Place) => void;
  readonly className?: string;
}

const icons: Record<string, LucideIcon> = {
  Safety: LifeBuoy,
  Power: BatteryMedium,
  Helm: ShipWheel,
  "Engine and fuel": Cog,
  Water: Droplets,
  Deck: Armchair,
  "Anchor and gear": Anchor,
};
const symbolOf = (group: string) => `place-${group.toLowerCase().replaceAll(" ", "-")}`;
const symbols = new Map<PartKind, string>(
  partGroups.flatMap(({ name, kinds }) => kinds.map((kind) => [kind, symbolOf(name)] as const)),
);

const stepM = 0.05;
const bigStepM = 0.25;
const dragFromPx = 4;
const arrows: Record<string, readonly [forward: number, starboard: number]> = {
  ArrowUp: [1, 0],
  ArrowDown: [-1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** The deck plan to put things on: each can be dragged, or reached by Tab and moved with the arrow keys (Shift: further). */
export function PlacePlan({ rig, picked, armed, onPick, onPut, onMove, className = "" }: PlacePlanProps) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ part: string; at: Place } | null>(null);
  const start = useRef<{ part: string; x: number; y: number } | null>(null);
  const box = useMemo(() => paperOf(rig), [rig]);
  const toPlace = (event: PointerEvent | React.MouseEvent): Place => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { xM: round(-y), yM: round(x) };
  };
  return (
    <svg
      ref={svg}
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      className={`${className} ${armed === null ? "" : "cursor-crosshair"} touch-none`}
      role="group"
      aria-label={`Deck plan of the ${rig.model}, bow up, with everything placed on it`}
      onKeyDown={(event) => {
        if (event.key === "Escape") onPick(null);
      }}
      onClick={(event) => {
        if (armed !== null) onPut(toPlace(event));
        else if (event.target === svg.current) onPick(null);
      }}
    >
      <defs>
        {Object.entries(icons).map(([name, Icon]) => (
          <symbol key={name} id={symbolOf(name)} viewBox="0 0 24 24">
            <Icon aria-hidden />
          </symbol>
        ))}
      </defs>
      <DeckShapes rig={rig} />
      {rig.stations.map(({ id, label, at }) => (
        <g key={id}>
          <title>{`Place to stand: ${label}`}</title>
          <circle cx={at.yM} cy={-at.xM} r="0.1" fill="none" stroke="var(--soft)" strokeWidth="0.03" />
        </g>
      ))}
      {rig.parts.map((part) => (
        <PartHandle
          key={part.id}
          part={drag?.part === part.id ? { ...part, at: drag.at } : part}
          isPicked={picked === part.id}
          onFocus={() => armed === null && onPick(part.id)}
          onArrow={(key, isFar) => {
            const [forward, starboard] = arrows[key]!;
            const size = isFar ? bigStepM : stepM;
            const { xM, yM } = part.at;
            onMove(part.id, { xM: round(xM + forward * size), yM: round(yM + starboard * size) });
          }}
          onDown={(event) => {
            if (armed !== null) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            start.current = { part: part.id, x: event.clientX, y: event.clientY };
            onPick(part.id);
          }}
          onDrag={(event) => {
            const from = start.current;
            if (from?.part !== part.id) return;
            const isFar = Math.hypot(event.clientX - from.x, event.clientY - from.y) > dragFromPx;
            if (isFar || drag !== null) setDrag({ part: part.id, at: toPlace(event) });
          }}
          onUp={() => {
            if (drag !== null && start.current?.part === part.id) onMove(part.id, drag.at);
            start.current = null;
            setDrag(null);
          }}
        />
      ))}
    </svg>
  );
}

interface HandleProps {
  readonly part: Part;
  readonly isPicked: boolean;
  readonly onFocus: () => void;
  readonly onArrow: (key: string, isFar: boolean) => void;
  readonly onDown: (event: PointerEvent<SVGGElement>) => void;
  readonly onDrag: (event: PointerEvent<SVGGElement>) => void;
  readonly onUp: () => void;
}

function PartHandle({ part, isPicked, onFocus, onArrow, onDown, onDrag, onUp }: HandleProps) {
  const { xM, yM } = part.at;
  const sizeM = isPicked ? 0.34 : 0.24;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={part.label}
      aria-pressed={isPicked}
      className="cursor-grab touch-none"
      onFocus={onFocus}
      onKeyDown={(event) => {
        if (!Object.hasOwn(arrows, event.key)) return;
        event.preventDefault();
        onArrow(event.key, event.shiftKey);
      }}
      onPointerDown={onDown}
      onPointerMove={onDrag}
      onPointerUp={onUp}
      onPointerCancel={onUp}
    >
      <title>{part.label}</title>
      <circle cx={yM} cy={-xM} r="0.26" fill="transparent" />
      <circle cx={yM} cy={-xM} r="0.3" className="focus-ring" />
      <circle
        cx={yM}
        cy={-xM}
        r={sizeM * 0.62}
        fill={isPicked ? "var(--helm)" : "var(--panel)"}
        stroke="var(--ink)"
        strokeWidth="0.02"
      />
      <use
        href={`#${symbols.get(part.kind)}`}
        x={yM - sizeM / 2.6}
        y={-xM - sizeM / 2.6}
        width={sizeM / 1.3}
        height={sizeM / 1.3}
        color={isPicked ? "var(--onhelm)" : "var(--ink)"}
      />
    </g>
  );
}

const round = (metres: number) => Math.round(metres * 100) / 100;
