import { z } from "zod";
import { plainText } from "../rig/index.ts";
import type { FaultModel } from "./buildModel.ts";
import type { FaultContent } from "./faultContent.ts";
import type { Findings } from "./finder.ts";

const idSchema = z.string().min(1).max(200);
const most = 200;
const seenSchema = z
  .record(idSchema, z.boolean())
  .refine((seen) => Object.keys(seen).length <= most, `at most ${most}`);

/** What a call about something that fails came to, kept so that whoever rings next goes on from there, and that the store learns. */
export const callFaultSchema = z.strictObject({
  functions: seenSchema,
  components: seenSchema,
  /** What fails, in words. */
  fails: plainText(200),
  /** Kinds of component that what fails needs: one of them was it. */
  atStake: z.array(idSchema).max(most),
  /** What was found at fault; null while it is open. */
  cause: z.strictObject({ kind: idSchema, label: plainText(200) }).nullable(),
  minutes: z.int().min(1).max(600),
  /** The call or question it goes on from, which it closes. */
  goesOn: idSchema.nullable(),
});
export type CallFault = z.infer<typeof callFaultSchema>;

/** What the findings on one boat come to, to be kept with the call. */
export function describeCall(
  model: FaultModel,
  findings: Findings,
  { minutes, goesOn }: Pick<CallFault, "minutes" | "goesOn">,
): CallFault {
  const kindOf = new Map(model.components.map(({ id, kind }) => [id, kind]));
  const failing = model.functions.filter(({ id }) => findings.functions[id] === false);
  const fault = model.components.find(({ id }) => findings.components[id] === false);
  return {
    functions: { ...findings.functions },
    components: { ...findings.components },
    fails:
      failing
        .map(({ label }) => label)
        .join(", ")
        .slice(0, 200) || "Nothing named",
    atStake: [...new Set(failing.flatMap(({ needs }) => needs.map((id) => kindOf.get(id)!)))].sort(),
    cause: fault === undefined ? null : { kind: fault.kind, label: fault.label },
    minutes: Math.min(600, Math.max(1, Math.round(minutes))),
    goesOn,
  };
}

/** The findings of an earlier call, as far as the boat still has what they speak of. */
export function resumeCall(
  model: FaultModel,
  { functions, components }: Pick<CallFault, "functions" | "components">,
): Findings {
  const keep = (seen: Readonly<Record<string, boolean>>, known: readonly { readonly id: string }[]) => {
    const ids = new Set(known.map(({ id }) => id));
    return Object.fromEntries(Object.entries(seen).filter(([id]) => ids.has(id)));
  };
  return { functions: keep(functions, model.functions), components: keep(components, model.components) };
}

/** The topic that teaches what was at fault, of those told on this boat; null where none does. */
export function findTaught(content: FaultContent, kind: string, here: ReadonlySet<string>): string | null {
  return content.kinds.find(({ id }) => id === kind)?.topics.find((topic) => here.has(topic)) ?? null;
}
