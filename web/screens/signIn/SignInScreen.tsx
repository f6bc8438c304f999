import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useForm } from "react-hook-form";
import { Navigate, useLocation, useNavigate } from "react-router";
import { ask, Refused } from "../../app/client.ts";
import type { Held } from "../../app/held.ts";
import { openAtServer, reconcile, unlock, useHeld } from "../../offline/sharedTablet.ts";
import { signedIn } from "../../offline/signOut.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { count } from "../../ui/words.ts";
import { PinPad } from "./PinPad.tsx";
import { SecretField } from "./SecretField.tsx";

interface Fields {
  login: string;
  password: string;
  code?: string;
}

/** Who are you: by PIN on a shared tablet, with signal or without; else by name and password. */
export function SignInScreen() {
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { from?: string } | null };
  const options = useQuery({ queryKey: ["sign-in"], queryFn: () => ask("signInOptions"), staleTime: 0, gcTime: 0 });
  const held = useHeld();
  const [isSomebodyElse, setSomebodyElse] = useState(false);
  const [note, setNote] = useState<string | null>(null);
  const go = () => void navigate(state?.from ?? "/", { replace: true });
  const signIn = useMutation({
    mutationFn: (fields: Fields) => ask("signIn", { body: fields }),
    onSuccess: async (me) => {
      await signedIn(me);
      go();
    },
  });
  const { data, isFetchedAfterMount } = options;
  useEffect(() => {
    // What was answered before somebody signed in says nothing of them.
    if (data !== undefined && isFetchedAfterMount) reconcile(data);
  }, [data, isFetchedAfterMount]);
  if (data?.isNew === true) return <Navigate to="/set-up" replace />;
  const asksCode = signIn.error instanceof Refused && ["second-needed", "wrong-code"].includes(signIn.error.code);
  const isByPin = held.length > 0 && !isSomebodyElse;
  return (
    <div className="min-h-dvh lg:grid lg:grid-cols-[320px_1fr]">
      <aside aria-hidden className="sticky top-0 h-dvh bg-buff p-6 max-lg:hidden">
        <img src="/boat.svg" alt="" className="boat-picture size-full object-contain" />
      </aside>
      <main className="mx-auto grid min-h-dvh w-full max-w-4xl content-center gap-10 p-6 md:grid-cols-2">
        <div>
          <p className="head text-3xl font-extrabold">Ravik</p>
          <h1 className="mt-1 text-lg text-soft">{data?.store ?? held[0]?.me.store ?? "Sign in"}</h1>
          {isByPin && (
            <Unlock
              held={held}
              onOpen={go}
              onElse={(why) => {
                setNote(why);
                setSomebodyElse(true);
              }}
            />
          )}
          {!isByPin && (
            <>
              {note !== null && (
                <p role="alert" className="mt-4 text-magenta">
                  ▲ {note}
                </p>
              )}
              <PasswordForm
                isPending={signIn.isPending}
                asksCode={asksCode}
                onSend={(fields) => signIn.mutate(fields)}
                sharedAs={data?.sharedAs ?? null}
              />
              {signIn.error !== null && (
                <div className="mt-4">
                  <ErrorNotice error={signIn.error} />
                </div>
              )}
              {held.length > 0 && (
                <Button className="mt-4" onClick={() => setSomebodyElse(false)}>
                  Back to those signed in here
                </Button>
              )}
            </>
          )}
        </div>
        {data?.demo != null && !isByPin && (
          <DemoAccounts accounts={data.demo} onPick={(login, password) => signIn.mutate({ login, password })} />
        )}
        {options.error !== null && held.length === 0 && <ErrorNotice error={options.error} />}
      </main>
    </div>
  );
}

interface PasswordFormProps {
  readonly isPending: boolean;
  readonly asksCode: boolean;
  readonly sharedAs: string | null;
  readonly onSend: (fields: Fields) => void;
}

