export { type TripInput, type TripOutput, trip, tripInputSchema, tripOutputSchema } from "./trip.ts";
