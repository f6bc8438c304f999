import { useEffect, useMemo, useState } from "react";
import {
  buildFaultModel,
  type FaultContent,
  type FaultFunction,
  type FaultModel,
  type Findings,
  readClues,
  resumeCall,
  searchFault,
} from "../../core/faults/index.ts";
import { type Tell, tellJoined } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { storeRegion } from "../ui/storeTime.ts";
import { useBook } from "../ui/tell.ts";
import type { DiagnosisWorker } from "../workers/diagnosis.ts";
import { useWorker } from "../workers/useWorker.ts";

const nothing: Findings = { functions: {}, components: {} };

const createWorker = () => new Worker(new URL("../workers/diagnosis.ts", import.meta.url), { type: "module" });
type Diagnosis = ReturnType<typeof searchFault>;

/** What follows from what was seen, searched beside the page; what it was before stays until it is there. Null before anything was said. */
function useDiagnosis(model: FaultModel, findings: Findings, hasBegun: boolean): Diagnosis | null {
  const getWorker = useWorker<DiagnosisWorker>(createWorker);
  const [found, setFound] = useState<Diagnosis | null>(null);
  const isHere = typeof Worker === "undefined";
  // biome-ignore lint/correctness/useExhaustiveDependencies: the worker is made once
  useEffect(() => {
    if (isHere || !hasBegun) return setFound(null);
    let isPast = false;
    void getWorker()
      .searchFault(model, findings)
      .then((next) => isPast || setFound(next as Diagnosis));
    return () => {
      isPast = true;
    };
  }, [model, findings, hasBegun, isHere]);
  const here = useMemo(
    () => (isHere && hasBegun ? searchFault(model, findings) : null),
    [isHere, model, findings, hasBegun],
  );
  return hasBegun ? (here ?? found) : null;
}

/** One search for a fault on one boat: what was seen so far, and what follows from it. An owner looks at nothing that is the yard's. */
export function useFinder(rig: Rig, content: FaultContent, begin: Findings | null, isOwner: boolean) {
  const book = useBook();
  const model = useMemo(() => buildFaultModel(rig, content, { ...storeRegion(), book }), [rig, content, book]);
  // The yard reads what was found in its own language.
  const yardModel = useMemo(() => buildFaultModel(rig, content, storeRegion()), [rig, content]);
  const [findings, setFindings] = useState(() => (begin === null ? nothing : resumeCall(model, begin)));
  const [skipped, setSkipped] = useState<readonly string[]>([]);
  const [beganMs] = useState(() => Date.now());
  const hasBegun = Object.keys(findings.functions).length > 0;
  const diagnosis = useDiagnosis(model, findings, hasBegun);
  const answer = diagnosis?.answer ?? null;
  const found = answer?.ok ? answer.value : null;
  const next = found?.looks.find(({ id, isForYard }) => !skipped.includes(id) && !(isOwner && isForYard)) ?? null;
  const questions = useMemo(
    () => (diagnosis?.questions ?? []).filter(({ id }) => !skipped.includes(id)),
    [diagnosis, skipped],
  );
  const fault = model.components.find(({ id }) => findings.components[id] === false) ?? null;
  return {
    model,
    yardModel,
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

type Seen = Pick<Finder, "model" | "findings" | "found" | "fault">;

/**
 * What was found so far, for whoever goes on: "Port engine starts: no. Looked at: Kill lanyard, good. Likeliest: …". `model` is
 * the one whose words are said.
 */
export function sayFindings({ model, findings, found, fault }: Seen, tell: Tell): string {
  const functionOf = (id: string) => model.functions.find((each) => each.id === id)!.label;
  const nameOf = (id: string) => model.components.find((each) => each.id === id)!.label;
  const functions = Object.entries(findings.functions).map(([id, works]) =>
    tell(works ? "{0}: yes" : "{0}: no", functionOf(id)),
  );
  const looked = Object.entries(findings.components).map(([id, isGood]) =>
    tell(isGood ? "{0}: good" : "{0}: at fault", nameOf(id)),
  );
  const likely = fault === null ? (found?.suspects[0]?.faults.map(({ id }) => nameOf(id)) ?? null) : null;
  return [
    `${functions.join(". ")}.`,
    looked.length === 0 ? null : tell("Looked at: {0}.", looked.join("; ")),
    likely === null ? null : tell("Likeliest: {0}.", tellJoined(tell, likely)),
  ]
    .filter(Boolean)
    .join(" ");
}
