import { useMemo, useState } from "react";
import {
  buildFaultModel,
  type FaultContent,
  type FaultFunction,
  type Findings,
  findFault,
  listQuestions,
  readClues,
  resumeCall,
} from "../../core/faults/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { storeRegion } from "../ui/storeTime.ts";

const nothing: Findings = { functions: {}, components: {} };

/** One search for a fault on one boat: what was seen so far, and what follows from it. */
export function useFinder(rig: Rig, content: FaultContent, begin: Findings | null) {
  const model = useMemo(() => buildFaultModel(rig, content, storeRegion()), [rig, content]);
  const [findings, setFindings] = useState(() => (begin === null ? nothing : resumeCall(model, begin)));
  const [skipped, setSkipped] = useState<readonly string[]>([]);
  const [beganMs] = useState(() => Date.now());
  const hasBegun = Object.keys(findings.functions).length > 0;
  const answer = useMemo(() => (hasBegun ? findFault(model, findings) : null), [model, findings, hasBegun]);
  const found = answer?.ok ? answer.value : null;
  const next = found?.looks.find(({ id }) => !skipped.includes(id)) ?? null;
  const questions = useMemo(
    () => (found === null ? [] : listQuestions(model, findings, found).filter(({ id }) => !skipped.includes(id))),
    [model, findings, found, skipped],
  );
  const fault = model.components.find(({ id }) => findings.components[id] === false) ?? null;
  return {
    model,
    findings,
    hasBegun,
    beganMs,
    found,
    next,
    questions,
    /** What was looked at and is at fault. */
    fault,
    conflict: answer !== null && !answer.ok ? answer.error : null,
    answer: (id: string, works: boolean) =>
      setFindings((now) => ({ ...now, functions: { ...now.functions, [id]: works } })),
    /** A function that fails, with what the words for it say beside; what was answered already stands. */
    fail: (failing: FaultFunction, text: string) =>
      setFindings((now) => ({
        ...now,
        functions: { ...readClues(model, failing, text), ...now.functions, [failing.id]: false },
      })),
    forget: (id: string) =>
      setFindings(({ functions, components }) => {
        const { [id]: _, ...rest } = functions;
        const { [id]: __, ...others } = components;
        return { functions: rest, components: others };
      }),
    look: (id: string, isGood: boolean) =>
      setFindings((now) => ({ ...now, components: { ...now.components, [id]: isGood } })),
    skip: (id: string) => setSkipped((now) => [...now, id]),
    restart: () => {
      setFindings(nothing);
      setSkipped([]);
    },
  };
}
export type Finder = ReturnType<typeof useFinder>;

/** What was found so far, for whoever goes on: "Port engine starts: no. Looked at: Kill lanyard, good. Likeliest: …" */
export function sayFindings({
  model,
  findings,
  found,
  fault,
}: Pick<Finder, "model" | "findings" | "found" | "fault">): string {
  const functions = Object.entries(findings.functions).map(
    ([id, works]) => `${model.functions.find((each) => each.id === id)!.label}: ${works ? "yes" : "no"}`,
  );
  const looked = Object.entries(findings.components).map(
    ([id, isGood]) => `${model.components.find((each) => each.id === id)!.label}: ${isGood ? "good" : "at fault"}`,
  );
  const likely = fault === null ? (found?.suspects[0]?.faults.map(({ label }) => label).join(" and ") ?? null) : null;
  return [
    `${functions.join(". ")}.`,
    looked.length === 0 ? null : `Looked at: ${looked.join("; ")}.`,
    likely === null ? null : `Likeliest: ${likely}.`,
  ]
    .filter(Boolean)
    .join(" ");
}
