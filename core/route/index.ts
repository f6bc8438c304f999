export {
  type RouteInput,
  type RouteOutput,
  type RouteTopic,
  type RouteVisit,
  routeInputSchema,
  routeOutputSchema,
  visitSchema,
} from "./contract.ts";
export { explainStops } from "./explainStops.ts";
export { orderTopics } from "./internal/blocks.ts";
export { learnMinutes, type Spent } from "./learnMinutes.ts";
export { listInstead } from "./listInstead.ts";
export {
  type AdaptedTopics,
  adaptTopics,
  budgets,
  defaultPlanOptions,
  type ElsewhereReason,
  type PlanOptions,
  places,
  planOptionsSchema,
} from "./planOptions.ts";
export {
  addSecondSession,
  listBroken,
  listTopicsFor,
  type OrderOptions,
  type Plan,
  planSchema,
  planWalk,
} from "./planWalk.ts";
export { prepareTopics, prepareWalk, type Teaching } from "./prepareWalk.ts";
export { type CallsHere, listRaises, type Raise, raiseTopics } from "./raiseTopics.ts";
export { chooseLevel, proposeMinutes, reckonMinutes, speakMinutes, talkPace } from "./reckonMinutes.ts";
export { rerouteWalk } from "./rerouteWalk.ts";
export { type RouteError, route } from "./route.ts";
export { simulateWalk, type WalkTimes, walkSpread } from "./simulateWalk.ts";
export {
  createStyle,
  findStyle,
  momentWords,
  type OwnStyle,
  ownStyleSchema,
  type RouteStyle,
  routeStyles,
  type StyleId,
  styleIdSchema,
  styleIds,
} from "./styles.ts";
export { listTooLate, type TimedTopic, timeWalk } from "./timeWalk.ts";
