import { useMutation, useQuery } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { useLocation, useNavigate } from "react-router";
import { ask } from "../../app/client.ts";
import { meQuery, queryClient, settle } from "../../app/queries.ts";
import { signedIn } from "../../offline/signOut.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";

interface Fields {
  login: string;
  password: string;
}

export function SignInScreen() {
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { from?: string } | null };
  const options = useQuery({ queryKey: ["sign-in"], queryFn: () => ask("signInOptions") });
  const { register, handleSubmit, formState } = useForm<Fields>();
  const signIn = useMutation({
    mutationFn: (fields: Fields) => ask("signIn", { body: fields }),
    onSuccess: async (me) => {
      await signedIn(me.id);
      queryClient.setQueryData(meQuery.queryKey, settle(me));
      await navigate(state?.from ?? "/", { replace: true });
    },
  });
  return (
    <main className="mx-auto grid min-h-dvh max-w-4xl content-center gap-10 p-6 md:grid-cols-2">
      <form onSubmit={handleSubmit((fields) => signIn.mutate(fields))} noValidate>
        <p className="head text-3xl font-extrabold">Ravik</p>
        <h1 className="mt-1 text-lg text-soft">{options.data?.store ?? "Sign in"}</h1>
        <label className="mt-6 block">
          Name
          <input
            {...register("login", { required: "Type your sign-in name." })}
            autoComplete="username"
            autoCapitalize="none"
            aria-invalid={formState.errors.login !== undefined}
            className="mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3"
          />
        </label>
        {formState.errors.login && <p className="text-magenta">▲ {formState.errors.login.message}</p>}
        <label className="mt-4 block">
          Password
          <input
            {...register("password", { required: "Type your password." })}
            type="password"
            autoComplete="current-password"
            aria-invalid={formState.errors.password !== undefined}
            className="mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3"
          />
        </label>
        {formState.errors.password && <p className="text-magenta">▲ {formState.errors.password.message}</p>}
        <Button type="submit" look="primary" className="mt-6 min-h-12 w-full" disabled={signIn.isPending}>
          Sign in
        </Button>
        {signIn.error !== null && (
          <div className="mt-4">
            <ErrorNotice error={signIn.error} />
          </div>
        )}
      </form>
      {options.data?.demo != null && (
        <section aria-labelledby="demo" className="self-center">
          <h2 id="demo" className="font-bold">
            Demo accounts
          </h2>
          <p className="text-soft">A made-up yard. Touch one to sign in as that person.</p>
          <ul className="mt-3 border-t border-ink">
            {options.data.demo.map(({ login, password, name, role }) => (
              <li key={login} className="border-b border-rule">
                <button
                  type="button"
                  className="flex min-h-14 w-full items-center justify-between gap-4 px-1 text-left hover:bg-shoal"
                  onClick={() => signIn.mutate({ login, password })}
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
      )}
      {options.error !== null && <ErrorNotice error={options.error} />}
    </main>
  );
}
