import type { BoatStage } from "../../../core/care/index.ts";

export const stageWords: Readonly<Record<BoatStage | "all", string>> = {
  all: "All",
  "in-stock": "In stock",
  "making-ready": "Being made ready",
  "to-hand-over": "To hand over",
  "in-break-in": "In break-in",
  "service-due": "Service due",
  "in-use": "In use",
};
