export {
  type RouteInput,
  type RouteOutput,
  type RouteTopic,
  type RouteVisit,
  routeInputSchema,
  routeOutputSchema,
  visitSchema,
} from "./contract.ts";
export { type RouteError, route } from "./route.ts";
