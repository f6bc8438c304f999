import { onlineManager } from "@tanstack/react-query";
import { configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";
import { regions } from "../../core/region/index.ts";
import { setStoreRegion } from "../ui/storeTime.ts";

// A machine that does several things at once is no reason to fail: what is waited for may take a while.
configure({ asyncUtilTimeout: 10_000 });

// The next file finds the screens as they begin.
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  setStoreRegion(regions.metric);
  onlineManager.setOnline(true);
});
