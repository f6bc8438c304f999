import type { MessageLine } from "../../api/index.ts";

export const stateNames: Readonly<Record<MessageLine["state"], string>> = {
  ready: "not sent yet",
  waiting: "waiting",
  failed: "▲ failed",
  sent: "sent",
  delivered: "delivered",
  answered: "answered",
  stopped: "stopped",
};

/** Where a message stands, in a word or two; a call that was noted is a call. */
export const sayState = ({ kind, state }: Pick<MessageLine, "kind" | "state">): string =>
  kind === "call" ? "call" : stateNames[state];
