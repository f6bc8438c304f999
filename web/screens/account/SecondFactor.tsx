import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ask } from "../../app/client.ts";
import { meQuery, queryClient, sessionsQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QrCode } from "../../ui/QrCode.tsx";
import { count } from "../../ui/words.ts";
import { SecretField } from "../signIn/SecretField.tsx";

const refetchMe = () =>
  Promise.all([meQuery, sessionsQuery].map(({ queryKey }) => queryClient.invalidateQueries({ queryKey })));

/** A code beside the password, from an authenticator; with recovery codes for the day it is lost. */
export function SecondFactor() {
  const me = useMe();
  const sessions = useQuery({ ...sessionsQuery, enabled: !me.owesSecond });
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const begin = useMutation({
    mutationFn: () => ask("beginSecond", { body: { password } }),
    onSuccess: () => setPassword(""),
  });
  const confirm = useMutation({ mutationFn: () => ask("setSecond", { body: { code } }) });
  const remove = useMutation({
    mutationFn: () => ask("removeSecond", { body: { password } }),
    onSuccess: async () => {
      setPassword("");
      begin.reset();
      confirm.reset();
      await refetchMe();
    },
  });
  const error = begin.error ?? confirm.error ?? remove.error;
  if (confirm.data !== undefined)
    return (
      <div className="mt-2 border-l-4 border-helm bg-panel px-4 py-3">
        <p className="font-bold">It is on. Write these recovery codes down now.</p>
        <p className="text-soft">
          Each works once, on the day your authenticator is lost. They are shown this once and kept nowhere.
        </p>
        <ol className="num my-3 grid max-w-sm grid-cols-2 gap-x-6 text-lg">
          {confirm.data.recovery.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ol>
        <Button
          look="primary"
          onClick={() => {
            confirm.reset();
            begin.reset();
            setCode("");
            void refetchMe();
          }}
        >
          I have written them down
        </Button>
      </div>
    );
  return (
    <div className="max-w-md">
      <p className="mt-1 text-soft">
        {me.hasSecond
          ? `It is on. ${count(sessions.data?.recoveryLeft ?? 0, "recovery code is", "recovery codes are")} left.`
          : "A code of six digits from an authenticator, asked for after your password. It keeps out whoever has read or guessed it."}
      </p>
      {begin.data === undefined || me.hasSecond ? (
        <>
          <SecretField
            label="Your password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <div className="mt-4 flex flex-wrap gap-3">
            <Button disabled={password === "" || begin.isPending} onClick={() => begin.mutate()}>
              {me.hasSecond ? "Change to another authenticator" : "Turn it on"}
            </Button>
            {me.hasSecond && (
              <Button disabled={password === "" || remove.isPending} onClick={() => remove.mutate()}>
                Turn it off
              </Button>
            )}
          </div>
        </>
      ) : null}
      {begin.data !== undefined && (
        <form
          className="mt-4"
          onSubmit={(event) => {
            event.preventDefault();
            confirm.mutate();
          }}
        >
          <p>Scan this with an authenticator app, then type the six digits it shows.</p>
          <div className="my-3">
            <QrCode text={begin.data.address} label="Code to scan with an authenticator" />
          </div>
          <p className="text-soft">
            Cannot scan? Type this secret: <span className="num break-all select-all">{begin.data.secret}</span>
          </p>
          <label className="mt-3 block max-w-48">
            Six digits
            <input
              value={code}
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={8}
              className="num mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3 text-xl"
              onChange={(event) => setCode(event.target.value)}
            />
          </label>
          <Button type="submit" look="primary" className="mt-4" disabled={code.trim().length < 6 || confirm.isPending}>
            Check and turn on
          </Button>
        </form>
      )}
      {error !== null && (
        <div className="mt-3">
          <ErrorNotice error={error} />
        </div>
      )}
    </div>
  );
}
