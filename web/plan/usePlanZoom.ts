import { select } from "d3-selection";
import { type D3ZoomEvent, type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from "d3-zoom";
import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import type { PaperBox } from "../../core/drawing/index.ts";

const closest = 8;
const stepFactor = 1.6;

export interface PlanZoom {
  /** Of the paper, to be laid on what is drawn. */
  readonly transform: ZoomTransform;
  zoomIn(): void;
  zoomOut(): void;
  showWhole(): void;
  /** Brings a point of the paper into sight, where it is not. */
  reveal(x: number, y: number): void;
}

/**
 * A plan looked at closer: by wheel, by two fingers, by a drag of the paper once it is closer, or from buttons and keys.
 * What can be pressed on the plan keeps its own touches. At the whole boat the wheel and one finger move the page as ever.
 */
export function usePlanZoom(svg: RefObject<SVGSVGElement | null>, box: PaperBox): PlanZoom {
  const [transform, setTransform] = useState<ZoomTransform>(zoomIdentity);
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const now = useRef(transform);
  useEffect(() => {
    const element = svg.current;
    if (element === null) return;
    const { x, y, width, height } = box;
    const paper: [[number, number], [number, number]] = [
      [x, y],
      [x + width, y + height],
    ];
    const zoomed = zoom<SVGSVGElement, unknown>()
      .scaleExtent([1, closest])
      .extent(paper)
      .translateExtent(paper)
      .filter((event: Event) => {
        if (event.type === "dblclick") return false;
        const isOut = now.current.k === 1;
        if (event instanceof WheelEvent) return !(isOut && event.deltaY > 0);
        if ((event.target as Element).closest("[role=button]") !== null) return false;
        if (typeof TouchEvent !== "undefined" && event instanceof TouchEvent) return event.touches.length > 1 || !isOut;
        return !isOut;
      })
      .on("zoom", (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
        now.current = event.transform;
        setTransform(event.transform);
      });
    behaviour.current = zoomed;
    const selection = select(element);
    selection.call(zoomed);
    return () => {
      selection.on(".zoom", null);
    };
  }, [svg, box]);
  const act = useCallback(
    (change: (zoomed: ZoomBehavior<SVGSVGElement, unknown>, element: SVGSVGElement) => void) => {
      if (behaviour.current !== null && svg.current !== null) change(behaviour.current, svg.current);
    },
    [svg],
  );
  return {
    transform,
    zoomIn: () => act((zoomed, element) => zoomed.scaleBy(select(element), stepFactor)),
    zoomOut: () => act((zoomed, element) => zoomed.scaleBy(select(element), 1 / stepFactor)),
    showWhole: () => act((zoomed, element) => zoomed.transform(select(element), zoomIdentity)),
    reveal(x, y) {
      const [px, py] = now.current.apply([x, y]);
      const isSeen = px > box.x && px < box.x + box.width && py > box.y && py < box.y + box.height;
      if (!isSeen) act((zoomed, element) => zoomed.translateTo(select(element), x, y));
    },
  };
}
