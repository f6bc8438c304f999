import { useMemo } from "react";
import { drawRamp, type RampPoint, type RampScene } from "../../core/ramp/index.ts";
import { say } from "../ui/amounts.ts";
import { storeRegion } from "../ui/storeTime.ts";

interface RampSketchProps {
  readonly scene: RampScene;
  readonly hasOutboard: boolean;
  /** The wheels would stand deeper than the car may. */
  readonly isTooDeep: boolean;
  /** What is to be seen, in words. */
  readonly label: string;
}

const wheelM = 0.34;
/** Air and ground around what is drawn. */
const aboveM = 1.1;
const belowM = 0.7;

/** Towing car, trailer and boat on the ramp at the moment the stern floats: a side section to scale, the water where it stands. */
export function RampSketch({ scene, hasOutboard, isTooDeep, label }: RampSketchProps) {
  const drawing = useMemo(() => drawRamp(scene), [scene]);
  const { ground, edge, waterY, angle } = drawing;
  const [left, foot] = [ground[0]!, ground[2]!];
  const width = foot.xM - left.xM;
  const top = Math.max(left.yM + 1.8, drawing.bow.yM + 1.4, waterY) + aboveM;
  const bottom = foot.yM - belowM;
  const height = top - bottom;
  const turn = `rotate(${(angle * 180) / Math.PI})`;
  const at = (point: RampPoint) => `translate(${point.xM} ${-point.yM}) ${turn}`;
  const { loaM } = scene;
  const { trailer, vehicle } = scene.ask;
  const depthM = 0.16 * loaM;
  // Text keeps its size on paper whatever is drawn: the section is about as wide as a screen.
  const textM = width / 62;
  return (
    <svg viewBox={`${left.xM} ${-top} ${width} ${height}`} className="w-full" role="img" aria-label={label}>
      <polygon
        points={[edge, { xM: foot.xM, yM: waterY }, foot].map(({ xM, yM }) => `${xM},${-yM}`).join(" ")}
        className="fill-deep"
        opacity={0.55}
      />
      <polygon
        points={[...ground, { xM: foot.xM, yM: bottom }, { xM: left.xM, yM: bottom }]
          .map(({ xM, yM }) => `${xM},${-yM}`)
          .join(" ")}
        className="fill-buff stroke-ink"
        strokeWidth={0.03}
      />
      <g className="stroke-ink" strokeWidth={0.045} strokeLinejoin="round" strokeLinecap="round">
        <g transform={at(drawing.transomFoot)}>
          <Trailer reachM={trailer.hitchToTransomM} bunkM={trailer.bunkHeightM} boatM={loaM} />
          <Boat bunkM={trailer.bunkHeightM} loaM={loaM} depthM={depthM} hasOutboard={hasOutboard} />
        </g>
        {drawing.trailerWheels.map((wheel) => (
          <Wheel key={wheel.xM} at={at(wheel)} />
        ))}
        <g transform={at(drawing.fenderFoot)}>
          <path
            d={`M${-0.5 - scene.axles * 0.25} ${-trailer.fenderHeightM * 0.72} Q${-0.35 - scene.axles * 0.25} ${-trailer.fenderHeightM} 0 ${-trailer.fenderHeightM} Q${0.35 + scene.axles * 0.25} ${-trailer.fenderHeightM} ${0.5 + scene.axles * 0.25} ${-trailer.fenderHeightM * 0.72}`}
            className="fill-none stroke-magenta"
            strokeWidth={0.08}
          />
        </g>
        <g transform={at(drawing.rearWheel)}>
          <Car hitchM={vehicle.hitchToRearAxleM} />
        </g>
        <Wheel at={at(drawing.frontWheel)} />
        <Wheel at={at(drawing.rearWheel)} />
      </g>
      <line x1={edge.xM} y1={-waterY} x2={foot.xM} y2={-waterY} className="stroke-helm" strokeWidth={0.04} />
      <line
        x1={edge.xM}
        y1={-edge.yM}
        x2={edge.xM}
        y2={-edge.yM - 1.9}
        className="stroke-helm"
        strokeWidth={0.025}
        strokeDasharray="0.08 0.08"
      />
      <circle cx={drawing.fenderTop.xM} cy={-drawing.fenderTop.yM} r={0.09} className="fill-magenta" />
      <g style={{ fontSize: textM }} className="head max-md:hidden">
        <text x={edge.xM} y={-edge.yM - 2} textAnchor="middle" className="fill-helm">
          water's edge
        </text>
        <Lead from={drawing.fenderTop} to={{ xM: drawing.fenderTop.xM, yM: bottom + 0.45 }} look="stroke-magenta" />
        <text x={drawing.fenderTop.xM - 0.1} y={-bottom - 0.32} textAnchor="end" className="fill-magenta font-bold">
          {sayMark(drawing.fenderUnderM)}
        </text>
        <Lead from={drawing.transom} to={{ xM: drawing.transom.xM, yM: top - 0.5 }} look="stroke-helm" />
        <text x={drawing.transom.xM - 0.1} y={-top + 0.62} textAnchor="end" className="fill-helm">
          stern floats: {say(drawing.draftM, "height")} of water
        </text>
        <Lead
          from={drawing.rearWheel}
          to={{ xM: drawing.rearWheel.xM, yM: drawing.rearWheel.yM - 1.15 }}
          look="stroke-soft"
        />
        <text
          x={drawing.rearWheel.xM - 0.1}
          y={-drawing.rearWheel.yM + 1.2}
          textAnchor="end"
          className={isTooDeep ? "fill-magenta font-bold" : "fill-soft"}
        >
          {isTooDeep ? "▲ " : ""}rear wheels {sayDepth(drawing.rearWheelDepthM)}
        </text>
        <ScaleBar xM={left.xM + 0.6} yM={bottom + 0.35} />
      </g>
    </svg>
  );
}

