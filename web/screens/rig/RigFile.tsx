import { useState } from "react";
import type { Rig } from "../../../core/rig/index.ts";
import { Button } from "../../ui/Button.tsx";
import { FileButton } from "../../ui/FileButton.tsx";
import { saveFile } from "../../ui/saveFile.ts";
import { readRigFile } from "./readRigFile.ts";

interface RigFileProps {
  readonly rig: Rig;
  readonly name: string;
  readonly onRead: (rig: Rig) => void;
}

/** The rig out to a file and in from one, as `ravik.rig/1`. What is wrong with a file is said line by line. */
export function RigFile({ rig, name, onRead }: RigFileProps) {
  const [problems, setProblems] = useState<string[] | null>(null);
  const read = async (file: File) => {
    const found = await readRigFile(file);
    setProblems(found.ok ? null : found.problems);
    if (found.ok) onRead(found.rig);
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
        <FileButton says="Read a rig from a file" accept="application/json,.json" onFile={(file) => void read(file)} />
      </div>
      {problems !== null && (
        <div role="alert" className="mt-3 border-l-4 border-magenta pl-3">
          <p className="text-magenta">▲ The file was not taken; this rig is as it was.</p>
          <ul>
            {problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
