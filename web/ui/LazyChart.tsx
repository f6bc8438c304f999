import { type ComponentProps, type ComponentType, useEffect, useState } from "react";
import type Chart from "./Chart.tsx";
import { useTell } from "./tell.ts";

type Props = ComponentProps<typeof Chart>;
let loaded: ComponentType<Props> | null = null;

/**
 * A chart whose drawing library is fetched when the first one is shown. Without signal, and before the app was kept on the
 * device, it says in words what it would show, and is drawn when there is signal again.
 */
export function LazyChart(props: Props) {
  const tell = useTell();
  const [Drawn, setDrawn] = useState(() => loaded);
  const [isMissing, setIsMissing] = useState(false);
  useEffect(() => {
    if (Drawn !== null) return;
    const load = async () => {
      try {
        loaded = (await import("./Chart.tsx")).default;
        setDrawn(() => loaded);
      } catch {
        setIsMissing(true);
      }
    };
    void load();
    window.addEventListener("online", load);
    return () => window.removeEventListener("online", load);
  }, [Drawn]);
  if (Drawn !== null) return <Drawn {...props} />;
  if (isMissing)
    return (
      <p role="status" className="border-l-4 border-rule py-2 pl-3">
        {props.says} <span className="text-soft">{tell("(The chart is drawn when there is signal.)")}</span>
      </p>
    );
  return <div style={{ height: props.heightPx }} className="w-full" role="status" aria-label={tell("Drawing")} />;
}
