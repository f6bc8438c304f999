import type { RampInput } from "./ramp.ts";
import { ramp } from "./ramp.ts";

/** A point of the side section, metres: x down the ramp's direction along the level, y up; the water's edge at its normal height is 0, 0. */
export interface RampPoint {
  readonly xM: number;
  readonly yM: number;
}

/** The side section with the rig backed in until the stern floats, to scale. */
export interface RampDrawing {
  /** Of the ramp, from the level: radians. */
  readonly angle: number;
  /** Ground: level staging, the top of the ramp, and its foot below everything drawn. */
  readonly ground: readonly RampPoint[];
  readonly waterY: number;
  readonly edge: RampPoint;
  /** Foot of the transom on the ground, and the bottom of the transom above it. */
  readonly transomFoot: RampPoint;
  readonly transom: RampPoint;
  /** The keel line's forward end. */
  readonly bow: RampPoint;
  readonly hitch: RampPoint;
  readonly rearWheel: RampPoint;
  readonly frontWheel: RampPoint;
  readonly trailerWheels: readonly RampPoint[];
  readonly fenderFoot: RampPoint;
  /** The mark that is watched: the top of the fender. */
  readonly fenderTop: RampPoint;
  /** Depths below the water as they are drawn, metres: positive under. */
  readonly draftM: number;
  readonly fenderUnderM: number;
  readonly rearWheelDepthM: number;
}

/** Ours, for the drawing alone: how far apart a car's axles stand, and where a tandem's do. */
const wheelbaseM = 2.7;
const tandemGapM = 0.85;
const stagingM = 1.6;

export interface RampScene {
  readonly ask: RampInput;
  /** Water above its normal height, negative below: it moves the edge, and everything with it. */
  readonly waterM: number;
  readonly loaM: number;
  readonly axles: number;
}

/** Where everything stands at the moment the stern floats (`ramp`), to be drawn. */
export function drawRamp({ ask, waterM, loaM, axles }: RampScene): RampDrawing {
  const { trailer, vehicle } = ask;
  const { transomS } = ramp(ask);
  const grade = ask.gradePct / 100;
  const angle = Math.atan(grade);
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const edge = { xM: -waterM / grade, yM: waterM };
  /** So far down the ramp from the water's edge, and so high square to it. */
  const at = (sM: number, heightM = 0): RampPoint => ({
    xM: edge.xM + sM * cos + heightM * sin,
    yM: edge.yM - sM * sin + heightM * cos,
  });
  const underWater = ({ yM }: RampPoint) => waterM - yM;
  const hitchS = transomS - trailer.hitchToTransomM;
  const rearS = hitchS - vehicle.hitchToRearAxleM;
  const frontS = rearS - wheelbaseM;
  const topS = Math.min(frontS - stagingM, -stagingM);
  const fenderS = transomS - trailer.fenderFromTransomM;
  const top = at(topS);
  const foot = at(Math.max(transomS + 1.2, 1));
  const transom = at(transomS, trailer.bunkHeightM);
  const fenderTop = at(fenderS, trailer.fenderHeightM);
  const rearWheel = at(rearS);
  return {
    angle,
    ground: [{ xM: top.xM - 2.5, yM: top.yM }, top, foot],
    waterY: waterM,
    edge,
    transomFoot: at(transomS),
    transom,
    bow: at(transomS - loaM, trailer.bunkHeightM),
    hitch: at(hitchS),
    rearWheel,
    frontWheel: at(frontS),
    trailerWheels: Array.from({ length: axles }, (_, i) => at(fenderS + (i - (axles - 1) / 2) * tandemGapM)),
    fenderFoot: at(fenderS),
    fenderTop,
    draftM: underWater(transom),
    fenderUnderM: underWater(fenderTop),
    rearWheelDepthM: Math.max(0, underWater(rearWheel)),
  };
}
