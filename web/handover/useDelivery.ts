import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import type { Delivery } from "../../api/index.ts";
import type { Language } from "../../core/language/index.ts";
import { tellIn } from "../../core/topic/index.ts";
import { deliveryQuery } from "../app/queries.ts";
import { useMe } from "../app/useMe.ts";

/** A handover with its topics in a language; a sealed one stays in the words that were spoken. */
export const tellDelivery = (delivery: Delivery, language: Language): Delivery =>
  delivery.seal === null ? tellIn(delivery, language) : delivery;

/** A handover as whoever is signed in reads it. */
export function useDelivery(id: string) {
  const { language } = useMe();
  const select = useCallback((delivery: Delivery) => tellDelivery(delivery, language), [language]);
  return useQuery({ ...deliveryQuery(id), select });
}
