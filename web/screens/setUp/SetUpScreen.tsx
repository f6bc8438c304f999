import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import type { StoreFacts } from "../../../api/index.ts";
import { regions } from "../../../core/region/index.ts";
import { ask } from "../../app/client.ts";
import { signedIn } from "../../offline/signOut.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { SecretField } from "../signIn/SecretField.tsx";
import { RegionFields, StoreFields } from "../store/StoreFields.tsx";

/** Where the browser is says where most stores are; each line can be changed. */
const guessRegion = () =>
  navigator.language === "en-US" ? regions.us : navigator.language === "en-GB" ? regions.imperial : regions.metric;
/** An address that only this machine knows is none for owners. */
type SetUpFacts = Omit<StoreFacts, "logo" | "quietHours" | "usualMin" | "allowers">;
const guessAddress = () => (location.protocol === "https:" ? location.origin : null);

/** A new store, from the code its server printed to its owner's first look round. */
export function SetUpScreen() {
  const navigate = useNavigate();
  const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)));
  const [facts, setFacts] = useState<SetUpFacts>(() => ({
    store: "",
    place: "",
    phone: "",
    webAddress: guessAddress(),
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    region: guessRegion(),
  }));
  const [owner, setOwner] = useState({ name: "", login: "", password: "" });
  const missing = [
    ...(code.trim() === "" ? ["the code"] : []),
    ...(facts.store === "" ? ["the name of the store"] : []),
    ...(owner.name === "" ? ["your name"] : []),
    ...(owner.login === "" ? ["your sign-in name"] : []),
    ...(owner.password === "" ? ["a password"] : []),
  ];
  const setUp = useMutation({
    mutationFn: () => ask("setUp", { body: { code, ...facts, ...owner } }),
    onSuccess: async (me) => {
      await signedIn(me);
      await navigate("/welcome", { replace: true });
    },
  });
  return (
    <main className="mx-auto max-w-4xl px-4 py-8 md:px-8">
      <p className="head text-3xl font-extrabold">Ravik</p>
      <h1 className="mt-1 text-2xl font-bold">Set up your store</h1>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          setUp.mutate();
        }}
      >
        <Part
          title="The code"
          says="It stands in the terminal where Ravik was started. It opens this page and nothing else."
        >
          <label className="block max-w-72">
            Code
            <input
              value={code}
              autoComplete="off"
              autoCapitalize="characters"
              spellCheck={false}
              className="num mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3 text-xl uppercase"
              onChange={(event) => setCode(event.target.value)}
            />
          </label>
        </Part>
        <Part title="The store" says="All of it can be changed later, under More, Store.">
          <StoreFields facts={facts} onChange={setFacts} />
        </Part>
        <Part title="How you measure and write">
          <RegionFields region={facts.region} onChange={(region) => setFacts({ ...facts, region })} />
        </Part>
        <Part title="You, the owner" says="You invite everybody else. Take a few words in a row as your password.">
          <div className="grid gap-x-6 gap-y-4 md:grid-cols-2">
            <TextField
              label="Your name"
              value={owner.name}
              most={80}
              onChange={(name) => setOwner({ ...owner, name })}
            />
            <TextField
              label="Sign-in name"
              why="Short, without spaces."
              value={owner.login}
              most={80}
              onChange={(login) => setOwner({ ...owner, login })}
            />
            <SecretField
              label="Password"
              why="At least 10 characters."
              className=""
              autoComplete="new-password"
              value={owner.password}
              onChange={(event) => setOwner({ ...owner, password: event.target.value })}
            />
          </div>
        </Part>
        <div className="mt-8 flex flex-wrap items-center gap-4 border-t border-ink pt-4">
          <Button type="submit" look="primary" disabled={missing.length > 0 || setUp.isPending}>
            Begin
          </Button>
          {missing.length > 0 && <p className="text-soft">Still to fill in: {missing.join(", ")}.</p>}
        </div>
        {setUp.error !== null && (
          <div className="mt-4">
            <ErrorNotice error={setUp.error} />
          </div>
        )}
      </form>
    </main>
  );
}

function Part({ title, says, children }: { title: string; says?: string; children: ReactNode }) {
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2 className="text-lg font-bold">{title}</h2>
      {says !== undefined && <p className="mb-3 text-soft">{says}</p>}
      <div className="mt-2">{children}</div>
    </section>
  );
}
