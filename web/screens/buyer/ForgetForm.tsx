import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { BuyerSheet, ForgottenSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

/** Who is meant: a handover, and who they are in it. */
export interface BuyerParams {
  readonly delivery: string;
  readonly person: string;
}
interface ForgetFormProps {
  readonly params: BuyerParams;
  readonly sheet: BuyerSheet;
  readonly onForgotten: (answer: ForgottenSheet) => void;
}

/** For a buyer who asks for it: in which handovers, what goes with it, and why. Nothing is done before it was said in full. */
export function ForgetForm({ params, sheet: { name, handovers, boats }, onForgotten }: ForgetFormProps) {
  const theirs = boats.filter(({ isTheirs }) => isTheirs);
  const others = [
    ...new Set(
      handovers.flatMap(({ boat, others: each }) => (theirs.some((owned) => owned.boat === boat) ? each : [])),
    ),
  ];
  const [chosen, setChosen] = useState<readonly string[]>(() => handovers.map(({ delivery }) => delivery));
  const [photos, setPhotos] = useState(true);
  // Whoever bought it with them is reached by the same phone.
  const [contact, setContact] = useState(others.length === 0);
  const [reason, setReason] = useState("");
  const [isSure, setSure] = useState(false);
  const forget = useMutation({
    mutationFn: () =>
      ask("forgetBuyer", {
        params: { ...params },
        body: { deliveries: [...chosen], photos, contact: contact && theirs.length > 0, reason: reason.trim() },
      }),
    onSuccess: async (answer) => {
      onForgotten(answer);
      // No screen shows what was read before.
      await queryClient.invalidateQueries();
    },
  });
  /** What is asked anew whenever something of it changes. */
  const change = (set: () => void) => {
    set();
    setSure(false);
  };
  const isFirst = handovers.some(({ delivery, seal }) => seal === "first" && chosen.includes(delivery));
  const hasPhotos = handovers.some(({ delivery, photos: n }) => n > 0 && chosen.includes(delivery));
  const canAsk = chosen.length > 0 && reason.trim() !== "";
  return (
    <form
      aria-labelledby="forget"
      className="mt-8 border-t border-ink pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!canAsk) return;
        if (isSure) forget.mutate();
        else setSure(true);
      }}
    >
      <h2 id="forget" className="text-lg font-bold">
        Forget them
      </h2>
      <p className="max-w-prose text-soft">
        For a buyer who asks for it. Name, signatures, messages and notes that name them are gone for good. What was
        handed over stays, and so do the hashes, so that the rest of a sealed record still verifies. Your law may oblige
        you to keep some of it: ask before you forget.
      </p>
      <fieldset className="mt-2">
        <legend className="font-semibold">In which handovers</legend>
        {handovers.map(({ delivery, boatName, date }) => (
          <TickField
            key={delivery}
            label={`${boatName}, ${formatDayAndYear(date)}`}
            value={chosen.includes(delivery)}
            onChange={(isOn) =>
              change(() => setChosen(isOn ? [...chosen, delivery] : chosen.filter((each) => each !== delivery)))
            }
          />
        ))}
      </fieldset>
      {hasPhotos && (
        <TickField
          label="The photos of these handovers too"
          value={photos}
          onChange={(isOn) => change(() => setPhotos(isOn))}
        />
      )}
      {theirs.length > 0 && (
        <TickField
          label={`Phone, e-mail, dates of their gear and their car, of ${theirs.map(({ boatName }) => boatName).join(", ")}`}
          {...(others.length > 0 ? { why: `${others.join(" and ")} may be reached by the same.` } : {})}
          value={contact}
          onChange={(isOn) => change(() => setContact(isOn))}
        />
      )}
      <div className="mt-2 max-w-prose">
        <TextField label="Why, without their name" value={reason} onChange={(text) => change(() => setReason(text))} />
      </div>
      {isFirst && (
        <p className="mt-2 max-w-prose border-l-4 border-amber pl-3">
          ◷ One of these records was sealed in the old format, over the names themselves. Once they are struck its seal
          can no longer be recomputed, and the record says so.
        </p>
      )}
      {isSure && (
        <div role="alert" className="mt-3 max-w-prose border-l-4 border-magenta pl-3">
          <p className="break-words text-magenta">
            ▲ {name} is struck for good from {chosen.length === 1 ? "one handover" : `${chosen.length} handovers`} and
            its messages{photos && hasPhotos && ", with the photos"}
            {contact && theirs.length > 0 && ", and how they are reached is cleared"}. It cannot be undone.
          </p>
          <Kept />
        </div>
      )}
      <p className="mt-3 flex flex-wrap gap-3">
        <Button type="submit" look={isSure ? "person" : "plain"} disabled={!canAsk || forget.isPending}>
          {isSure ? "Forget them for good" : "Forget …"}
        </Button>
        {isSure && <Button onClick={() => setSure(false)}>Keep them</Button>}
      </p>
      {forget.error !== null && <ErrorNotice error={forget.error} />}
    </form>
  );
}

/** What a store cannot take back. */
export function Kept() {
  return (
    <p className="mt-2 max-w-prose text-soft">
      Backups made before hold it until they go, twelve months at most; a tablet keeps what it has seen for 45 days;
      papers and files that went out are where they went.
    </p>
  );
}
