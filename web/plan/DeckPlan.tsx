import { memo, useMemo } from "react";
import { boundsOf, type DeckDrawing, drawCourse, drawDeck, type PaperBox } from "../../core/drawing/index.ts";
import { cornersOf, type Part, type Place, type Rig } from "../../core/rig/index.ts";
import type { Plan } from "../../core/route/index.ts";
import { useTell } from "../ui/tell.ts";

export interface StationSign {
  /** The number in the ring: the stop of the walk. */
  readonly number: number | null;
  readonly look: "ahead" | "done" | "current" | "quiet";
  /** Something is wrong here. */
  readonly hasSnag?: boolean;
}

interface DeckPlanProps {
  readonly rig: Rig;
  /** The walk's order, drawn as the course line. */
  readonly plan?: Plan;
  /** The stop from which the course goes on; its next leg is drawn stronger. */
  readonly stop?: number;
  readonly signs?: ReadonlyMap<string, StationSign>;
  readonly onPick?: (stationId: string) => void;
  readonly picked?: string | null;
  /** Where something is wrong. */
  readonly wrong?: readonly { readonly id: string; readonly note: string; readonly place: Place }[];
  /** Things to point at. */
  readonly parts?: readonly Part[];
  /** On its side, bow to the right: for a band across a page. */
  readonly isLying?: boolean;
  readonly className?: string;
}

const margin = 0.38;

/** The boat from above, bow up or to the right: the spine of every screen about a boat. Places can be touched and reached by Tab. */
export function DeckPlan(props: DeckPlanProps) {
  const tell = useTell();
  const { rig, plan, stop, signs, onPick, picked, parts, wrong, isLying = false, className = "" } = props;
  const box = useMemo(() => paperOf(rig), [rig]);
  const viewBox = isLying
    ? `${-box.y - box.height} ${box.x} ${box.height} ${box.width}`
    : `${box.x} ${box.y} ${box.width} ${box.height}`;
  const turn = isLying ? { transform: "rotate(90)" } : {};
  return (
    <div className={`grid grid-cols-1 grid-rows-1 ${className}`}>
      {/* The boat in a layer of its own: a mark paints the rings anew, not the boat. */}
      <svg viewBox={viewBox} className="col-start-1 row-start-1 size-full min-h-0 will-change-transform" aria-hidden>
        <g {...turn}>
          <DeckShapes rig={rig} />
        </g>
      </svg>
      <svg
        viewBox={viewBox}
        className="col-start-1 row-start-1 size-full min-h-0 will-change-transform"
        role={onPick === undefined ? "img" : "group"}
        aria-label={tell(
          isLying ? "Deck plan of the {0}, bow to the right" : "Deck plan of the {0}, bow up",
          rig.model,
        )}
      >
        <g {...turn}>
          {plan !== undefined && <Course rig={rig} plan={plan} {...(stop === undefined ? {} : { stop })} />}
          {parts?.map((part) => (
            <PartSign key={part.id} part={part} />
          ))}
          {wrong?.map(({ id, note, place }) => (
            <g key={id}>
              <title>{note}</title>
              <WrongSign place={place} sizeM={0.34} isLying={isLying} />
            </g>
          ))}
          {rig.stations.map((station) => {
            const sign = signs?.get(station.id);
            if (sign === undefined && onPick === undefined) return null;
            return (
              <StationRing
                key={station.id}
                label={station.label}
                x={station.at.yM}
                y={-station.at.xM}
                sign={sign ?? { number: null, look: "quiet" }}
                isPicked={picked === station.id}
                isLying={isLying}
                {...(onPick === undefined ? {} : { onPick: () => onPick(station.id) })}
              />
            );
          })}
        </g>
      </svg>
    </div>
  );
}

/** The paper the boat and everywhere people stand fit on. */
export function paperOf(rig: Rig) {
  const { box } = deckOf(rig);
  const places = [...rig.stations.map(({ at }) => at), ...cornersOf(rig)];
  const xs = places.map(({ yM }) => yM);
  const ys = places.map(({ xM }) => -xM);
  const x = Math.min(box.x, ...xs.map((value) => value - margin));
  const y = Math.min(box.y, ...ys.map((value) => value - margin));
  return {
    x,
    y,
    width: Math.max(box.x + box.width, ...xs.map((value) => value + margin)) - x,
    height: Math.max(box.y + box.height, ...ys.map((value) => value + margin)) - y,
  };
}

interface Drawn extends DeckDrawing {
  /** Of each shape, in their order. */
  readonly bounds: readonly PaperBox[];
}

/** Drawn once for a boat, however many pictures of it stand on a page or come with the next topic. */
const drawnOf = new WeakMap<Rig, Drawn>();

function deckOf(rig: Rig): Drawn {
  const known = drawnOf.get(rig);
  if (known !== undefined) return known;
  const deck = drawDeck(rig, { trailer: rig.trailer !== null });
  const drawn = { ...deck, bounds: deck.shapes.map(boundsOf) };
  drawnOf.set(rig, drawn);
  return drawn;
}

/** A curve may reach so far beyond the ends of its pieces. Metres. */
const bulgeM = 0.3;

const meets = (a: PaperBox, b: PaperBox) =>
  a.x < b.x + b.width + bulgeM &&
  b.x < a.x + a.width + bulgeM &&
  a.y < b.y + b.height + bulgeM &&
  b.y < a.y + a.height + bulgeM;

