import type { Finding, PartKind } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { sectionNames } from "./section.ts";

interface LeftToDoProps {
  readonly findings: readonly Finding[];
  readonly onMend: (finding: Finding) => void;
  /** Puts what has no place yet where such boats usually have it. */
  readonly onPutUsual: (kinds: readonly PartKind[]) => void;
  /** They do stand there. */
  readonly onConfirmUsual: () => void;
}

/** What the sheet still leaves open, section by section; a touch goes where it is mended. */
export function LeftToDo({ findings, onMend, onPutUsual, onConfirmUsual }: LeftToDoProps) {
  if (findings.length === 0)
    return (
      <p className="border-t border-ink py-3">Nothing is left to do. This boat can be walked, carded and planned.</p>
    );
  const missing = findings.flatMap(({ place, item }) => (place !== undefined && item === null ? [place] : []));
  const sections = [...new Set(findings.map(({ section }) => section))];
  return (
    <div className="border-t border-ink">
      {missing.length > 1 && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2">
          <Button onClick={() => onPutUsual(missing)}>Put all {missing.length} where such boats have them</Button>
          <span className="text-soft">
            With battery and fuel tank, where none is described. Then look at each on the plan, and move what this boat
            has elsewhere.
          </span>
        </div>
      )}
      {sections.map((section) => (
        <div key={section} className="grid grid-cols-[112px_1fr] border-b border-rule py-1">
          <span className="head pt-2.5 text-sm text-soft">{sectionNames[section]}</span>
          <ul>
            {findings
              .filter((finding) => finding.section === section)
              .map((finding) => (
                <li key={`${finding.kind}-${finding.item}-${finding.text}`}>
                  <button
                    type="button"
                    onClick={() => onMend(finding)}
                    className="min-h-11 w-full py-1.5 text-left font-text hover:bg-shoal"
                  >
                    {finding.text}
                    {finding.text.endsWith("?") ? "" : "."}{" "}
                    <span className="whitespace-nowrap underline">
                      {finding.place !== undefined && finding.item === null ? "Put it on the plan" : "Go there"}
                    </span>
                  </button>
                  {finding.kind === "usual-not-looked-at" && (
                    <Button className="mb-2" onClick={onConfirmUsual}>
                      I looked: all stand right
                    </Button>
                  )}
                </li>
              ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
