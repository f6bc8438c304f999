import type { Difference, SheetSection } from "../../../core/rig/index.ts";
import { spell } from "../../ui/amounts.ts";
import { sectionNames } from "./section.ts";

const whatWords = { added: "added", gone: "not on this boat", changed: "changed" } as const;

interface DifferencesProps {
  readonly template: string;
  readonly differences: readonly Difference[];
  readonly onGo: (section: SheetSection) => void;
}

const mostFacts = 4;

/** How this boat is not as its template: the buyer's own options, which the walk must get right. */
export function Differences({ template, differences, onGo }: DifferencesProps) {
  if (differences.length === 0)
    return (
      <p className="border-t border-ink py-3">
        Just as the template {template}. What this buyer ordered beyond it is put on under Places and Panel.
      </p>
    );
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink">
          <th className="w-28 py-1">Where</th>
          <th>What</th>
          <th>Against {template}</th>
        </tr>
      </thead>
      <tbody>
        {differences.map(({ section, what, name, facts }) => (
          <tr key={`${section}-${what}-${name}-${JSON.stringify(facts)}`} className="border-b border-rule align-top">
            <td className="py-1">
              <button type="button" className="head min-h-11 text-left underline" onClick={() => onGo(section)}>
                {sectionNames[section]}
              </button>
            </td>
            <td className="py-3 font-semibold">{name}</td>
            <td className="py-3">
              {whatWords[what]}
              {facts.slice(0, mostFacts).map(({ fact, from, to }) => (
                <span key={fact} className="block text-sm text-soft">
                  {spell(formatFact(fact))}: {from}, here {to}
                </span>
              ))}
              {facts.length > mostFacts && (
                <span className="block text-sm text-soft">and {facts.length - mostFacts} more</span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Facts of a boat sheet by the names its fields have. */
const factNames: Record<string, string> = {
  at: "place",
  station: "reached from",
  loaM: "length",
  beamM: "beam",
  powerKw: "power",
  powerScheme: "battery switches",
  ratedRpm: "full throttle, rpm",
  burnLph: "fuel burn",
  capacityAh: "capacity, Ah",
  ratingA: "rating, A",
  tyreKpa: "tire pressure",
  tyres: "tires",
  tyreLimitKg: "limit of one tire",
  ballMm: "ball",
  pins: "pins of the plug",
  lockOut: "reverse lock-out",
  hitchToTransomM: "hitch to transom",
  grossLimitKg: "gross limit",
  kg: "weight",
  twoStrokeOil: "two-stroke oil",
  enclosedFuel: "enclosed fuel or engine space",
};

/** "tyreKpa" → "tire pressure"; one without a name of its own is taken apart: "modelYear" → "model year". */
const formatFact = (fact: string): string => factNames[fact] ?? fact.replace(/([A-Z])/g, " $1").toLowerCase();
