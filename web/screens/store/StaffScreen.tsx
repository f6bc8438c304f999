import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import { everyone, type PersonLine, type StaffSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { meQuery, queryClient, staffQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { CopyButton } from "../../ui/CopyButton.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { PickField, TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";

type Role = PersonLine["role"];
const roleOptions = everyone.map((role) => [role, role] as const);
const refetch = () => queryClient.invalidateQueries({ queryKey: staffQuery.queryKey });

/** Who works here: invite, change, let go; and which tablets several people share. */
export function StaffScreen() {
  const query = useQuery(staffQuery);
  return (
    <Fetched query={query} what="the staff">
      {(sheet) => (
        <main className="max-w-5xl px-4 pt-6 pb-10 md:px-8">
          <h1 className="text-2xl font-bold">Staff</h1>
          <Link to="/rights" className="inline-flex min-h-11 items-center underline">
            What each role may do
          </Link>
          <Invite />
          <ul aria-label="People" className="mt-6 border-t border-ink">
            {sheet.people.map((person) => (
              <PersonRow key={person.id} person={person} />
            ))}
          </ul>
          {sheet.invites.length > 0 && <Invites invites={sheet.invites} />}
          <Devices devices={sheet.devices} />
        </main>
      )}
    </Fetched>
  );
}

/** The code of an invitation or a new password: shown once, to be sent or read out. */
function FreshCode({ code, endsAtMs, name }: { code: string; endsAtMs: number; name: string }) {
  const link = `${location.origin}/join#${code}`;
  return (
    <div role="status" className="mt-3 border-l-4 border-helm bg-panel px-4 py-3">
      <p>
        For {name}, once, until {formatDayAndYear(storeDay(endsAtMs))} {formatClock(endsAtMs)}:
      </p>
      <p className="num my-1 text-2xl font-bold tracking-wider select-all">{code}</p>
      <p className="break-all text-soft">
        Typed at {location.origin}/join, or by this link: <span className="select-all">{link}</span>
      </p>
      <p className="mt-2">
        <CopyButton text={link} says="Copy the link" />
      </p>
      <p className="mt-2 text-sm text-soft">
        It is not kept anywhere: when you leave this page it cannot be shown again.
      </p>
    </div>
  );
}

function Failed({ error }: { error: Error | null }) {
  return error === null ? null : (
    <div className="mt-2">
      <ErrorNotice error={error} />
    </div>
  );
}

function Invite() {
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("delivery");
  const [invited, setInvited] = useState("");
  const invite = useMutation({
    mutationFn: () => ask("invite", { body: { name, role } }),
    onSuccess: async () => {
      setInvited(name);
      setName("");
      await refetch();
    },
  });
  return (
    <section aria-labelledby="invite" className="mt-4">
      <h2 id="invite" className="text-lg font-bold">
        Invite somebody
      </h2>
      <form
        className="mt-1 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          invite.mutate();
        }}
      >
        <div className="min-w-56 flex-1">
          <TextField label="Name" value={name} most={80} isOptional onChange={setName} />
        </div>
        <div className="w-44">
          <PickField label="Role" value={role} options={roleOptions} onChange={setRole} />
        </div>
        <Button type="submit" look="primary" disabled={name === "" || invite.isPending}>
          Make a code
        </Button>
      </form>
      {invite.data !== undefined && <FreshCode {...invite.data} name={invited} />}
      <Failed error={invite.error} />
    </section>
  );
}

function PersonRow({ person }: { person: PersonLine }) {
  const me = useMe();
  const [isOpen, setOpen] = useState(false);
  const { name, login, role, isOff, hasSecond, needsSecond, seenAtMs } = person;
  const said = [
    isOff
      ? "switched off"
      : seenAtMs === null
        ? "signed in nowhere"
        : `last here ${formatDayAndYear(storeDay(seenAtMs))}`,
    ...(hasSecond ? ["second step on"] : needsSecond ? ["second step wanted"] : []),
  ];
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <div className={`min-w-48 flex-1 ${isOff ? "text-soft" : ""}`}>
          <span className="head font-semibold break-words">{name}</span>
          {person.id === me.id && <span className="text-soft"> (you)</span>}
          <span className="block text-sm text-soft">
            {role} · signs in as {login} · {said.join(" · ")}
          </span>
        </div>
        <Button aria-expanded={isOpen} aria-label={`Change ${name}`} onClick={() => setOpen(!isOpen)}>
          Change
        </Button>
      </div>
      {isOpen && <PersonForm person={person} />}
    </li>
  );
}

