import { Maximize2, ZoomIn, ZoomOut } from "lucide-react";
import { type CSSProperties, type PointerEvent, useMemo, useRef, useState } from "react";
import { spreadMarks } from "../../core/drawing/spreadMarks.ts";
import type { Part, PartKind, Place, Rig } from "../../core/rig/index.ts";
import { Button } from "../ui/Button.tsx";
import { DeckShapes, paperOf } from "./DeckPlan.tsx";
import { partSigns } from "./partSigns.ts";
import { usePlanZoom } from "./usePlanZoom.ts";

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

const stepM = 0.05;
const bigStepM = 0.25;
const dragFromPx = 4;
/** Two signs so far apart do not touch, at the whole boat; closer, they need less of it. */
const apartM = 0.33;
const arrows: Record<string, readonly [forward: number, starboard: number]> = {
  ArrowUp: [1, 0],
  ArrowDown: [-1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/**
 * The deck plan to put things on: each can be dragged, or reached by Tab and moved with the arrow keys (Shift: further). Signs
 * that would lie on each other stand around, each with a line to where its thing is; looked at closer, they go back to it.
 */
export function PlacePlan({ rig, picked, armed, onPick, onPut, onMove, className = "" }: PlacePlanProps) {
  const svg = useRef<SVGSVGElement>(null);
  const paper = useRef<SVGGElement>(null);
  const [drag, setDrag] = useState<{ part: string; at: Place } | null>(null);
  const start = useRef<{ part: string; x: number; y: number } | null>(null);
  const box = useMemo(() => paperOf(rig), [rig]);
  const view = usePlanZoom(svg, box);
  const { k } = view.transform;
  const signs = useMemo(
    () =>
      spreadMarks(
        rig.parts.map((part) => ({ part, xM: part.at.xM, yM: part.at.yM })),
        apartM / k,
      ),
    [rig.parts, k],
  );
  const toPlace = (event: PointerEvent | React.MouseEvent): Place => {
    const matrix = paper.current!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { xM: round(-y), yM: round(x) };
  };
  return (
    <div className={`relative ${className}`}>
      <svg
        ref={svg}
        viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
        className={`size-full ${armed === null ? (k > 1 ? "cursor-grab" : "") : "cursor-crosshair"} ${k > 1 ? "touch-none" : "touch-pan-y"}`}
        role="group"
        aria-label={`Deck plan of the ${rig.model}, bow up, with everything placed on it`}
        onKeyDown={(event) => {
          if (event.key === "Escape") onPick(null);
          else if (event.key === "+" || event.key === "=") view.zoomIn();
          else if (event.key === "-") view.zoomOut();
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
        onClick={(event) => {
          if (armed !== null) onPut(toPlace(event));
          else if (event.target === svg.current) onPick(null);
        }}
      >
        <g ref={paper} transform={view.transform.toString()} style={{ "--paper-scale": 1 / k } as CSSProperties}>
          <DeckShapes rig={rig} />
          {rig.stations.map(({ id, label, at }) => (
            <g key={id}>
              <title>{`Place to stand: ${label}`}</title>
              <circle cx={at.yM} cy={-at.xM} r={0.1 / k} fill="none" stroke="var(--soft)" strokeWidth={0.03 / k} />
            </g>
          ))}
          {signs.map(({ part, at, xM, yM }) =>
            part.id === drag?.part ? null : <Leader key={part.id} at={at} to={{ xM, yM }} scale={1 / k} />,
          )}
          {signs.map(({ part, xM, yM }) => (
            <PartHandle
              key={part.id}
              part={part}
              place={drag?.part === part.id ? drag.at : { xM, yM }}
              scale={1 / k}
              isPicked={picked === part.id}
              onFocus={() => {
                view.reveal(yM, -xM);
                if (armed === null) onPick(part.id);
              }}
              onArrow={(key, isFar) => {
                const [forward, starboard] = arrows[key]!;
                const size = isFar ? bigStepM : stepM;
                onMove(part.id, {
                  xM: round(part.at.xM + forward * size),
                  yM: round(part.at.yM + starboard * size),
                });
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
        </g>
      </svg>
      <p className="absolute right-0 bottom-0 flex flex-col gap-1">
        <ViewButton says="Closer" keys="+" icon={ZoomIn} onPress={view.zoomIn} />
        <ViewButton says="Further away" keys="-" icon={ZoomOut} onPress={view.zoomOut} isOff={k === 1} />
        <ViewButton says="The whole boat" icon={Maximize2} onPress={view.showWhole} isOff={k === 1} />
      </p>
    </div>
  );
}

interface ViewButtonProps {
  readonly says: string;
  readonly keys?: string;
  readonly icon: typeof ZoomIn;
  readonly onPress: () => void;
  readonly isOff?: boolean;
}

function ViewButton({ says, keys, icon: Icon, onPress, isOff = false }: ViewButtonProps) {
  return (
    <Button
      className="w-11 bg-panel px-0!"
      aria-label={says}
      title={keys === undefined ? says : `${says} (${keys} on the plan)`}
      {...(keys === undefined ? {} : { "aria-keyshortcuts": keys })}
      disabled={isOff}
      onClick={onPress}
    >
      <Icon size={18} aria-hidden />
    </Button>
  );
}

/** From a sign that stands aside to where its thing is. */
function Leader({ at, to, scale }: { at: Place; to: Place; scale: number }) {
  if (Math.hypot(at.xM - to.xM, at.yM - to.yM) < 0.06 * scale) return null;
  return (
    <g aria-hidden>
      <path d={`M${at.yM} ${-at.xM}L${to.yM} ${-to.xM}`} stroke="var(--ink)" strokeWidth={0.02 * scale} fill="none" />
      <circle cx={at.yM} cy={-at.xM} r={0.035 * scale} fill="var(--ink)" />
    </g>
  );
}

interface HandleProps {
  readonly part: Part;
  /** Where its sign is drawn. */
  readonly place: Place;
  /** Paper for what is a metre at the whole boat. */
  readonly scale: number;
  readonly isPicked: boolean;
  readonly onFocus: () => void;
  readonly onArrow: (key: string, isFar: boolean) => void;
  readonly onDown: (event: PointerEvent<SVGGElement>) => void;
  readonly onDrag: (event: PointerEvent<SVGGElement>) => void;
  readonly onUp: () => void;
}

function PartHandle({ part, place: { xM, yM }, scale, isPicked, onFocus, onArrow, onDown, onDrag, onUp }: HandleProps) {
  const sizeM = (isPicked ? 0.34 : 0.24) * scale;
  const Sign = partSigns[part.kind];
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
      <circle cx={yM} cy={-xM} r={0.26 * scale} fill="transparent" />
      <circle cx={yM} cy={-xM} r={0.3 * scale} className="focus-ring" />
      <circle
        cx={yM}
        cy={-xM}
        r={sizeM * 0.62}
        fill={isPicked ? "var(--helm)" : "var(--panel)"}
        stroke="var(--ink)"
        strokeWidth={0.02 * scale}
      />
      <Sign
        x={yM - sizeM / 2.6}
        y={-xM - sizeM / 2.6}
        width={sizeM / 1.3}
        height={sizeM / 1.3}
        color={isPicked ? "var(--onhelm)" : "var(--ink)"}
        aria-hidden
      />
    </g>
  );
}

const round = (metres: number) => Math.round(metres * 100) / 100;
