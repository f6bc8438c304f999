import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { CallList } from "../../../api/index.ts";
import { authors, isOneOf } from "../../../api/roles.ts";
import { ask } from "../../app/client.ts";
import { careQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";

/** The messages as this store words them; what stands in braces is put in for each boat. */
export function OurWords({ templates }: { templates: CallList["templates"] }) {
  const me = useMe();
  const [texts, setTexts] = useState<Record<string, string>>(() =>
    Object.fromEntries(templates.map(({ id, text }) => [id, text])),
  );
  const save = useMutation({
    mutationFn: () => ask("setMessageTexts", { body: { texts } }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: careQuery.queryKey }),
  });
  if (!isOneOf(authors, me.role)) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-11 cursor-pointer font-semibold">Our words for messages</summary>
      <div className="border-t border-ink pt-2">
        <p className="text-sm text-soft">
          {"{buyers}, {boat}, {item}, {falls}, {date}, {week}, {store}, {phone} and {link} are put in for each boat."}
        </p>
        {templates.map(({ id, title }) => (
          <label key={id} className="mt-2 block">
            <span className="text-sm text-soft">{title}</span>
            <textarea
              aria-label={`Words: ${title}`}
              rows={3}
              maxLength={600}
              value={texts[id]}
              onChange={(event) => setTexts({ ...texts, [id]: readPlain(event) })}
              className="mt-0.5 w-full rounded-md border border-soft bg-panel px-3 py-2"
            />
          </label>
        ))}
        {save.error !== null && <ErrorNotice error={save.error} />}
        <p className="mt-2 flex items-center gap-3">
          <Button
            disabled={save.isPending || Object.values(texts).some((text) => text.trim() === "")}
            onClick={() => save.mutate()}
          >
            Save our words
          </Button>
          {save.isSuccess && <span role="status">Kept.</span>}
        </p>
      </div>
    </details>
  );
}