function PersonForm({ person }: { person: PersonLine }) {
  const me = useMe();
  const [draft, setDraft] = useState(person);
  const { name, role, isOff, needsSecond } = draft;
  const isChanged = JSON.stringify(draft) !== JSON.stringify(person);
  const save = useMutation({
    mutationFn: () => ask("setPerson", { params: { person: person.id }, body: { name, role, isOff, needsSecond } }),
    onSuccess: () => Promise.all([refetch(), queryClient.invalidateQueries({ queryKey: meQuery.queryKey })]),
  });
  const reset = useMutation({
    mutationFn: () => ask("resetPerson", { params: { person: person.id } }),
    onSuccess: refetch,
  });
  return (
    <div className="mt-2 max-w-3xl rounded-md border border-rule bg-panel p-4">
      <div className="grid gap-4 md:grid-cols-2">
        <TextField label="Name" value={name} most={80} onChange={(next) => setDraft({ ...draft, name: next })} />
        <PickField
          label="Role"
          value={role}
          options={roleOptions}
          onChange={(next) => setDraft({ ...draft, role: next })}
        />
        <TickField
          label="Must use a second step at sign-in"
          why="A code of an authenticator beside the password. Without it nothing opens for them."
          value={needsSecond}
          onChange={(next) => setDraft({ ...draft, needsSecond: next })}
        />
        <TickField
          label="Works here"
          why="Switched off, they are signed out everywhere; what they did keeps their name."
          value={!isOff}
          onChange={(next) => setDraft({ ...draft, isOff: !next })}
        />
      </div>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="primary" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          Save
        </Button>
        {save.isSuccess && !isChanged && (
          <span role="status" className="self-center">
            Saved.
          </span>
        )}
        {person.id !== me.id && !person.isOff && (
          <Button disabled={reset.isPending} onClick={() => reset.mutate()}>
            New password: make a code
          </Button>
        )}
      </div>
      {person.id !== me.id && !person.isOff && reset.data === undefined && (
        <p className="mt-2 text-sm text-soft">
          A new code ends their password and second step at once, and signs them out everywhere.
        </p>
      )}
      {reset.data !== undefined && <FreshCode {...reset.data} name={person.name} />}
      <Failed error={save.error ?? reset.error} />
    </div>
  );
}

function Section({ title, why, children }: { title: string; why?: string; children: ReactNode }) {
  return (
    <section className="mt-8">
      <h2 className="text-lg font-bold">{title}</h2>
      {why !== undefined && <p className="max-w-3xl text-soft">{why}</p>}
      {children}
    </section>
  );
}

function Invites({ invites }: Pick<StaffSheet, "invites">) {
  const remove = useMutation({
    mutationFn: (invite: string) => ask("removeInvite", { params: { invite } }),
    onSuccess: refetch,
  });
  return (
    <Section title="Codes that are still open">
      <ul className="mt-2 border-t border-ink">
        {invites.map(({ id, name, role, isReset, endsAtMs }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
            <span className="min-w-48 flex-1">
              {name}, {isReset ? "new password" : role}
              <span className="block text-sm text-soft">until {formatDayAndYear(storeDay(endsAtMs))}</span>
            </span>
            <Button aria-label={`Take back the code for ${name}`} onClick={() => remove.mutate(id)}>
              Take it back
            </Button>
          </li>
        ))}
      </ul>
      <Failed error={remove.error} />
    </Section>
  );
}

function Devices({ devices }: Pick<StaffSheet, "devices">) {
  const [name, setName] = useState("");
  const isHere = devices.some(({ isThis }) => isThis);
  const admit = useMutation({
    mutationFn: () => ask("admitDevice", { body: { name } }),
    onSuccess: async () => {
      setName("");
      await refetch();
    },
  });
  const remove = useMutation({
    mutationFn: (device: string) => ask("removeDevice", { params: { device } }),
    onSuccess: refetch,
  });
  return (
    <Section
      title="Shared tablets"
      why="On a shared tablet everybody signs in once and then opens their name with a PIN, without signal too. Each mark keeps its author's name. Lost the tablet? End it here: everybody on it is signed out."
    >
      <ul className="mt-2 border-t border-ink">
        {devices.map(({ id, name: says, by, at, isThis }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-2">
            <span className="min-w-48 flex-1">
              {says}
              {isThis && <span className="text-soft"> (this one)</span>}
              <span className="block text-sm text-soft">
                by {by}, {formatDayAndYear(storeDay(at))}
              </span>
            </span>
            <Button aria-label={`End sharing ${says}`} onClick={() => remove.mutate(id)}>
              End it
            </Button>
          </li>
        ))}
        {devices.length === 0 && <li className="border-b border-rule py-3 text-soft">None yet.</li>}
      </ul>
      {!isHere && (
        <form
          className="mt-3 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            admit.mutate();
          }}
        >
          <div className="min-w-56 flex-1">
            <TextField
              label="Name of this tablet"
              placeholder="Dock tablet"
              value={name}
              isOptional
              onChange={setName}
            />
          </div>
          <Button type="submit" disabled={name === "" || admit.isPending}>
            Share this tablet
          </Button>
        </form>
      )}
      {admit.isSuccess && (
        <p className="mt-2">It counts from the next sign-in: sign out here, then everybody signs in once.</p>
      )}
      <Failed error={admit.error ?? remove.error} />
    </Section>
  );
}
