import { listMeasures, type MeasureKind } from "../../core/measure/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { WalkState } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { MeasureField } from "./MeasureField.tsx";

interface MeasureListProps {
  readonly rig: Rig;
  readonly state: WalkState;
  /** Which readings are asked for; null for all there are. */
  readonly kinds: readonly MeasureKind[] | null;
  readonly onAdd: (entry: NewEntry) => void;
}

/** Readings taken in place, each judged as it is entered. */
export function MeasureList({ rig, state, kinds, onAdd }: MeasureListProps) {
  const measures = listMeasures(rig).filter(({ kind }) => kinds === null || kinds.includes(kind));
  if (measures.length === 0) return null;
  const photosOf = (ref: string | undefined) => state.photos.filter((photo) => ref !== undefined && photo.ref === ref);
  return (
    <ul aria-label="Readings" className="border-t border-ink text-base">
      {measures.map((measure) => {
        const taken = state.measures.get(measure.id);
        return (
          <MeasureField key={measure.id} measure={measure} taken={taken} photos={photosOf(taken?.id)} onAdd={onAdd} />
        );
      })}
    </ul>
  );
}
