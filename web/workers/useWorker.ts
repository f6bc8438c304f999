import { type Remote, wrap } from "comlink";
import { useEffect, useRef } from "react";

/**
 * A worker of a screen: made at its first use, ended with the screen. What speaks with it is kept as long: comlink lets go of a
 * worker whose `wrap` was collected as garbage, and whatever it is asked from then on is never answered.
 */
export function useWorker<W>(create: () => Worker): () => Remote<W> {
  const held = useRef<{ readonly worker: Worker; readonly remote: Remote<W> } | null>(null);
  useEffect(
    () => () => {
      held.current?.worker.terminate();
      held.current = null;
    },
    [],
  );
  return () => {
    if (held.current === null) {
      const worker = create();
      held.current = { worker, remote: wrap<W>(worker) };
    }
    return held.current.remote;
  };
}
