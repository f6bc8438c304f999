import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { ask } from "../../app/client.ts";
import { signedIn } from "../../offline/signOut.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { SecretField } from "./SecretField.tsx";

/** Somebody who was invited, or who sets a new password, with the code they were given. */
export function JoinScreen() {
  const navigate = useNavigate();
  // Behind the #, so that it reaches no server with the address.
  const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)));
  const [typed, setTyped] = useState(code);
  const invite = useQuery({
    queryKey: ["joining", code],
    queryFn: () => ask("joining", { body: { code } }),
    enabled: code !== "",
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const isReset = invite.data?.isReset ?? false;
  const join = useMutation({
    mutationFn: () => ask("join", { body: { code, password, ...(isReset ? {} : { login }) } }),
    onSuccess: async (me) => {
      await signedIn(me);
      await navigate("/", { replace: true });
    },
  });
  return (
    <main className="mx-auto grid min-h-dvh max-w-md content-center p-6">
      <p className="head text-3xl font-extrabold">Ravik</p>
      {invite.data === undefined ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            setCode(typed.trim());
          }}
        >
          <h1 className="mt-1 mb-4 text-xl font-bold">Type your code</h1>
          <TextField
            label="Code"
            why="The owner of the store gave it to you."
            value={typed}
            most={40}
            onChange={setTyped}
          />
          <Button
            type="submit"
            look="primary"
            className="mt-4 w-full"
            disabled={typed.trim() === "" || invite.isFetching}
          >
            Go on
          </Button>
          {invite.error !== null && (
            <div className="mt-4">
              <ErrorNotice error={invite.error} />
            </div>
          )}
        </form>
      ) : (
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            join.mutate();
          }}
        >
          <h1 className="mt-1 text-xl font-bold">
            {isReset ? "Set a new password" : `Welcome to ${invite.data.store}`}
          </h1>
          <p className="mb-4 text-soft">
            {isReset
              ? `For ${invite.data.name}, who signs in as “${invite.data.login}”.`
              : `You are ${invite.data.name}, ${invite.data.role}.`}
          </p>
          {!isReset && (
            <TextField
              label="Sign-in name"
              why="Short, without spaces. You type it each time."
              value={login}
              most={80}
              onChange={setLogin}
            />
          )}
          <SecretField
            label="Password"
            why="At least 10 characters. A few words in a row are easy to type."
            autoComplete="new-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <Button
            type="submit"
            look="primary"
            className="mt-6 min-h-12 w-full"
            disabled={join.isPending || password === "" || (!isReset && login === "")}
          >
            {isReset ? "Keep it and sign in" : "Come in"}
          </Button>
          {join.error !== null && (
            <div className="mt-4">
              <ErrorNotice error={join.error} />
            </div>
          )}
        </form>
      )}
    </main>
  );
}
