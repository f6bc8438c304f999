/** Why a value from outside is not taken: where it is, in words that end a sentence beginning with the path. */
export interface Unfit {
  readonly path: string;
  readonly message: string;
}

/** Deeper than anything Ravik writes: what is deeper was made to break whoever reads it. */
const mostDepth = 64;
const loneSurrogate = /\p{Surrogate}/u;
const nul = String.fromCharCode(0);

/** What is wrong with a text, or null: half of a surrogate pair (it has no UTF-8 and so no hash) or a NUL. */
export function findTextFault(text: string): string | null {
  if (loneSurrogate.test(text)) return "must be well-formed Unicode";
  return text.includes(nul) ? "must not hold a NUL character" : null;
}

/**
 * The first thing in parsed JSON that must not come in at any border: a text that is not well-formed or holds NUL, as a value
 * or as a key, or nesting without end. Null when all of it is fit. It does not recurse, so that depth cannot break it.
 *
 * @example ({ a: ["ok", "\ud800"] }) → { path: "a[1]", message: "must be well-formed Unicode" }
 */
export function findUnfit(value: unknown): Unfit | null {
  const open: { value: unknown; path: string; depth: number }[] = [{ value, path: "", depth: 0 }];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { path, depth } = next;
    if (typeof next.value === "string") {
      const message = findTextFault(next.value);
      if (message !== null) return { path, message };
    } else if (typeof next.value === "object" && next.value !== null) {
      if (depth === mostDepth) return { path: path.slice(0, 120), message: "is nested too deeply" };
      const isList = Array.isArray(next.value);
      // From the back, so that the first fault in reading order is found first.
      for (const [key, inner] of Object.entries(next.value).reverse()) {
        const message = findTextFault(key);
        if (message !== null) return { path: path === "" ? "a name" : path, message: `has a name that ${message}` };
        const at = isList ? `${path}[${key}]` : path === "" ? key : `${path}.${key}`;
        open.push({ value: inner, path: at, depth: depth + 1 });
      }
    }
  }
  return null;
}
