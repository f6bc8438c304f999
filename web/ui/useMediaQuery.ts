import { useCallback, useSyncExternalStore } from "react";

/** Whether the window answers a media query, now and as it changes; false where nothing can be asked. */
export function useMediaQuery(query: string): boolean {
  const subscribe = useCallback(
    (onChange: () => void) => {
      const asked = window.matchMedia?.(query);
      asked?.addEventListener("change", onChange);
      return () => asked?.removeEventListener("change", onChange);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => window.matchMedia?.(query)?.matches ?? false);
}
