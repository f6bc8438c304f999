import type { StepWay } from "./buildSequence.ts";

/** What one phone passes to another, without signal: the run, how it is done, and the steps that are done. */
export interface SharedSteps extends StepWay {
  readonly run: string;
  readonly done: readonly string[];
}

/** As it stands behind the # of an address: short enough for a QR code. Ids are small letters, digits and hyphens. */
export const writeShared = ({ run, way, method, done }: SharedSteps): string =>
  [run, way, method, done.join(".")].join("~");

const id = "[a-z][a-z0-9-]{0,79}";
const shape = new RegExp(`^#?(${id})~(alone|partner)~(winch|drive)~((?:${id}(?:\\.${id}){0,199})?)$`);

/** Null for what no phone of ours has written. */
export function readShared(text: string): SharedSteps | null {
  const [, run, way, method, done] = shape.exec(text) ?? [];
  if (run === undefined) return null;
  return {
    run,
    way: way as StepWay["way"],
    method: method as StepWay["method"],
    done: done === "" ? [] : done!.split("."),
  };
}
