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
  const turns = ["a", "b", "c"].map((name) => takeTurn(name, work(name)));
  await expect(takeTurn("d", work("d"))).rejects.toMatchObject({ code: "busy" });
  expect((await Promise.allSettled(turns)).map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
  expect(order).toEqual(["a", "b", "c"]);
  expect(await takeTurn("e", work("e"))).toBe("e");
});

it("lets nobody fill the line alone", async () => {
  const takeTurn = createTurns(8, 2);
  const slow = () => new Promise<string>((resolve) => setTimeout(() => resolve("done"), 5));
  const greedy = [takeTurn("a", slow), takeTurn("a", slow)];
  await expect(takeTurn("a", slow)).rejects.toMatchObject({ code: "busy" });
  expect(await takeTurn("b", slow)).toBe("done");
  await Promise.all(greedy);
  expect(await takeTurn("a", slow)).toBe("done");
});
