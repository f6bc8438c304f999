import { fail, type Result, succeed } from "../result.ts";
import type { DiagnoseError, DiagnoseInput, DiagnoseOutput } from "./diagnoseContract.ts";

const usualMost = 2;

/**
 * Which parts are at fault (contract `diagnose`)? What a working function needs is good; every failing one must need at least
 * one part at fault. Candidates are the smallest such sets, of at most `maxFaults`, weighed by the odds of their parts.
 * Checks come with the most to learn for a minute first.
 *
 * @returns `no-explanation` where a function fails although all its parts are proven good, or where `maxFaults` are too few
 * (then `conflicting` is empty).
 */
export function diagnose(input: DiagnoseInput): Result<DiagnoseOutput, DiagnoseError> {
  const failing = listSuspects(input);
  if (failing.length === 0) return succeed({ candidates: [{ faults: [], share: 1 }], checks: [] });
  const conflicting = failing.filter(({ suspects }) => suspects.length === 0).map(({ id }) => id);
  if (conflicting.length > 0)
    return fail({
      code: "no-explanation",
      message: "Two answers contradict each other: check these two again.",
      conflicting,
    });
  const sets = findHittingSets(
    failing.map(({ suspects }) => suspects),
    input.maxFaults ?? usualMost,
  );
  if (sets.length === 0)
    return fail({ code: "no-explanation", message: "No so few faults explain all that was seen.", conflicting: [] });
  return succeed(weigh(sets, input));
}

interface Failing {
  readonly id: string;
  /** Parts it needs that nothing has proven good, by their place in the input. */
  readonly suspects: readonly number[];
}

/** The functions seen to fail, each once, with what may be at fault. */
function listSuspects({ components, functions, observed }: DiagnoseInput): Failing[] {
  const indexOf = new Map(components.map(({ id }, i) => [id, i]));
  const needsOf = new Map(functions.map(({ id, needs }) => [id, needs]));
  const good = new Set(observed.filter(({ works }) => works).flatMap((each) => needsOf.get(each.function)!));
  const failing = new Set(observed.filter(({ works }) => !works).map((each) => each.function));
  return [...failing].map((id) => ({
    id,
    suspects: [...new Set(needsOf.get(id)!)].filter((need) => !good.has(need)).map((need) => indexOf.get(need)!),
  }));
}

/** Rows that hold another whole row say nothing more: whoever meets that one meets them. */
function listSmallest(rows: readonly (readonly number[])[]): (readonly number[])[] {
  const ordered = [...rows].sort((a, b) => a.length - b.length);
  const kept: { row: readonly number[]; parts: ReadonlySet<number> }[] = [];
  for (const row of ordered) {
    const parts = new Set(row);
    if (!kept.some((smaller) => smaller.row.every((part) => parts.has(part)))) kept.push({ row, parts });
  }
  return kept.map(({ row }) => row);
}

const bits = 32;

/**
 * All sets of at most `most` parts of which each row holds one, and none of which could be left out. The row with the fewest
 * suspects is branched on; which rows a part meets is a mask of bits, so that the last part of a set is found by one look.
 */
function findHittingSets(rows: readonly (readonly number[])[], most: number): number[][] {
  const ordered = listSmallest(rows);
  const words = Math.ceil(ordered.length / bits);
  const masks = new Map<number, Uint32Array>();
  ordered.forEach((row, i) => {
    for (const part of row) {
      const mask = masks.get(part) ?? new Uint32Array(words);
      masks.set(part, mask);
      mask[i >> 5]! |= 1 << (i & 31);
    }
  });
  const found = new Map<string, number[]>();
  const isMet = (met: Uint32Array, i: number) => ((met[i >> 5]! >>> (i & 31)) & 1) === 1;
  const join = (a: Uint32Array, b: Uint32Array) => a.map((word, i) => word | b[i]!);
  const closes = (met: Uint32Array, mask: Uint32Array) => ordered.every((_, i) => isMet(met, i) || isMet(mask, i));
  /** Each part meets a row that no other of them meets. */
  const isSmallest = (set: readonly number[]) =>
    set.every((part) => {
      const others = set.filter((other) => other !== part).map((other) => masks.get(other)!);
      return masks.get(part)!.some((word, i) => (word & ~others.reduce((sum, mask) => sum | mask[i]!, 0)) !== 0);
    });
  const grow = (set: readonly number[], met: Uint32Array) => {
    const open = ordered.findIndex((_, i) => !isMet(met, i));
    if (open < 0) {
      const sorted = [...set].sort((a, b) => a - b);
      found.set(sorted.join(), sorted);
      return;
    }
    const isLast = set.length === most - 1;
    for (const part of ordered[open]!) {
      const mask = masks.get(part)!;
      if (isLast && !closes(met, mask)) continue;
      const next = [...set, part];
      // Of a part that is no more needed, nothing that grows out of the set is smallest.
      if (isSmallest(next)) grow(next, join(met, mask));
    }
  };
  grow([], new Uint32Array(words));
  return [...found.values()];
}

/** Shares nearer than a double's rounding are the same. */
const sameShare = 1e-12;
const compareIds = (a: readonly string[], b: readonly string[]): number => {
  for (let i = 0; i < Math.min(a.length, b.length); i++) if (a[i] !== b[i]) return a[i]! < b[i]! ? -1 : 1;
  return a.length - b.length;
};
const compare = (a: number, b: number, tie: () => number): number =>
  Math.abs(a - b) <= sameShare * Math.max(a, b) ? tie() : b - a;

function weigh(sets: readonly (readonly number[])[], { components }: DiagnoseInput): DiagnoseOutput {
  const odds = components.map(({ prior }) => prior / (1 - prior));
  const weights = sets.map((set) => set.reduce((product, part) => product * odds[part]!, 1));
  const sum = weights.reduce((a, b) => a + b, 0);
  const shareOf = new Map<number, number>();
  const candidates = sets.map((set, i) => {
    const share = weights[i]! / sum;
    for (const part of set) shareOf.set(part, (shareOf.get(part) ?? 0) + share);
    return { faults: set.map((part) => components[part]!.id).sort(), share };
  });
  const checks = [...shareOf].map(([part, share]) => {
    const { id, minutesToCheck } = components[part]!;
    return { component: id, share, minutesToCheck };
  });
  return {
    candidates: candidates.sort((a, b) => compare(a.share, b.share, () => compareIds(a.faults, b.faults))),
    checks: checks.sort((a, b) =>
      compare(a.share / a.minutesToCheck, b.share / b.minutesToCheck, () => (a.component < b.component ? -1 : 1)),
    ),
  };
}
