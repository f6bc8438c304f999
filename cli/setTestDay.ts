/**
 * Vitest's setup: tests live on a day that is given (RAVIK_TEST_NOW, else the usual one), never on the wall clock's. Time goes on from
 * there; what times something asks `performance.now`. Child processes have the wall clock unless they are given a day too.
 */
const usualNow = "2026-06-10T14:40:00.000Z";

const WallDate = Date;
/** Once a process: files that share their modules share their clock. */
const isSet = Symbol.for("ravik.testDay");
const shared = globalThis as { [isSet]?: true };

if (shared[isSet] === undefined) {
  shared[isSet] = true;
  const wallNowMs = WallDate.now;
  const aheadMs = WallDate.parse(process.env.RAVIK_TEST_NOW || usualNow) - wallNowMs();
  const nowMs = () => wallNowMs() + aheadMs;
  WallDate.now = nowMs;
  globalThis.Date = new Proxy(WallDate, {
    construct: (target, given, asked) =>
      Reflect.construct(target, given.length === 0 ? [nowMs()] : given, asked === globalThis.Date ? target : asked),
    apply: () => new WallDate(nowMs()).toString(),
  });
}
