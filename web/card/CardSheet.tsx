import type { Card, CardBlock } from "../../core/card/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { DeckShapes, paperOf } from "../plan/DeckPlan.tsx";
import { Caution } from "../ui/Notice.tsx";
import { useTell } from "../ui/tell.ts";

/** A card of the owner pack on a screen: the same blocks that are printed. */
export function CardSheet({ card, rig }: { card: Card; rig: Rig }) {
  return (
    <article aria-labelledby={`card-${card.id}`}>
      <h2 id={`card-${card.id}`} className="text-2xl font-extrabold">
        {card.title}
      </h2>
      {card.lead !== null && <p className="text-soft">{card.lead}</p>}
      <div className="mt-3 space-y-5">
        {card.blocks.map((block, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a card's blocks have no name but their place
          <Block key={i} block={block} rig={rig} />
        ))}
      </div>
    </article>
  );
}

function Block({ block, rig }: { block: CardBlock; rig: Rig }) {
  const title = block.title === undefined ? null : <h3 className="text-lg font-bold">{block.title}</h3>;
  switch (block.kind) {
    case "cautions":
      return <Caution texts={block.items} />;
    case "steps":
      return (
        <section>
          {title}
          <ol>
            {block.items.map((item, i) => (
              <li key={item} className="grid grid-cols-[2rem_1fr] border-b border-rule py-2">
                <span className="num font-bold">{i + 1}</span>
                {item}
              </li>
            ))}
          </ol>
        </section>
      );
    case "lines":
      return (
        <section>
          {title}
          {block.items.map((item) => (
            <p key={item} className="py-1">
              {item}
            </p>
          ))}
        </section>
      );
    case "pairs":
      return (
        <section>
          {title}
          <dl>
            {block.rows.map(([sign, act]) => (
              <div key={`${sign} ${act}`} className="border-b border-rule py-2">
                <dt className="font-bold">{sign}</dt>
                <dd>{act}</dd>
              </div>
            ))}
          </dl>
        </section>
      );
    case "table":
      return (
        <section>
          {title}
          <CardTable {...block} />
        </section>
      );
    case "places":
      return <Places marks={block.marks} rig={rig} />;
    default:
      throw new Error(`Block: expected a known block, got ${JSON.stringify(block satisfies never)}`);
  }
}

const ringM = 0.2;

function Places({ marks, rig }: { marks: Extract<CardBlock, { kind: "places" }>["marks"]; rig: Rig }) {
  const tell = useTell();
  const box = paperOf(rig);
  return (
    <section className="sm:grid sm:grid-cols-[260px_1fr] sm:gap-5">
      <svg
        viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
        className="mx-auto h-[34rem] max-w-full bg-buff"
        role="img"
        aria-label={tell("Deck plan of the {0}, bow up, with numbers where things are", rig.model)}
      >
        <DeckShapes rig={rig} />
        {marks.map(({ number, xM, yM, at }) => (
          <g key={number} aria-hidden>
            <path d={`M${yM} ${-xM}L${at.yM} ${-at.xM}`} stroke="var(--ink)" strokeWidth="0.025" />
            <circle cx={at.yM} cy={-at.xM} r="0.06" fill="var(--ink)" />
            <circle cx={yM} cy={-xM} r={ringM} fill="var(--ink)" />
            <text
              x={yM}
              y={-xM + 0.08}
              textAnchor="middle"
              fontSize="0.23"
              fontWeight="700"
              fontFamily="var(--font-head)"
              fill="var(--sheet)"
            >
              {number}
            </text>
          </g>
        ))}
      </svg>
      <ol>
        {marks.map(({ number, label, where }) => (
          <li key={number} className="grid grid-cols-[2rem_1fr] border-b border-rule py-1.5">
            <span className="num font-bold">{number}</span>
            <span>
              <strong>{label}</strong> <span className="text-soft">{where}</span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

interface CardTableProps {
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

function CardTable({ head, rows }: CardTableProps) {
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink">
          {head.map((name) => (
            <th key={name} className="py-1 pr-3">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows of a printed table have no name but their place
          <tr key={i} className="border-b border-rule align-top">
            {row.map((cell, j) => (
              <td
                // biome-ignore lint/suspicious/noArrayIndexKey: as above
                key={j}
                className={`py-1.5 pr-3 ${j === 0 ? "font-semibold" : ""}`}
              >
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
