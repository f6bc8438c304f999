import { useQuery } from "@tanstack/react-query";
import { ChevronLeft } from "lucide-react";
import { Link, useParams } from "react-router";
import type { Boat } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery } from "../../app/queries.ts";
import { BreakInPanel } from "../../breakin/BreakInPanel.tsx";
import type { BreakInPort } from "../../breakin/breakInPort.ts";
import { withdraw } from "../../care/withdraw.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { BoatPage } from "../../plan/BoatPage.tsx";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { Fetched } from "../../ui/Fetched.tsx";

/** A boat's break-in at the yard: the next run, runs logged, what they were like. */
export function RunsScreen() {
  const { boat: id } = useParams() as { boat: string };
  const boat = useQuery(boatQuery(id));
  return (
    <Fetched query={boat} what="the boat">
      {(data) => <RunsOf boat={data} />}
    </Fetched>
  );
}

function RunsOf({ boat }: { boat: Boat }) {
  const params = { boat: boat.id };
  const port: BreakInPort = {
    key: boat.id,
    about: boat.id,
    today: boat.today,
    care: boat.care,
    runs: boat.runs,
    async addRun(body, says) {
      const id = body.engines[0]!.id;
      const answer = await syncQueue.post({ id, name: "addRun", params, body, about: boat.id, says });
      return answer?.runs ?? null;
    },
    fills: boat.fills,
    addFill: (body, says) => syncQueue.post({ id: body.id, name: "addFill", params, body, about: boat.id, says }),
    hasGateway: true,
    withdraw: (body) => withdraw(boat.id, body),
    mayCorrect: () => true,
    fetchRun: (run) => ask("run", { params: { ...params, run } }),
  };
  return (
    <BoatPage plan={<DeckPlan rig={boat.rig} className="size-full" />}>
      <Link to={`/boats/${boat.id}`} className="inline-flex min-h-11 items-center gap-1 underline print:hidden">
        <ChevronLeft size={18} aria-hidden />
        {boat.name} {boat.hull}
      </Link>
      <h1 className="mb-4 text-2xl font-bold">Break-in of {boat.name}</h1>
      {boat.inService === null ? (
        <p>Not handed over yet. Break-in begins with the hours read when the handover is closed.</p>
      ) : (
        <BreakInPanel port={port} />
      )}
    </BoatPage>
  );
}
