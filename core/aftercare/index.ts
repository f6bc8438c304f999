export { type CareFacts, type CareReason, careReasonSchema, careReasons, rankCare } from "./rankCare.ts";
