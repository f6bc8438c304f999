/** What core answers: a value, or an error that names its code and facts. Core never throws for bad input. */
export type Result<T, E extends { code: string }> = { ok: true; value: T } | { ok: false; error: E };

export const succeed = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const fail = <E extends { code: string }>(error: E): { ok: false; error: E } => ({ ok: false, error });
