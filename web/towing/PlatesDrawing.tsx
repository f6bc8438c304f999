import { useTell } from "../ui/tell.ts";

/** Where each figure stands on a car, by its number in the list. Drawn here; no car that anybody makes. */
export const plateNumbers = { door: 1, papers: 2, hitch: 3, ball: 4, socket: 5, wheel: 6 } as const;
export type PlatePlace = keyof typeof plateNumbers;

const spots: Readonly<Record<PlatePlace, { at: readonly [x: number, y: number]; says: string }>> = {
  door: { at: [152, 92], says: "driver's door frame" },
  papers: { at: [196, 84], says: "papers, in the glove box" },
  hitch: { at: [44, 118], says: "plate on the hitch, under the bumper" },
  ball: { at: [16, 96], says: "top of the ball" },
  socket: { at: [40, 142], says: "socket beside the hitch" },
  wheel: { at: [86, 136], says: "rear wheel, down to the hub" },
};

/** A car from its left side, rear to the left, with numbers where its plates are. */
export function PlatesDrawing() {
  const tell = useTell();
  return (
    <figure>
      <svg
        role="img"
        aria-label={tell("A car from the side, with numbers where its plates are found")}
        viewBox="0 0 300 160"
        className="w-full max-w-md"
      >
        <line x1="0" x2="300" y1="146" y2="146" className="stroke-rule" strokeWidth="2" />
        <path
          d="M34 122 L34 84 Q36 72 48 70 L62 42 Q66 36 76 36 L172 36 Q182 36 190 44 L214 70 L258 78 Q276 82 278 98 L280 122 L258 122 A22 22 0 0 0 214 122 L108 122 A22 22 0 0 0 64 122 Z"
          className="fill-shoal stroke-ink"
          strokeWidth="2.5"
          strokeLinejoin="round"
        />
        <path
          d="M74 46 L126 46 L126 70 L64 70 Z M134 46 L170 46 Q176 46 182 52 L198 70 L134 70 Z"
          className="fill-panel stroke-ink"
          strokeWidth="1.5"
        />
        <path d="M130 46 L130 118 M134 82 L146 82" className="stroke-ink" strokeWidth="1.5" fill="none" />
        {[86, 236].map((x) => (
          <g key={x}>
            <circle cx={x} cy="124" r="20" className="fill-ink" />
            <circle cx={x} cy="124" r="9" className="fill-panel" />
          </g>
        ))}
        <path d="M36 126 L14 126 L14 116" className="stroke-ink" strokeWidth="4" fill="none" />
        <circle cx="14" cy="111" r="5.5" className="fill-ink" />
        {Object.entries(spots).map(
          ([
            place,
            {
              at: [x, y],
            },
          ]) => (
            <g key={place}>
              <circle cx={x} cy={y} r="9.5" className="fill-helm stroke-panel" strokeWidth="1.5" />
              <text x={x} y={y + 4.5} textAnchor="middle" className="num fill-onhelm text-[12px] font-bold">
                {plateNumbers[place as PlatePlace]}
              </text>
            </g>
          ),
        )}
      </svg>
      <figcaption className="text-sm text-soft">
        {Object.entries(spots)
          .map(([place, { says }]) => `${plateNumbers[place as PlatePlace]} ${tell(says)}`)
          .join(" · ")}
      </figcaption>
    </figure>
  );
}