interface DeckShapesProps {
  readonly rig: Rig;
  /** The part of the paper that is seen: what lies elsewhere is left out. */
  readonly seen?: PaperBox;
}

/** The drawing itself, which changes only with the boat. */
export const DeckShapes = memo(function DeckShapes({ rig, seen }: DeckShapesProps) {
  const { shapes, bounds } = deckOf(rig);
  const shown = seen === undefined ? shapes : shapes.filter((_, i) => meets(bounds[i]!, seen));
  return (
    <g aria-hidden>
      {shown.map(({ role, d }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the drawing is fixed and has no other name for a line
        <path key={i} d={d} className={`deck-${role}`} />
      ))}
    </g>
  );
});

const Course = memo(function Course({ rig, plan, stop }: { rig: Rig; plan: Plan; stop?: number }) {
  // A mark makes a new plan that mostly goes the same way: the line is drawn anew where the way is another one.
  const way = plan.visits.map(({ station }) => station).join(" ");
  const legs = useMemo(
    () =>
      drawCourse(
        rig,
        way.split(" ").map((station) => ({ station })),
      ),
    [rig, way],
  );
  return (
    <g aria-hidden>
      {legs.map((d, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a leg is known by its place in the walk
          key={i}
          d={d}
          className={i === stop ? "deck-course-next" : "deck-course"}
          opacity={stop !== undefined && i < stop ? 0.28 : 1}
        />
      ))}
    </g>
  );
});

interface WrongSignProps {
  readonly place: Place;
  readonly sizeM: number;
  /** It stands upright on a plan that lies. */
  readonly isLying?: boolean;
}

/** Something is wrong here. */
export function WrongSign({ place: { xM, yM }, sizeM, isLying = false }: WrongSignProps) {
  const half = sizeM * 0.58;
  const d = `M${yM} ${-xM - half}l${half} ${sizeM}h${-2 * half}z`;
  const turn = isLying ? { transform: `rotate(-90 ${yM} ${-xM})` } : {};
  return <path d={d} {...turn} fill="var(--magenta)" stroke="var(--panel)" strokeWidth={sizeM * 0.09} />;
}

function PartSign({ part }: { part: Part }) {
  const { xM, yM } = part.at;
  return (
    <g>
      <title>{part.label}</title>
      <path
        d={`M${yM} ${-xM - 0.13}L${yM + 0.13} ${-xM}L${yM} ${-xM + 0.13}L${yM - 0.13} ${-xM}Z`}
        fill="var(--panel)"
        stroke="var(--magenta)"
        strokeWidth="0.045"
      />
    </g>
  );
}

interface RingProps {
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly sign: StationSign;
  readonly isPicked: boolean;
  readonly isLying: boolean;
  readonly onPick?: () => void;
}

function StationRing({ label, x, y, sign, isPicked, isLying, onPick }: RingProps) {
  const isDark = sign.look === "done";
  const isCurrent = sign.look === "current";
  const radius = sign.number === null ? 0.13 : 0.235;
  const tell = useTell();
  const says = [
    tell.label(label),
    ...(sign.number === null ? [] : [tell("stop {0}", sign.number)]),
    ...(isCurrent ? [tell("you are here")] : isDark ? [tell("done")] : []),
    ...(sign.hasSnag ? [tell("snag")] : []),
  ].join(", ");
  return (
    <g
      {...(onPick === undefined
        ? {}
        : {
            role: "button",
            tabIndex: 0,
            "aria-label": says,
            "aria-pressed": isPicked,
            onClick: onPick,
            onKeyDown: (event) => {
              if (event.key !== "Enter" && event.key !== " ") return;
              event.preventDefault();
              event.stopPropagation();
              onPick();
            },
          })}
    >
      <circle cx={x} cy={y} r="0.34" fill="transparent" />
      <circle cx={x} cy={y} r="0.4" className="focus-ring" />
      {isCurrent && <circle cx={x} cy={y} r="0.33" fill="none" stroke="var(--magenta)" strokeWidth="0.07" />}
      {isPicked && !isCurrent && <circle cx={x} cy={y} r="0.32" fill="none" stroke="var(--helm)" strokeWidth="0.05" />}
      <circle
        cx={x}
        cy={y}
        r={radius}
        fill={isDark ? "var(--ink)" : "var(--panel)"}
        stroke={isCurrent ? "var(--magenta)" : "var(--ink)"}
        strokeWidth="0.035"
      />
      {sign.number !== null && (
        <text
          x={x}
          y={y + 0.09}
          textAnchor="middle"
          fontSize="0.25"
          fontWeight="700"
          fontFamily="var(--font-head)"
          fill={isDark ? "var(--sheet)" : "var(--ink)"}
          {...(isLying ? { transform: `rotate(-90 ${x} ${y})` } : {})}
          aria-hidden
        >
          {sign.number}
        </text>
      )}
      {sign.hasSnag && (
        <path
          d={`M${x + 0.2} ${y - 0.36}l0.14 0.24h-0.28z`}
          {...(isLying ? { transform: `rotate(-90 ${x} ${y})` } : {})}
          fill="var(--magenta)"
          stroke="var(--panel)"
          strokeWidth="0.02"
        />
      )}
    </g>
  );
}
