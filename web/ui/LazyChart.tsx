import { type ComponentProps, lazy, Suspense } from "react";

const Chart = lazy(() => import("./Chart.tsx"));

/** A chart whose drawing library is fetched when the first one is shown. */
export function LazyChart(props: ComponentProps<typeof Chart>) {
  return (
    <Suspense
      fallback={<div style={{ height: props.heightPx }} className="w-full" role="status" aria-label="Drawing" />}
    >
      <Chart {...props} />
    </Suspense>
  );
}
