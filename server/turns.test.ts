import { expect, it } from "vitest";
import { createTurns } from "./turns.ts";

it("goes one after the other, whatever became of the one before, and turns away what would wait too long", async () => {
  const takeTurn = createTurns(3);
  const order: string[] = [];
  let running = 0;
  const work = (name: string) => () => {
    expect(++running).toBe(1);
    return new Promise<string>((resolve, reject) =>
      setTimeout(() => {
        running--;
        order.push(name);
        if (name === "b") reject(new Error("b broke"));
        else resolve(name);
      }, 5),
    );
  };
  const turns = ["a", "b", "c"].map((name) => takeTurn(work(name)));
  await expect(takeTurn(work("d"))).rejects.toMatchObject({ code: "busy" });
  expect((await Promise.allSettled(turns)).map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
  expect(order).toEqual(["a", "b", "c"]);
  expect(await takeTurn(work("e"))).toBe("e");
});