/** (0.07) → "top of fender 3 in under"; (−0.05) → "top of fender 2 in out of the water". */
export const sayMark = (underM: number): string =>
  Math.abs(underM) < 0.005
    ? "top of fender just under"
    : `top of fender ${say(Math.abs(underM), "height")} ${underM > 0 ? "under" : "out of the water"}`;
export const sayDepth = (depthM: number): string => (depthM < 0.005 ? "dry" : `${say(depthM, "height")} deep`);

const Lead = ({ from, to, look }: { from: RampPoint; to: RampPoint; look: string }) => (
  <line x1={from.xM} y1={-from.yM} x2={to.xM} y2={-to.yM} className={look} strokeWidth={0.025} />
);

function ScaleBar({ xM, yM }: { xM: number; yM: number }) {
  const isFeet = storeRegion().units !== "metric";
  const lengthM = isFeet ? 5 * 0.3048 : 1;
  return (
    <>
      <path
        d={`M${xM} ${-yM - 0.08} v0.16 M${xM} ${-yM} h${lengthM} M${xM + lengthM} ${-yM - 0.08} v0.16`}
        className="stroke-ink"
        strokeWidth={0.025}
      />
      <text x={xM + lengthM / 2} y={-yM - 0.14} textAnchor="middle" className="fill-ink">
        {isFeet ? "5 ft" : "1 m"}
      </text>
    </>
  );
}

function Wheel({ at }: { at: string }) {
  return (
    <g transform={at}>
      <circle cy={-wheelM} r={wheelM} className="fill-soft" />
      <circle cy={-wheelM} r={wheelM * 0.42} className="fill-sheet" />
    </g>
  );
}

/** From its rear wheel, nose up the ramp: a plain estate car. */
function Car({ hitchM }: { hitchM: number }) {
  const rear = Math.max(0.55, hitchM - 0.18);
  return (
    <>
      <path d={`M0 -0.42 H${hitchM}`} className="fill-none" strokeWidth={0.09} />
      <path
        d={`M-3.5 -0.34 L-3.52 -0.72 Q-3.45 -0.98 -2.55 -1.04 L-1.85 -1.5 Q-1.7 -1.6 -1.4 -1.6 L${rear - 0.5} -1.58 Q${rear - 0.28} -1.56 ${rear - 0.14} -1.05 L${rear} -0.98 L${rear} -0.34 Z`}
        className="fill-panel"
      />
      <path
        d={`M-2.35 -1.06 L-1.78 -1.44 H-1.05 V-1.06 Z M-0.92 -1.06 V-1.46 H${rear - 0.55} L${rear - 0.32} -1.06 Z`}
        className="fill-shoal"
      />
    </>
  );
}

/** From the foot of the transom up the ramp to the coupler. */
function Trailer({ reachM, bunkM, boatM }: { reachM: number; bunkM: number; boatM: number }) {
  const frameM = Math.min(0.42, bunkM * 0.75);
  const post = -Math.min(reachM - 0.5, boatM + 0.25);
  return (
    <g className="fill-none">
      <path d={`M${-reachM} -0.42 L${-reachM + 1} ${-frameM} H-0.15`} strokeWidth={0.09} />
      <path d={`M${-0.62 * boatM} ${-bunkM} H-0.05`} strokeWidth={0.12} className="stroke-soft" />
      <path d={`M${-0.5 * boatM} ${-frameM} V${-bunkM} M${-0.15 * boatM} ${-frameM} V${-bunkM}`} />
      <path d={`M${post} ${-frameM} L${post + 0.25} ${-frameM - 0.85}`} />
      <circle cx={post + 0.25} cy={-frameM - 0.85} r={0.09} className="fill-sheet" />
    </g>
  );
}

interface BoatProps {
  readonly bunkM: number;
  readonly loaM: number;
  readonly depthM: number;
  readonly hasOutboard: boolean;
}

function Boat({ bunkM, loaM, depthM, hasOutboard }: BoatProps) {
  const y = (heightM: number) => -(bunkM + heightM);
  return (
    <>
      {hasOutboard && (
        <g transform={`translate(0.05 ${y(depthM * 0.85)}) rotate(-38)`}>
          <path
            d="M0 -0.45 Q0.05 -0.62 0.3 -0.6 Q0.5 -0.58 0.48 -0.2 L0.34 -0.12 L0.28 0.7 L0.42 0.86 H0.02 L0.08 -0.08 Z"
            className="fill-ink"
          />
        </g>
      )}
      <path
        d={`M0 ${y(0)} L${-0.6 * loaM} ${y(0)} Q${-0.88 * loaM} ${y(depthM * 0.15)} ${-loaM} ${y(depthM * 1.25)} L${-0.4 * loaM} ${y(depthM)} L0.06 ${y(depthM * 0.9)} Z`}
        className="fill-panel"
      />
      <path
        d={`M${-0.97 * loaM} ${y(depthM * 0.95)} Q${-0.5 * loaM} ${y(depthM * 0.72)} 0.04 ${y(depthM * 0.62)}`}
        className="fill-none"
        strokeWidth={0.025}
      />
      <path
        d={`M${-0.5 * loaM} ${y(depthM)} l${0.06 * loaM} -0.55 h${0.1 * loaM} l${0.05 * loaM} 0.55`}
        className="fill-shoal"
      />
    </>
  );
}
