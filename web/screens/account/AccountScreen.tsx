import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { type Language, languageNames, languages } from "../../../core/language/index.ts";
import { ask } from "../../app/client.ts";
import { meQuery, queryClient, sessionsQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { Caution, ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";
import { SecretField } from "../signIn/SecretField.tsx";
import { SecondFactor } from "./SecondFactor.tsx";

/** What everybody keeps for themselves: password, second step, sessions. */
export function AccountScreen() {
  const me = useMe();
  return (
    <main className="max-w-3xl px-4 pt-6 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">Your account</h1>
      <p className="text-soft">
        {me.name}, {me.role}
      </p>
      {me.owesSecond && (
        <div className="mt-4">
          <Caution texts={["The owner wants a second step at your sign-in. Turn it on; then everything else opens."]} />
        </div>
      )}
      <Part title="Second step at sign-in">
        <SecondFactor />
      </Part>
      {!me.owesSecond && (
        <>
          <Part title="Language of the topics">
            <OwnLanguage />
          </Part>
          <Part title="Password">
            <NewPassword />
          </Part>
          <Part title="Where you are signed in">
            <Sessions />
          </Part>
        </>
      )}
    </main>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-6 border-t border-rule pt-4">
      <h2 className="text-lg font-bold">{title}</h2>
      {children}
    </section>
  );
}

/** What one reads topics in; where nobody translated one, it stays English. */
function OwnLanguage() {
  const me = useMe();
  const save = useMutation({
    mutationFn: (language: Language) => ask("setLanguage", { body: { language } }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: meQuery.queryKey }),
  });
  return (
    <>
      <div role="radiogroup" aria-label="Language of the topics" className="mt-2 flex flex-wrap gap-2">
        {languages.map((language) => (
          <Chip key={language} isPicked={me.language === language} onPick={() => save.mutate(language)}>
            <span lang={language}>{languageNames[language]}</span>
          </Chip>
        ))}
      </div>
      <p className="mt-1 text-soft" role="status">
        {save.isSuccess && "Saved. "}
        You read topics in it wherever they have been translated. A walk that has begun stays as it is.
      </p>
      {save.error !== null && <ErrorNotice error={save.error} />}
    </>
  );
}

function NewPassword() {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const save = useMutation({
    mutationFn: () => ask("setPassword", { body: { old, password } }),
    onSuccess: async () => {
      setOld("");
      setPassword("");
      await queryClient.invalidateQueries({ queryKey: sessionsQuery.queryKey });
    },
  });
  return (
    <form
      className="max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <SecretField
        label="Password until now"
        autoComplete="current-password"
        value={old}
        onChange={(event) => setOld(event.target.value)}
      />
      <SecretField
        label="New password"
        why="At least 10 characters. A few words in a row are easy to type."
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button type="submit" className="mt-4" disabled={old === "" || password === "" || save.isPending}>
        Change it
      </Button>
      {save.isSuccess && <p role="status">Changed. Everywhere else you are signed out.</p>}
      {save.error !== null && (
        <div className="mt-3">
          <ErrorNotice error={save.error} />
        </div>
      )}
    </form>
  );
}

function Sessions() {
  const query = useQuery(sessionsQuery);
  const end = useMutation({
    mutationFn: (session: string) => ask("endSession", { params: { session } }),
    onSuccess: () =>
      Promise.all([sessionsQuery, meQuery].map(({ queryKey }) => queryClient.invalidateQueries({ queryKey }))),
  });
  return (
    <>
      <ul className="mt-2 border-t border-ink">
        {query.data?.sessions.map(({ id, device, isShared, isThis, beganAtMs, seenAtMs }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
            <span className="min-w-48 flex-1">
              {device}
              {isShared && <span className="text-soft"> (shared tablet)</span>}
              <span className="block text-sm text-soft">
                since {formatDayAndYear(storeDay(beganAtMs))} {formatClock(beganAtMs)}
                {isThis ? " · here" : ` · last used ${formatDayAndYear(storeDay(seenAtMs))} ${formatClock(seenAtMs)}`}
              </span>
            </span>
            {!isThis && (
              <Button aria-label={`End the session on ${device}`} onClick={() => end.mutate(id)}>
                End it
              </Button>
            )}
          </li>
        ))}
      </ul>
      {(query.error ?? end.error) !== null && <ErrorNotice error={query.error ?? end.error} />}
    </>
  );
}
