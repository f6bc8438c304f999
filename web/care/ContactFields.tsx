import { useState } from "react";
import type { CareLine } from "../../api/index.ts";
import { Button } from "../ui/Button.tsx";
import { readPlain } from "../ui/readPlain.ts";

type Contact = CareLine["contact"];

interface ContactFieldsProps {
  readonly contact: Contact;
  readonly onSave: (contact: Contact) => void;
}

/** How they are reached. What is missing is asked for on the spot; what is known can be put right. */
export function ContactFields({ contact, onSave }: ContactFieldsProps) {
  const [isOpen, setOpen] = useState(false);
  const [phone, setPhone] = useState(contact.phone);
  const [email, setEmail] = useState(contact.email);
  const isMissing = contact.phone === "";
  const isChanged = phone.trim() !== contact.phone || email.trim() !== contact.email;
  if (!isMissing && !isOpen)
    return (
      <p className="num flex flex-wrap items-center gap-x-4">
        <a href={`tel:${contact.phone.replace(/[^+\d]/g, "")}`} className="inline-flex min-h-11 items-center underline">
          {contact.phone}
        </a>
        {contact.email !== "" && <span className="break-all">{contact.email}</span>}
        <button type="button" className="min-h-11 font-text text-soft underline" onClick={() => setOpen(true)}>
          {contact.email === "" ? "Add an e-mail" : "Change"}
        </button>
      </p>
    );
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isChanged) return;
        onSave({ ...contact, phone: phone.trim(), email: email.trim() });
        setOpen(false);
      }}
    >
      <label className="flex-1 basis-36">
        <span className="block text-sm text-soft">Phone{isMissing && ", not known yet"}</span>
        <input
          type="tel"
          autoComplete="off"
          value={phone}
          maxLength={40}
          onChange={(event) => setPhone(readPlain(event))}
          className="num min-h-11 w-full rounded-md border border-soft bg-panel px-3"
        />
      </label>
      <label className="flex-1 basis-48">
        <span className="block text-sm text-soft">E-mail</span>
        <input
          type="email"
          autoComplete="off"
          value={email}
          maxLength={120}
          onChange={(event) => setEmail(readPlain(event))}
          className="min-h-11 w-full rounded-md border border-soft bg-panel px-3"
        />
      </label>
      <Button type="submit" disabled={!isChanged}>
        Save
      </Button>
    </form>
  );
}
