import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { storeDay } from "../ui/storeTime.ts";

const lookEveryMs = 20_000;

/**
 * What stands on a screen is asked for anew when the store's day turns: a tablet that lay open overnight, or slept, shows the
 * morning's handovers and not yesterday's.
 */
export function useDayTurn(): void {
  const client = useQueryClient();
  useEffect(() => {
    let day = storeDay(Date.now());
    const look = () => {
      const now = storeDay(Date.now());
      if (now === day) return;
      day = now;
      void client.invalidateQueries();
    };
    const timer = setInterval(look, lookEveryMs);
    document.addEventListener("visibilitychange", look);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, [client]);
}
