import { toDayNumber } from "../core/dates/index.ts";
import { createRandom } from "../core/random.ts";
import type { Forecaster } from "../server/forecaster.ts";

const firstHour = 5;
const lastHour = 26;
const clockOf = (hour: number) => `${String(hour).padStart(2, "0")}:00`;

/** Made up, and called so: a quiet morning, a breeze that builds until the afternoon, and eases. The same day reads the same twice. */
export const windStandIn: Forecaster = {
  source: "made-up",
  read({ lat, lon }, date) {
    const random = createRandom(toDayNumber(date) * 31 + Math.round(lat * 10) * 7 + Math.round(lon * 10));
    const [morning, peak, from] = [3 + random() * 4, 10 + random() * 12, Math.round(random() * 36) * 10];
    return Array.from({ length: lastHour - firstHour + 1 }, (_, i) => {
      const hour = firstHour + i;
      const share = Math.max(0, Math.sin(((hour - 7) / 14) * Math.PI));
      return { at: clockOf(hour), kn: Math.round((morning + (peak - morning) * share) * 2) / 2, fromDeg: from };
    });
  },
};
