import type { Condition } from "./condition.ts";

/** A question that asks one thing. */
export type Fact = Exclude<Condition, { any: Condition[] } | { all: Condition[] } | { not: Condition }>;

/** A fact of the boat, asked for or asked not to be. */
export interface Ask {
  readonly fact: Fact;
  readonly isNot: boolean;
}

/** What must be so on a boat: of each row one at least, of all rows all. No rows: every boat. */
export type ConditionRows = readonly (readonly Ask[])[];

/** A condition as rows, such as people choose them; null where it is nested deeper than rows can say. */
export function readRows(condition: Condition): ConditionRows | null {
  const rows: Ask[][] = [];
  for (const part of listParts(condition, false)) {
    const row = readRow(part.condition, part.isNot);
    // A row that nothing can meet is none that people choose.
    if (row === null || row.length === 0) return null;
    rows.push(row);
  }
  return rows;
}

/** Rows as the condition they say; with nothing asked it holds for every boat. */
export function writeRows(rows: ConditionRows): Condition {
  const parts = rows
    .filter((row) => row.length > 0)
    .map((row): Condition => {
      const asks = row.map(({ fact, isNot }): Condition => (isNot ? { not: fact } : fact));
      return asks.length === 1 ? asks[0]! : { any: asks };
    });
  return parts.length === 1 ? parts[0]! : { all: parts };
}

interface Part {
  readonly condition: Condition;
  readonly isNot: boolean;
}

/** What must all hold: an `all` taken apart, and a `not any`, which is the same. */
function listParts(condition: Condition, isNot: boolean): Part[] {
  if ("not" in condition) return listParts(condition.not, !isNot);
  const inner = isNot ? "any" in condition && condition.any : "all" in condition && condition.all;
  return inner ? inner.flatMap((each) => listParts(each, isNot)) : [{ condition, isNot }];
}

/** What must hold in one way or another: an `any`, a `not all`, or a single fact. */
function readRow(condition: Condition, isNot: boolean): Ask[] | null {
  if ("not" in condition) return readRow(condition.not, !isNot);
  if ("any" in condition || "all" in condition) {
    const inner = isNot ? "all" in condition && condition.all : "any" in condition && condition.any;
    if (!inner) return null;
    const asks = inner.map((each) => readRow(each, isNot));
    return asks.some((each) => each === null) ? null : asks.flatMap((each) => each ?? []);
  }
  return [{ fact: condition, isNot }];
}
