/// <reference types="vite-plugin-pwa/client" />

import { registerSW } from "virtual:pwa-register";
import { useSyncExternalStore } from "react";

const listeners = new Set<() => void>();
let isWaiting = false;

/** Keeps the app itself on this device. A newer one is fetched beside it and waits until somebody takes it. */
const takeOver = registerSW({
  immediate: true,
  onNeedRefresh() {
    isWaiting = true;
    for (const listener of listeners) listener();
  },
});

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** What takes a newer version into use, while one waits; null otherwise. */
export function useNewVersion(): (() => void) | null {
  return useSyncExternalStore(subscribe, () => isWaiting) ? () => void takeOver(true) : null;
}
