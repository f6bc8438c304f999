// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import type { Delivery } from "../../../api/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { createDelivery, on, setUpTablet } from "../../testing/handoverStage.tsx";
import { AddedSince } from "./AddedSince.tsx";
import { Explained } from "./Explained.tsx";

setUpTablet();

const seal = { sha256: "a".repeat(64), sealedAt: toInstant(0), number: 1, key: null, from: null };
const sealed = (): Delivery => ({ ...createDelivery(), seal });

describe("what is added to a sealed record", () => {
  it("is a note, or a call about a topic that is found in the caller's words", async () => {
    const delivery = sealed();
    on(delivery, () => <AddedSince delivery={delivery} later={[]} nameOf={(id) => id} />);
    const user = userEvent.setup();
    const note = screen.getByLabelText("A note to add to the record");
    await user.type(note, "All well{Enter}");
    await user.click(screen.getByRole("radio", { name: "They called" }));
    await user.type(screen.getByLabelText("What they called about"), "how do I flush it");
    await user.click(await screen.findByRole("option", { name: /^Flush/ }));
    await user.type(note, "Which tap?{Enter}");
    expect(syncQueue.listOf(delivery.id)).toMatchObject([
      { kind: "amend", note: "All well" },
      { kind: "call", topic: "flush", note: "Which tap?" },
    ]);
    // The next call is about something else.
    await user.type(note, "Thanks{Enter}");
    expect(syncQueue.listOf(delivery.id).at(-1)).toMatchObject({ kind: "call", topic: null });
  });
});

describe("what was explained", () => {
  it("folds what was planned and not reached, but never a must", () => {
    const delivery = sealed();
    on(delivery, (state) => <Explained delivery={delivery} state={state} nameOf={(id) => id} />);
    const planned = new Set(delivery.plan.visits.flatMap(({ topics }) => topics));
    const musts = delivery.topics.filter(({ must }) => must).length;
    const others = delivery.topics.filter(({ id, must }) => planned.has(id) && !must).length;
    expect(screen.getByText(`${others} planned, not reached`).closest("details")?.open).toBe(false);
    expect(screen.getAllByText("not reached")).toHaveLength(musts);
  });
});
