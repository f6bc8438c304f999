import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { ownerPageQuery, queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { useTell } from "../../ui/tell.ts";

const field = "mt-0.5 block min-h-12 w-full rounded-md border border-soft bg-panel px-3";

/** Asked once: how the yard may reach them, and whether it may write. Said no to, it does not come back on this device. */
export function HowToReach({ token, page }: { token: string; page: OwnerPage }) {
  const tell = useTell();
  const kept = `ravik-reach-${page.delivery.id}`;
  const [isLeft, setLeft] = useState(() => localStorage.getItem(kept) !== null);
  const [phone, setPhone] = useState("");
  const [email, setEmail] = useState("");
  // Nobody is taken to agree: it is chosen.
  const [mayWrite, setMayWrite] = useState<boolean | null>(null);
  const isWhole = (phone.trim() !== "" || email.trim() !== "") && mayWrite !== null;
  const save = useMutation({
    mutationFn: () =>
      ask("setOwnerContact", {
        params: { token },
        body: { phone: phone.trim(), email: email.trim(), optOut: mayWrite !== true },
      }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ownerPageQuery(token).queryKey }),
  });
  if (save.isSuccess)
    return (
      <p role="status" className="mb-5 border-l-4 border-helm pl-3">
        {tell(
          mayWrite ? "Thank you. {0} writes to you when something falls due." : "Thank you. {0} does not write to you.",
          page.store,
        )}
      </p>
    );
  if (isLeft || !page.isUnreached) return null;
  return (
    <form
      aria-label={tell("How may we reach you")}
      className="mb-5 border-l-4 border-helm bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (isWhole) save.mutate();
      }}
    >
      <p className="font-bold">{tell("How may {0} reach you?", page.store)}</p>
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="text-soft">
          {tell("Phone")}
          <input
            type="tel"
            autoComplete="tel"
            value={phone}
            maxLength={40}
            onChange={(event) => setPhone(readPlain(event))}
            className={`${field} num text-ink`}
          />
        </label>
        <label className="text-soft">
          {tell("E-mail")}
          <input
            type="email"
            autoComplete="email"
            value={email}
            maxLength={120}
            onChange={(event) => setEmail(readPlain(event))}
            className={`${field} text-ink`}
          />
        </label>
      </div>
      <fieldset className="mt-2">
        <legend className="text-soft">{tell("When a service falls due or a promise is kept")}</legend>
        <div role="radiogroup" aria-label={tell("May they write to you")} className="mt-1 flex flex-wrap gap-2">
          <Chip isPicked={mayWrite === true} onPick={() => setMayWrite(true)}>
            {tell("they may write to me")}
          </Chip>
          <Chip isPicked={mayWrite === false} onPick={() => setMayWrite(false)}>
            {tell("only call me")}
          </Chip>
        </div>
      </fieldset>
      {save.error !== null && <ErrorNotice error={save.error} />}
      <p className="mt-2 flex gap-2">
        <Button type="submit" look="primary" disabled={save.isPending || !isWhole}>
          {tell("Save")}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            localStorage.setItem(kept, "left");
            setLeft(true);
          }}
        >
          {tell("Not now")}
        </Button>
      </p>
    </form>
  );
}
