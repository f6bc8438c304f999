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

/** What became of what was just sent or noted, and whose it was. */
export const sayWhatBecame = ({ kind, recipient, state }: MessageLine, isHeld: boolean): string =>
  kind === "call"
    ? `The call with ${recipient} is noted.`
    : state === "waiting"
      ? isHeld
        ? `It goes to ${recipient} when the owner lets messages go on: the store lacks what was entered last.`
        : `It goes to ${recipient} in the morning: these are quiet hours.`
      : state === "ready"
        ? `Ready to be sent to ${recipient}: open it below, send it, and mark it as sent.`
        : `Sent to ${recipient}.`;
