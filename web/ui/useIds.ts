import { useState } from "react";
import { ulid } from "ulid";

/** Ids for what a form sends, the same for as long as it stands: pressed twice, it is stored once. One for each name. */
export function useIds(): (name?: string) => string {
  const [ids] = useState(() => new Map<string, string>());
  return (name = "") => {
    const id = ids.get(name) ?? ulid();
    ids.set(name, id);
    return id;
  };
}

/** One id until it is renewed, for a form that is used again. */
export function useFormId(): [id: string, renew: () => void] {
  const [id, setId] = useState(ulid);
  return [id, () => setId(ulid())];
}
