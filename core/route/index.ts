export {
  type RouteInput,
  type RouteOutput,
  type RouteTopic,
  type RouteVisit,
  routeInputSchema,
  routeOutputSchema,
  visitSchema,
} from "./contract.ts";
export { listTopicsFor, type Plan, planSchema, planWalk } from "./planWalk.ts";
export { type RouteError, route } from "./route.ts";
export { findStyle, type RouteStyle, routeStyles, type StyleId, styleIdSchema, styleIds } from "./styles.ts";
