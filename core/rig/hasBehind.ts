import type { PanelSwitch } from "./rig.ts";

/** Whether anything at all is behind a panel place. A lamp counts as itself. */
export function hasBehind(item: PanelSwitch): boolean {
  return item.kind === "lamp" || item.positions.some((position) => position.powers.length > 0);
}
