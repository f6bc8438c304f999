export { type BuiltSequence, type BuiltStep, buildSequence, type StepWay } from "./buildSequence.ts";
export {
  findNextStep,
  findRun,
  foldSteps,
  type NextStep,
  nextRun,
  type StepMark,
  type StepsState,
} from "./foldSteps.ts";
export { type Feel, feels, type JudgedWheel, judgeWheels, type WheelRead, type WheelReading } from "./judgeWheels.ts";
export { type Sequence, type StepRole, type StepSetup, sequenceSchema, stepRoles } from "./sequence.ts";
export { readShared, type SharedSteps, writeShared } from "./share.ts";
