export { buildFaultModel, type FaultComponent, type FaultFunction, type FaultModel } from "./buildModel.ts";
export { diagnose } from "./diagnose.ts";
export {
  type DiagnoseError,
  type DiagnoseInput,
  type DiagnoseOutput,
  diagnoseInputSchema,
  diagnoseOutputSchema,
} from "./diagnoseContract.ts";
export { type FaultContent, type FaultMender, faultContentSchema, type Urgent } from "./faultContent.ts";
export { type Findings, type Found, findFault, listQuestions, matchWords, readClues, type Suspect } from "./finder.ts";
