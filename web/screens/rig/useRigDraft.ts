import { useCallback, useEffect, useReducer } from "react";
import type { RigSheet } from "../../../api/index.ts";
import { type Rig, rigSchema } from "../../../core/rig/index.ts";

interface Sheet {
  readonly name: string;
  readonly hull: string;
  readonly rig: Rig;
}

interface Draft {
  readonly now: Sheet;
  readonly past: readonly Sheet[];
  /** What was last saved or fetched, and its version. */
  readonly saved: Sheet;
  readonly version: number;
}

type Action =
  | { do: "edit"; change: (sheet: Sheet) => Sheet }
  | { do: "undo" }
  | { do: "saved"; version: number; sheet: Sheet }
  | { do: "load"; sheet: RigSheet };

const mostUndo = 200;

export interface RigDraft extends Sheet {
  readonly version: number;
  readonly isChanged: boolean;
  readonly canUndo: boolean;
  edit(change: (rig: Rig) => Rig): void;
  rename(name: string): void;
  renumber(hull: string): void;
  undo(): void;
  markSaved(version: number, sheet: Sheet): void;
  /** Takes the server's state and drops what was changed here. */
  load(sheet: RigSheet): void;
}

/** A rig being edited: every change can be taken back, and what is not saved outlives a reload of this device. */
export function useRigDraft(sheet: RigSheet): RigDraft {
  const [draft, act] = useReducer(reduce, sheet, begin);
  const { now, saved, version } = draft;
  const isChanged = now !== saved;
  const key = `ravik-rig-${sheet.boat}`;
  useEffect(() => {
    if (isChanged) localStorage.setItem(key, JSON.stringify({ version, ...now }));
    else localStorage.removeItem(key);
  }, [key, isChanged, now, version]);
  const edit = useCallback(
    (change: (rig: Rig) => Rig) =>
      act({
        do: "edit",
        change: (before) => {
          const rig = change(before.rig);
          return rig === before.rig ? before : { ...before, rig };
        },
      }),
    [],
  );
  return {
    ...now,
    version,
    isChanged,
    canUndo: draft.past.length > 0,
    edit,
    rename: (name) => act({ do: "edit", change: (before) => ({ ...before, name }) }),
    renumber: (hull) => act({ do: "edit", change: (before) => ({ ...before, hull }) }),
    undo: () => act({ do: "undo" }),
    markSaved: (next, kept) => act({ do: "saved", version: next, sheet: kept }),
    load: (fresh) => act({ do: "load", sheet: fresh }),
  };
}

const toSheet = ({ name, hull, rig }: Sheet): Sheet => ({ name, hull, rig });

/** From the server, or from what this device kept unsaved on the same version. */
function begin(sheet: RigSheet): Draft {
  const saved = toSheet(sheet);
  const kept = readKept(sheet);
  return { now: kept ?? saved, past: kept === null ? [] : [saved], saved, version: sheet.version };
}

function readKept({ boat, version }: RigSheet): Sheet | null {
  const text = localStorage.getItem(`ravik-rig-${boat}`);
  if (text === null) return null;
  try {
    const { version: keptVersion, name, hull, rig } = JSON.parse(text);
    if (keptVersion !== version) return null;
    return { name: String(name), hull: String(hull), rig: rigSchema.parse(rig) };
  } catch {
    return null;
  }
}

function reduce(draft: Draft, action: Action): Draft {
  switch (action.do) {
    case "edit": {
      const now = action.change(draft.now);
      return now === draft.now ? draft : { ...draft, now, past: [...draft.past, draft.now].slice(-mostUndo) };
    }
    case "undo": {
      const now = draft.past.at(-1);
      return now === undefined ? draft : { ...draft, now, past: draft.past.slice(0, -1) };
    }
    case "saved": {
      // Edits made while it was being saved are still unsaved.
      const isSame = draft.now.rig === action.sheet.rig && draft.now.name === action.sheet.name;
      const now = isSame && draft.now.hull === action.sheet.hull ? action.sheet : draft.now;
      return { ...draft, now, saved: action.sheet, version: action.version };
    }
    case "load": {
      const saved = toSheet(action.sheet);
      return { now: saved, past: [], saved, version: action.sheet.version };
    }
    default:
      throw new Error(`reduce: expected a known action, got ${JSON.stringify(action satisfies never)}`);
  }
}
