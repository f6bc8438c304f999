import { useState } from "react";
import { type Rig, rigSchema } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { saveFile } from "../../ui/saveFile.ts";

interface RigFileProps {
  readonly rig: Rig;
  readonly name: string;
  readonly onRead: (rig: Rig) => void;
}

const mostBytes = 2_000_000;

/** The rig out to a file and in from one, as `ravik.rig/1`. What is wrong with a file is said line by line. */
export function RigFile({ rig, name, onRead }: RigFileProps) {
  const [problems, setProblems] = useState<string[] | null>(null);
  const read = async (file: File) => {
    if (file.size > mostBytes) return setProblems(["The file is larger than 2 MB; a rig is far smaller."]);
    let value: unknown;
    try {
      value = JSON.parse(await file.text());
    } catch {
      return setProblems(["The file is not JSON."]);
    }
    const parsed = rigSchema.safeParse(value);
    if (!parsed.success)
      return setProblems(parsed.error.issues.map(({ path, message }) => `${path.join(".") || "the file"}: ${message}`));
    setProblems(null);
    onRead(parsed.data);
  };
  return (
    <section aria-labelledby="rig-file" className="mt-6 border-t border-ink pt-3">
      <h3 id="rig-file" className="font-bold">
        As a file
      </h3>
      <p className="text-soft">An open format (ravik.rig/1, JSON): to keep, to hand on, to bring in from elsewhere.</p>
      <div className="mt-2 flex flex-wrap gap-3">
        <Button onClick={() => saveFile(`${name}.rig.json`, "application/json", JSON.stringify(rig, null, 2))}>
          Save the rig to a file
        </Button>
        <label className="head inline-flex min-h-11 cursor-pointer items-center rounded-md border border-ink bg-panel px-4 font-semibold focus-within:outline-3">
          Read a rig from a file
          <input
            type="file"
            accept="application/json,.json"
            className="sr-only"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file !== undefined) void read(file);
              event.target.value = "";
            }}
          />
        </label>
      </div>
      {problems !== null && (
        <div role="alert" className="mt-3 border-l-4 border-magenta pl-3">
          <p className="text-magenta">▲ The file was not taken; this rig is as it was.</p>
          <ul>
            {problems.slice(0, 12).map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
