export { listReadyChecks } from "./listReadyChecks.ts";
export { planReady } from "./planReady.ts";
export { type ReadyCheck, type ReadyTopic, readyCheckSchema, readyTopicSchema } from "./readyCheck.ts";
