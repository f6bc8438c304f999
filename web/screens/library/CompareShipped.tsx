import type { Topic } from "../../../core/topic/index.ts";

interface CompareProps {
  readonly shipped: Topic | null;
  readonly ours: Topic;
}

/** Field by field where our wording is not the shipped one. */
export function CompareShipped({ shipped, ours }: CompareProps) {
  if (shipped === null) return <p className="mt-2">This topic is ours alone; nothing like it ships.</p>;
  const names = [...new Set([...Object.keys(shipped), ...Object.keys(ours)])] as (keyof Topic)[];
  const changed = names.filter((name) => JSON.stringify(shipped[name]) !== JSON.stringify(ours[name]));
  return (
    <table className="mt-2 w-full table-fixed">
      <thead>
        <tr className="border-b border-ink">
          <th className="w-24 py-1">Part</th>
          <th>Shipped</th>
          <th className="pl-4">Ours</th>
        </tr>
      </thead>
      <tbody>
        {changed.map((name) => (
          <tr key={name} className="border-b border-rule align-top">
            <td className="head py-2 text-soft">{name}</td>
            <td className="py-2 break-words">{formatValue(shipped[name])}</td>
            <td className="py-2 pl-4 break-words">{formatValue(ours[name])}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function formatValue(value: unknown): string {
  if (value === undefined) return "–";
  if (typeof value === "string") return value;
  if (Array.isArray(value) && value.every((each) => typeof each === "string")) return value.join(" / ") || "–";
  return JSON.stringify(value);
}
