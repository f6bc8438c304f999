export { buildFaultModel, type FaultComponent, type FaultFunction, type FaultModel } from "./buildModel.ts";
export { type CallFault, callFaultSchema, describeCall, findTaught, resumeCall } from "./call.ts";
export { diagnose } from "./diagnose.ts";
export {
  type DiagnoseError,
  type DiagnoseInput,
  type DiagnoseOutput,
  diagnoseInputSchema,
  diagnoseOutputSchema,
} from "./diagnoseContract.ts";
export { type FaultContent, type FaultMender, faultContentSchema, type Urgent } from "./faultContent.ts";
export {
  type Findings,
  type Found,
  findFault,
  listAtPlace,
  listContradicting,
  listQuestions,
  matchWords,
  readClues,
  type Suspect,
  searchFault,
} from "./finder.ts";
export { applyLearned, type ClosedCall, type LearnedPrior, learnPriors } from "./learnPriors.ts";
