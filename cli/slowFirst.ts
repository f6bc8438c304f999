import { BaseSequencer, type TestSpecification } from "vitest/node";

/** The files that take longest, the longest first: begun last, one of them would run by itself while the other core waits. */
const slow = [
  "server/names.test.ts",
  "server/app.test.ts",
  "server/edge.test.ts",
  "server/start.test.ts",
  "server/bundles.test.ts",
  "server/reports.test.ts",
  "web/screens/close/closing.test.tsx",
  "web/screens/library/topicEditor.test.tsx",
  "web/screens/rig/sections.test.tsx",
  "server/durability.test.ts",
  "content/content.test.ts",
];

/** Slow tests first, then in vitest's own order. */
export default class SlowFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification) => {
      const at = slow.findIndex((each) => moduleId.endsWith(each));
      return at < 0 ? slow.length : at;
    };
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b));
  }
}
