import { useMutation } from "@tanstack/react-query";
import type { Launch, RampSheet } from "../../core/ramp/index.ts";
import type { TowRules, Vehicle } from "../../core/tow/index.ts";
import { ask } from "../app/client.ts";
import { queryClient, towingQuery } from "../app/queries.ts";

/** What is written down about towing and launching one boat. */
export function useTowing(boat: string) {
  const onSuccess = () => queryClient.invalidateQueries({ queryKey: towingQuery(boat).queryKey });
  return {
    setVehicle: useMutation({
      mutationFn: (body: Vehicle) => ask("setVehicle", { params: { boat }, body }),
      onSuccess,
    }),
    addLaunch: useMutation({
      mutationFn: (body: Omit<Launch, "by">) => ask("addLaunch", { params: { boat }, body }),
      onSuccess,
    }),
    removeLaunch: useMutation({
      mutationFn: (launch: string) => ask("removeLaunch", { params: { boat, launch } }),
      onSuccess,
    }),
    setTowRules: useMutation({
      mutationFn: (body: TowRules) => ask("setTowRules", { body }),
      onSuccess,
    }),
    removeTowRules: useMutation({
      mutationFn: (rules: string) => ask("removeTowRules", { params: { rules } }),
      onSuccess,
    }),
    setRamp: useMutation({
      mutationFn: ({ id, ...body }: RampSheet) => ask("setRamp", { params: { ramp: id }, body }),
      onSuccess,
    }),
  };
}
