import type { ReactNode } from "react";
import { useId } from "react";
import { Button } from "../../ui/Button.tsx";
import { saveFile } from "../../ui/saveFile.ts";

interface ReportProps {
  readonly title: string;
  /** What it means, in a sentence. */
  readonly says: string;
  /** Headings with units, then the rows. */
  readonly csv: readonly (readonly (string | number)[])[];
  readonly children: ReactNode;
}

/** One report: its sentence first, then what it is made from, then the same as a file. */
export function Report({ title, says, csv, children }: ReportProps) {
  const id = useId();
  const save = async () => {
    const { default: Papa } = await import("papaparse");
    const name = title.toLowerCase().replace(/[^a-z]+/g, "-");
    saveFile(`${name}.csv`, "text/csv", Papa.unparse(csv.map((row) => [...row])));
  };
  return (
    <section aria-labelledby={id} className="mt-9">
      <div className="flex flex-wrap items-end justify-between gap-x-4 border-b border-ink">
        <h2 id={id} className="text-lg font-bold">
          {title}
        </h2>
        <Button look="quiet" aria-label={`Save as CSV: ${title}`} onClick={() => void save()}>
          Save as CSV
        </Button>
      </div>
      <p className="mt-2 text-lg">{says}</p>
      {children}
    </section>
  );
}
