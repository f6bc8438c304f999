import { useState } from "react";

type Asked = typeof DeviceOrientationEvent & { requestPermission?: () => Promise<"granted" | "denied"> };

/** So long a phone is read once it lies still. Milliseconds. */
const readMs = 1500;

/** Whether this device has a level that a page may read: only over https, and only where there is a sensor. */
export const hasPhoneLevel = (): boolean => globalThis.isSecureContext && "DeviceOrientationEvent" in globalThis;

/** How far the long side of the phone is tilted, degrees: the mean over a moment; null where nothing is told. */
async function readTilt(): Promise<number | null> {
  const asked = DeviceOrientationEvent as Asked;
  if (asked.requestPermission !== undefined && (await asked.requestPermission()) !== "granted") return null;
  const tilts: number[] = [];
  const take = ({ beta }: DeviceOrientationEvent) => {
    if (beta !== null) tilts.push(beta);
  };
  addEventListener("deviceorientation", take);
  await new Promise((resolve) => setTimeout(resolve, readMs));
  removeEventListener("deviceorientation", take);
  return tilts.length === 0 ? null : tilts.reduce((sum, tilt) => sum + tilt, 0) / tilts.length;
}

/**
 * The grade of a ramp by the phone laid along it, once with its top uphill and once turned round: half the difference is the
 * slope, and what the sensor is off by cancels out.
 */
export function usePhoneLevel(onSlope: (riseOverRun: number) => void) {
  const [up, setUp] = useState<number | null>(null);
  const [state, setState] = useState<"first" | "reading" | "second" | "none">("first");
  const read = async () => {
    const isSecond = up !== null;
    setState("reading");
    const tilt = await readTilt().catch(() => null);
    if (tilt === null) {
      setUp(null);
      setState("none");
    } else if (isSecond) {
      onSlope(Math.abs(Math.tan((((up - tilt) / 2) * Math.PI) / 180)));
      setUp(null);
      setState("first");
    } else {
      setUp(tilt);
      setState("second");
    }
  };
  return { state, read };
}
