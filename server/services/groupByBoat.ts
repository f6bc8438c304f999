/** Rows by the boat they belong to, in their order. */
export function groupByBoat<R extends { boatId: string }>(rows: readonly R[]) {
  const groups = new Map<string, R[]>();
  for (const row of rows) {
    const group = groups.get(row.boatId);
    if (group === undefined) groups.set(row.boatId, [row]);
    else group.push(row);
  }
  return groups;
}
