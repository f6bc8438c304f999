import { drawHullLine } from "../../core/drawing/index.ts";

/** A boat's own outline lying on its side, bow to the right, for one line of a table. All boats at one scale. */
export function HullSign({ loaM, beamM, engines }: { loaM: number; beamM: number; engines: number }) {
  const pxPerM = 19;
  const outboards = Array.from({ length: engines }, (_, i) => (i - (engines - 1) / 2) * 0.62);
  return (
    <svg
      aria-hidden
      width={(loaM + 1.1) * pxPerM}
      height={beamM * pxPerM + 4}
      viewBox={`${-loaM / 2 - 0.9} ${-loaM / 2 - beamM / 2 - 0.1} ${loaM + 1.1} ${beamM + 0.2}`}
      preserveAspectRatio="xMidYMid meet"
      className="overflow-visible"
    >
      <g transform={`rotate(90 0 ${-loaM / 2})`}>
        {outboards.map((y) => (
          <rect key={y} x={y - 0.2} y={0.02} width="0.4" height="0.62" rx="0.12" fill="var(--ink)" />
        ))}
        <path d={drawHullLine({ loaM, beamM })} fill="var(--panel)" stroke="var(--ink)" strokeWidth="0.09" />
        <rect
          x={-0.5}
          y={-loaM * 0.56}
          width="1"
          height={loaM * 0.15}
          rx="0.15"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="0.07"
        />
        <rect
          x={-0.5}
          y={-loaM * 0.36}
          width="1"
          height={loaM * 0.06}
          rx="0.1"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="0.07"
        />
        <rect
          x={-0.92}
          y={-loaM * 0.57}
          width="1.84"
          height={loaM * 0.33}
          rx="0.2"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="0.05"
          strokeDasharray="0.2 0.14"
        />
      </g>
    </svg>
  );
}
