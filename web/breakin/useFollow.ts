import { useEffect, useState } from "react";
import type { Leg } from "../../core/breakin/index.ts";

/** Legs and the engines that follow them. */
export interface LaneLegs {
  readonly label: string;
  readonly engines: readonly string[];
  readonly legs: readonly Leg[];
}

/** Legs that were run, and when the first of them began. */
export interface Ran {
  readonly lanes: readonly LaneLegs[];
  readonly begunAtMs: number;
}

/** A run that is followed on this device: kept, so that a reload or a locked screen does not lose it. */
export interface Following {
  /** Of one length each. */
  readonly lanes: readonly LaneLegs[];
  /** When its first leg would have begun without what was skipped and waited for. */
  readonly startedAtMs: number;
  /** When it was really begun. */
  readonly begunAtMs: number;
  /** What was skipped, in seconds of the legs: from when to when. */
  readonly skipped: readonly (readonly [number, number])[];
  /** When it was stopped for a while; null while it goes on. */
  readonly pausedAtMs: number | null;
}

const keyOf = (key: string) => `ravik-run-${key}`;

export function readFollowing(key: string): Following | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(key)) ?? "null") as Following | null;
    // One of an earlier version of this page is not followed on.
    return Array.isArray(kept?.lanes) && Array.isArray(kept?.skipped) ? kept : null;
  } catch {
    return null;
  }
}

export function keepFollowing(key: string, following: Following | null) {
  if (following === null) localStorage.removeItem(keyOf(key));
  else localStorage.setItem(keyOf(key), JSON.stringify(following));
}

/** Where in its legs a run is after so many seconds; null when it is over. */
export function findLeg(legs: readonly Leg[], atS: number): { index: number; leftS: number } | null {
  let untilS = 0;
  for (const [index, { minutes }] of legs.entries()) {
    untilS += minutes * 60;
    if (atS < untilS) return { index, leftS: untilS - atS };
  }
  return null;
}

/** The legs as they were really run: until `ranS` seconds of them, without what was skipped. To a tenth of a minute. */
export function cutLegs(legs: readonly Leg[], ranS: number, skipped: Following["skipped"] = []): Leg[] {
  const ran: Leg[] = [];
  let fromS = 0;
  for (const { rpm, minutes } of legs) {
    const untilS = Math.min(fromS + minutes * 60, ranS);
    const within = ([from, to]: readonly [number, number]) => Math.max(0, Math.min(to, untilS) - Math.max(from, fromS));
    const ranHereS = Math.max(0, untilS - fromS) - skipped.reduce((sum, each) => sum + within(each), 0);
    ran.push({ rpm, minutes: Math.round(ranHereS / 6) / 10 });
    fromS += minutes * 60;
  }
  return ran.filter(({ minutes }) => minutes > 0);
}

/** The clock, four times a second; what shows time is drawn from it. */
export function useNow(): number {
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNowMs(Date.now()), 250);
    return () => clearInterval(timer);
  }, []);
  return nowMs;
}

/** Keeps the screen on while something is followed, where the device can; taken anew when the page comes back to sight. */
export function useScreenOn(isOn: boolean) {
  useEffect(() => {
    if (!isOn || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    const requestLock = () => {
      if (document.visibilityState === "visible")
        navigator.wakeLock.request("screen").then(
          (got) => {
            lock = got;
          },
          () => undefined,
        );
    };
    requestLock();
    document.addEventListener("visibilitychange", requestLock);
    return () => {
      document.removeEventListener("visibilitychange", requestLock);
      void lock?.release();
    };
  }, [isOn]);
}

/** Two short tones and a shake: the speed changes now. Devices that can do neither stay silent. */
export function signalChange() {
  navigator.vibrate?.([250, 120, 250]);
  try {
    const audio = new AudioContext();
    for (const [i, hertz] of [880, 1175].entries()) {
      const tone = audio.createOscillator();
      const loud = audio.createGain();
      tone.frequency.value = hertz;
      loud.gain.value = 0.4;
      tone.connect(loud).connect(audio.destination);
      tone.start(audio.currentTime + i * 0.28);
      tone.stop(audio.currentTime + i * 0.28 + 0.22);
    }
  } catch {
    // No sound on this device: the change is on the screen.
  }
}
