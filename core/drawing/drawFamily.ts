import { drawBowrider } from "./bowrider.ts";
import { drawCentreConsole } from "./centreConsole.ts";
import { drawCuddy } from "./cuddy.ts";
import type { Hull } from "./hull.ts";
import { drawPontoon } from "./pontoon.ts";
import { drawRunabout } from "./runabout.ts";
import type { Shape } from "./shape.ts";
import { drawSideConsole } from "./sideConsole.ts";
import { drawTowSport } from "./towSport.ts";

/** Hull, floor and furniture alone, for small pictures: no engines, no trailer, nothing overhead. */
export function drawFamily(hull: Hull, tubes: 2 | 3 = 2): Shape[] {
  switch (hull.family) {
    case "centre-console":
      return drawCentreConsole(hull);
    case "pontoon":
      return drawPontoon(hull, tubes);
    case "bowrider":
      return drawBowrider(hull);
    case "side-console":
      return drawSideConsole(hull);
    case "tow-sport":
      return drawTowSport(hull);
    case "cuddy":
      return drawCuddy(hull);
    case "runabout":
      return drawRunabout(hull);
    default:
      throw new Error(`drawFamily: expected a known family, got ${JSON.stringify(hull.family satisfies never)}`);
  }
}
