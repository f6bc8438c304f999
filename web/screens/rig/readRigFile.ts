import { type Rig, rigSchema } from "../../../core/rig/index.ts";

export type RigRead = { ok: true; rig: Rig } | { ok: false; problems: string[] };

const mostBytes = 2_000_000;
const mostProblems = 12;

/** A rig from a `ravik.rig/1` file, or what is wrong with it, line by line. */
export async function readRigFile(file: File): Promise<RigRead> {
  if (file.size > mostBytes) return { ok: false, problems: ["The file is larger than 2 MB; a rig is far smaller."] };
  let value: unknown;
  try {
    value = JSON.parse(await file.text());
  } catch {
    return { ok: false, problems: ["The file is not JSON."] };
  }
  const parsed = rigSchema.safeParse(value);
  if (parsed.success) return { ok: true, rig: parsed.data };
  const problems = parsed.error.issues.map(({ path, message }) => `${path.join(".") || "the file"}: ${message}`);
  return { ok: false, problems: problems.slice(0, mostProblems) };
}
