/** Hours of work shared out over what was done, as much as each was planned for; alike where nothing was planned. */
export function shareLabour(plannedH: readonly number[], doneH: number): number[] {
  const sum = plannedH.reduce((total, each) => total + each, 0);
  return plannedH.map((each) => Math.round(doneH * (sum === 0 ? 1 / plannedH.length : each / sum) * 100) / 100);
}
