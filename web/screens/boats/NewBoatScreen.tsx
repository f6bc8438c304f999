import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { AnswerOf, BodyOf, Endpoints, TemplateLine } from "../../../api/index.ts";
import { createRig, type Rig } from "../../../core/rig/index.ts";
import { ask } from "../../app/client.ts";
import { boatsQuery, queryClient, templatesQuery } from "../../app/queries.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { say } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { PickField, TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";
import { HullSays, listFamilies } from "../rig/BoatSection.tsx";

type Facts = Parameters<typeof createRig>[0];
type Start = { from: "template"; id: string } | { from: "boat"; id: string } | { from: "nothing" };

/** A new boat: what it starts from, its name and hull number; then its rig sheet opens. */
export function NewBoatScreen() {
  const templates = useQuery(templatesQuery);
  const boats = useQuery(boatsQuery);
  return (
    <Fetched query={templates} what="the templates">
      {({ templates: lines }) => <NewBoat templates={lines} boats={boats.data?.boats ?? []} />}
    </Fetched>
  );
}

interface NewBoatProps {
  readonly templates: readonly TemplateLine[];
  readonly boats: AnswerOf<Endpoints["boats"]>["boats"];
}

function NewBoat({ templates, boats }: NewBoatProps) {
  const [start, setStart] = useState<Start | null>(null);
  const [name, setName] = useState("");
  const [hull, setHull] = useState("");
  const [facts, setFacts] = useState<Facts>({
    family: "centre-console",
    maker: "",
    model: "",
    modelYear: new Date().getFullYear(),
    loaM: 6,
    beamM: 2.4,
    hasTrailer: true,
  });
  const set = (change: Partial<Facts>) => {
    setFacts((now) => ({ ...now, ...change }));
    // Until it is called otherwise, it is called as its model is.
    if (change.model !== undefined && name === facts.model) setName(change.model);
  };
  const add = useAddBoat();
  const pick = (next: Start, says: string) => {
    setStart(next);
    if (name === "" || templates.some((template) => template.model === name)) setName(says);
  };
  const isWhole = start !== null && name.trim() !== "" && hull.trim() !== "";
  const hasFacts = start?.from !== "nothing" || (facts.maker !== "" && facts.model !== "");
  const submit = () => {
    const head = { name: name.trim(), hull: hull.trim() };
    if (start?.from === "template") add.mutate({ ...head, template: start.id });
    else if (start?.from === "boat") add.mutate({ ...head, boat: start.id });
    else add.mutate({ ...head, rig: createRig(facts) as Rig });
  };
  return (
    <main className="max-w-5xl px-4 pt-5 pb-12 md:px-8">
      <h1 className="text-2xl font-bold">A new boat</h1>
      <p>It starts as a template, as another boat, or empty, at this size; what is its own is then put on its sheet.</p>
      <StartsFrom templates={templates} boats={boats} start={start} onPick={pick} onLeave={() => setStart(null)} />
      {start?.from === "nothing" && <KindAndSize facts={facts} onChange={set} />}
      <section aria-label="Name and number" className="mt-5 grid max-w-3xl gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          most={80}
          isOptional
          why="What the yard calls it; often the model."
        />
        <div>
          <TextField label="Hull identification number" value={hull} onChange={setHull} most={20} isOptional />
          {hull !== "" && <HullSays hull={hull} />}
        </div>
      </section>
      {add.error !== null && (
        <div className="mt-4">
          <ErrorNotice error={add.error} />
        </div>
      )}
      <Button className="mt-5" look="primary" disabled={!isWhole || !hasFacts || add.isPending} onClick={submit}>
        Open its boat sheet
      </Button>
    </main>
  );
}

function useAddBoat() {
  const navigate = useNavigate();
  return useMutation({
    mutationFn: (body: BodyOf<Endpoints["addBoat"]>) => ask("addBoat", { body }),
    onSuccess: async ({ boat }) => {
      await queryClient.invalidateQueries({ queryKey: boatsQuery.queryKey });
      await navigate(`/boats/${boat}/rig`);
    },
  });
}

interface StartsFromProps extends NewBoatProps {
  readonly start: Start | null;
  readonly onPick: (start: Start, says: string) => void;
  readonly onLeave: () => void;
}

function StartsFrom({ templates, boats, start, onPick, onLeave }: StartsFromProps) {
  return (
    <section aria-labelledby="starts-from" className="mt-4">
      <h2 id="starts-from" className="text-lg font-bold">
        Starts from
      </h2>
      <ul className="grid border-t border-ink sm:grid-cols-2 lg:grid-cols-4">
        {templates.map(({ id, name: says, maker, family, loaM, beamM, isShipped }) => (
          <li key={id} className="border-b border-rule p-1">
            <button
              type="button"
              aria-pressed={start?.from === "template" && start.id === id}
              onClick={() => onPick({ from: "template", id }, says)}
              className={`h-full w-full rounded-md p-2 text-left ${start?.from === "template" && start.id === id ? "bg-shoal outline-2 outline-helm" : ""}`}
            >
              <HullSign family={family} loaM={loaM} beamM={beamM} engines={1} />
              <span className="mt-1 block font-bold">{says}</span>
              <span className="block font-text text-sm text-soft">
                {maker}, {say(loaM, "length")}
                {isShipped ? "" : ", ours"}
              </span>
            </button>
          </li>
        ))}
        <li className="border-b border-rule p-1">
          <button
            type="button"
            aria-pressed={start?.from === "nothing"}
            onClick={() => onPick({ from: "nothing" }, "")}
            className={`h-full w-full rounded-md p-2 text-left ${start?.from === "nothing" ? "bg-shoal outline-2 outline-helm" : ""}`}
          >
            <span className="block font-bold">Nothing</span>
            <span className="block font-text text-sm text-soft">Only its kind and size, the rest from the deck.</span>
          </button>
        </li>
      </ul>
      {boats.length > 0 && (
        <div className="mt-3 max-w-md">
          <PickField
            label="Or the same as another boat"
            value={start?.from === "boat" ? start.id : ""}
            options={[["", "–"], ...boats.map((boat) => [boat.id, `${boat.name}, ${boat.hull}`] as const)]}
            onChange={(id) => {
              const boat = boats.find((each) => each.id === id);
              if (boat === undefined) onLeave();
              else onPick({ from: "boat", id }, boat.name);
            }}
          />
        </div>
      )}
    </section>
  );
}

interface KindProps {
  readonly facts: Facts;
  readonly onChange: (change: Partial<Facts>) => void;
}

function KindAndSize({ facts, onChange }: KindProps) {
  return (
    <section aria-label="Kind and size" className="mt-5 grid gap-x-6 gap-y-3 sm:grid-cols-3">
      <PickField
        label="Kind of boat"
        value={facts.family}
        options={listFamilies()}
        onChange={(family) => onChange({ family })}
      />
      <TextField label="Maker" value={facts.maker} onChange={(maker) => onChange({ maker })} />
      <TextField label="Model" value={facts.model} onChange={(model) => onChange({ model })} />
      <QuantityField
        label="Length overall"
        quantity="length"
        value={facts.loaM}
        onChange={(loaM) => loaM !== undefined && onChange({ loaM })}
        least={3}
        most={20}
      />
      <QuantityField
        label="Beam"
        quantity="length"
        value={facts.beamM}
        onChange={(beamM) => beamM !== undefined && onChange({ beamM })}
        least={1}
        most={6}
      />
      <TickField label="On a trailer" value={facts.hasTrailer} onChange={(hasTrailer) => onChange({ hasTrailer })} />
    </section>
  );
}
