import { useEffect, useRef } from "react";

export interface KeyAction {
  /** As KeyboardEvent.key gives it. */
  readonly key: string;
  readonly says: string;
  readonly act: () => void;
}

/** Keys of this screen. Not while typing, nor with a modifier held. */
export function useKeys(actions: readonly KeyAction[]) {
  const latest = useRef(actions);
  latest.current = actions;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      if (target.closest("input, textarea, select, [contenteditable]") !== null) return;
      const action = latest.current.find(({ key }) => key.toLowerCase() === event.key.toLowerCase());
      if (action === undefined) return;
      event.preventDefault();
      action.act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