function PasswordForm({ isPending, asksCode, sharedAs, onSend }: PasswordFormProps) {
  const { register, handleSubmit, formState } = useForm<Fields>();
  const { errors } = formState;
  return (
    <form onSubmit={handleSubmit((fields) => onSend(asksCode ? fields : { ...fields, code: "" }))} noValidate>
      {sharedAs !== null && (
        <p className="mt-4 text-soft">This tablet is shared ({sharedAs}): you stay signed in here behind a PIN.</p>
      )}
      <label className="mt-6 block">
        Name
        <input
          {...register("login", { required: "Type your sign-in name." })}
          autoComplete="username"
          autoCapitalize="none"
          spellCheck={false}
          aria-invalid={errors.login !== undefined}
          className="mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3"
        />
      </label>
      {errors.login && <p className="text-magenta">▲ {errors.login.message}</p>}
      <SecretField
        label="Password"
        autoComplete="current-password"
        error={errors.password?.message}
        {...register("password", { required: "Type your password." })}
      />
      {asksCode && (
        <label className="mt-4 block">
          Code of your authenticator, or a recovery code
          <input
            {...register("code", { required: true })}
            inputMode="text"
            autoComplete="one-time-code"
            autoCapitalize="characters"
            className="num mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3"
          />
        </label>
      )}
      <Button type="submit" look="primary" className="mt-6 min-h-12 w-full" disabled={isPending}>
        Sign in
      </Button>
      <details className="mt-4 text-soft">
        <summary className="min-h-11 cursor-pointer py-2">I cannot sign in</summary>
        <p>
          The owner of the store gives you a code to set a new password with: Staff, your name, New password. An owner
          who has lost their own runs <code>ravik owner --reset</code> on the machine Ravik runs on.
        </p>
      </details>
    </form>
  );
}

function Unlock({
  held,
  onOpen,
  onElse,
}: {
  held: readonly Held[];
  onOpen: () => void;
  onElse: (why: string | null) => void;
}) {
  const [who, setWho] = useState<string | null>(() =>
    held.length === 1 && held[0]!.pin !== null ? held[0]!.me.id : null,
  );
  const [error, setError] = useState<string | null>(null);
  const person = held.find(({ me }) => me.id === who);
  return (
    <section aria-labelledby="who" className="mt-6">
      <h2 id="who" className="text-xl font-bold">
        {person === undefined ? "Who is it?" : person.me.name}
      </h2>
      {person === undefined ? (
        <ul className="mt-2 border-t border-ink">
          {held.map(({ me, pin }) => (
            <li key={me.id} className="border-b border-rule">
              <button
                type="button"
                className="flex min-h-14 w-full items-center justify-between gap-4 px-1 text-left hover:bg-shoal"
                onClick={() => {
                  if (pin === null)
                    return onElse(`${me.name} has no PIN on this tablet yet: sign in once more with the password.`);
                  setWho(me.id);
                  setError(null);
                }}
              >
                <span className="head font-semibold">{me.name}</span>
                <span className="text-soft">{me.role}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <PinPad
          key={person.me.id}
          label={`PIN of ${person.me.name}`}
          action="Open"
          error={error}
          onDone={(pin) => {
            const opened = unlock(person.me.id, pin);
            if (opened.ok) return void openAtServer().then(onOpen);
            if (opened.left === 0) return onElse("Five wrong PINs: sign in with your password.");
            setError(`This is not the PIN. ${count(opened.left, "try", "tries")} left.`);
          }}
        />
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        {person !== undefined && held.length > 1 && <Button onClick={() => setWho(null)}>Somebody else here</Button>}
        <Button onClick={() => onElse(null)}>Sign in with a password</Button>
      </div>
    </section>
  );
}

interface DemoAccountsProps {
  readonly accounts: readonly { login: string; password: string; name: string; role: string }[];
  readonly onPick: (login: string, password: string) => void;
}

function DemoAccounts({ accounts, onPick }: DemoAccountsProps) {
  return (
    <section aria-labelledby="demo" className="self-center">
      <h2 id="demo" className="font-bold">
        Demo accounts
      </h2>
      <p className="text-soft">A made-up yard. Touch one to sign in as that person.</p>
      <ul className="mt-3 border-t border-ink">
        {accounts.map(({ login, password, name, role }) => (
          <li key={login} className="border-b border-rule">
            <button
              type="button"
              className="flex min-h-14 w-full items-center justify-between gap-4 px-1 text-left hover:bg-shoal"
              onClick={() => onPick(login, password)}
            >
              <span className="head font-semibold">{name}</span>
              <span className="text-soft">
                {role} · {login} / {password}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
