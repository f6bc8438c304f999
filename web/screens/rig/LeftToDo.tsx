import type { Finding } from "../../../core/rig/index.ts";
import { sectionNames } from "./section.ts";

interface LeftToDoProps {
  readonly findings: readonly Finding[];
  readonly onMend: (finding: Finding) => void;
}

/** What the sheet still leaves open, section by section; a touch goes where it is mended. */
export function LeftToDo({ findings, onMend }: LeftToDoProps) {
  if (findings.length === 0)
    return (
      <p className="border-t border-ink py-3">Nothing is left to do. This boat can be walked, carded and planned.</p>
    );
  const sections = [...new Set(findings.map(({ section }) => section))];
  return (
    <div className="border-t border-ink">
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
                </li>
              ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
