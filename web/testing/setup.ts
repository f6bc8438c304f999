import { configure } from "@testing-library/react";

// A machine that does several things at once is no reason to fail: what is waited for may take a while.
configure({ asyncUtilTimeout: 10_000 });

// jsdom lays nothing out: what only looks where things stand finds nothing to do.
if (typeof Element !== "undefined") {
  Element.prototype.scrollIntoView ??= () => undefined;
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
}
