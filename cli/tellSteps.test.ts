import { expect, it } from "vitest";
import { createStepTeller } from "./tellSteps.ts";

const tellOn = (isTTY: boolean) => {
  let said = "";
  const tell = createStepTeller({
    isTTY,
    write(text: string | Uint8Array) {
      said += String(text);
      return true;
    },
  } as never);
  tell("Copying", { done: 0, of: 12e6 });
  tell("Copying", { done: 6e6, of: 12e6 });
  tell("Checking");
  return said;
};

it("steps are lines, and on a terminal a copy says how much of it is there", () => {
  expect(tellOn(false)).toBe("Copying ...\nChecking ...\n");
  expect(tellOn(true)).toBe("Copying ...\rCopying ... 0 of 12 MB\rCopying ... 6 of 12 MB\nChecking ...");
});
