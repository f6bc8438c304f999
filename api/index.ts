export { addresses } from "./addresses.ts";
export { appIcons } from "./appIcons.ts";
export {
  type BuyerSheet,
  type ForgottenSheet,
  type RetentionRules,
  type RetentionSheet,
  retentionRulesSchema,
} from "./buyerSchemas.ts";
export type {
  BoatCare,
  Booking,
  CallList,
  CareLine,
  CareTable,
  Contact,
  EngineCare,
  FillLine,
  MessageLine,
  MessageList,
  NewFill,
  NewRun,
  NewWithdrawal,
  PackSheet,
  RunLine,
  RunSheet,
  RunVerdict,
  Withdrawal,
  WorkshopSheet,
  WorkshopWeek,
} from "./careSchemas.ts";
export { careTables, ownerAuthor } from "./careSchemas.ts";
export type {
  AnswerOf,
  BodyOf,
  Endpoint,
  ParamsOf,
  QueryOf,
} from "./endpoint.ts";
export { type EndpointName, type Endpoints, endpoints } from "./endpoints/index.ts";
export type { Acknowledged } from "./endpoints/shared.ts";
export { type ErrorBody, type ErrorCode, errorBodySchema, errorStatus } from "./errors.ts";
export type { BackupSheet, RestoredSheet } from "./keepingSchemas.ts";
export { createOpenApi } from "./openapi.ts";
export {
  type AuditKind,
  type AuditLine,
  auditKinds,
  type PersonLine,
  type SessionLine,
  type StaffSheet,
  type StoreFacts,
} from "./peopleSchemas.ts";
export type { ReportSheet } from "./reportSchemas.ts";
export * from "./roles.ts";
export type {
  Boat,
  BundlePreview,
  Delivery,
  DockCall,
  DockCallSheet,
  GlossarySheet,
  Guides,
  LanguageSheet,
  LibrarySheet,
  Me,
  OwedLine,
  OwedSheet,
  OwnerPage,
  PlanComparison,
  RigSheet,
  TemplateLine,
  Today,
  TowingSheet,
  VerifiedSheet,
} from "./schemas.ts";
