export { diagnose } from "./diagnose.ts";
export {
  type DiagnoseError,
  type DiagnoseInput,
  type DiagnoseOutput,
  diagnoseInputSchema,
  diagnoseOutputSchema,
} from "./diagnoseContract.ts";
