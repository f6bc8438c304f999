const quarters = ["", "¼", "½", "¾"] as const;

/** Minutes in quarters as people write them: 0.25 → "¼", 2.5 → "2½", 3 → "3". What is finer is rounded to the quarter. */
export function formatQuarters(minutes: number): string {
  const count = Math.round(minutes * 4);
  const whole = Math.floor(count / 4);
  return `${whole === 0 && count % 4 !== 0 ? "" : whole}${quarters[count % 4]}`;
}
