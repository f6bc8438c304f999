import { careQuery, queryClient, workshopQuery } from "../../app/queries.ts";

/** What was booked or changed shows in the call list and the workshop. */
export const refreshWorkshop = async () => {
  await queryClient.invalidateQueries({ queryKey: workshopQuery.queryKey });
  await queryClient.invalidateQueries({ queryKey: careQuery.queryKey });
};
