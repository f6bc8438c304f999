import type { BreakInPack } from "../breakin/index.ts";
import type { Idiom } from "../region/index.ts";
import type { Rig } from "../rig/index.ts";
import type { ServicePack } from "../service/index.ts";
import type { WalkState } from "../walk/index.ts";

/** What the cards of one boat are made from. */
export interface CardBoat {
  readonly rig: Rig;
  readonly boatName: string;
  readonly hull: string;
  readonly store: string;
  readonly phone: string;
  readonly breakInPacks: readonly BreakInPack[];
  readonly servicePacks: readonly ServicePack[];
  /** Gear as it was counted, with the dates on it. */
  readonly gear: WalkState["gear"];
  readonly idiom: Idiom;
  /** Whom one rings ashore where life is in danger, as the store's region has it. */
  readonly emergency: string;
}
