import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Boat, TowingSheet } from "../../../api/index.ts";
import { isOneOf, keepers, walkers } from "../../../api/roles.ts";
import type { TowRules } from "../../../core/tow/index.ts";
import { boatQuery, towingQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { TowCheck } from "../../towing/TowCheck.tsx";
import { useTowing } from "../../towing/useTowing.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { RulesForm } from "./RulesForm.tsx";

/** May this car take this boat on the road: every limit with what stands against it, the weakest first. */
export function TowScreen() {
  const { boat: id } = useParams() as { boat: string };
  const boat = useQuery(boatQuery(id));
  const towing = useQuery(towingQuery(id));
  return (
    <Fetched query={boat} what="the boat">
      {(data) => (
        <Fetched query={towing} what="the car">
          {(sheet) => <TowOf boat={data} sheet={sheet} />}
        </Fetched>
      )}
    </Fetched>
  );
}

function TowOf({ boat, sheet }: { boat: Boat; sheet: TowingSheet }) {
  const me = useMe();
  const { setVehicle, setTowRules, removeTowRules } = useTowing(boat.id);
  const { gone, setGone } = useGone<TowRules>();
  return (
    <main className="px-4 pt-4 pb-12 md:px-8">
      <p className="head text-soft">
        <Link to={`/boats/${boat.id}`} className="inline-flex min-h-11 items-center underline">
          {boat.name} {boat.hull}
        </Link>{" "}
        {boat.buyers}
      </p>
      {boat.rig.trailer === null ? (
        <p className="mt-3">{boat.name} has no trailer on its boat sheet, so there is nothing to tow.</p>
      ) : (
        <TowCheck rig={boat.rig} sheet={sheet} save={isOneOf(walkers, me.role) ? setVehicle : null}>
          {(rules) =>
            isOneOf(keepers, me.role) && (
              <>
                <RulesForm
                  key={rules.id}
                  boat={boat.id}
                  rules={rules}
                  sheet={sheet}
                  isRemoving={removeTowRules.isPending}
                  onRemove={() =>
                    removeTowRules.mutate(rules.id, {
                      onSuccess: () => setGone({ what: rules, name: `The set ${rules.name}` }),
                    })
                  }
                />
                <Removed
                  gone={gone}
                  isBusy={setTowRules.isPending}
                  error={removeTowRules.error ?? setTowRules.error}
                  onUndo={(what) => setTowRules.mutate(what, { onSuccess: () => setGone(null) })}
                />
              </>
            )
          }
        </TowCheck>
      )}
    </main>
  );
}
