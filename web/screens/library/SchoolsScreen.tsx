import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { LibrarySheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { libraryQuery } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { refreshLibrary, useCanWrite } from "./useLibrary.ts";

/** Where practitioners disagree: this store's method, and what each gains and costs. */
export function SchoolsScreen() {
  const library = useQuery(libraryQuery);
  return (
    <LibraryFrame>
      <Fetched query={library} what="the library">
        {(data) => <Schools library={data} />}
      </Fetched>
    </LibraryFrame>
  );
}

function Schools({ library }: { library: LibrarySheet }) {
  const canWrite = useCanWrite();
  const choose = useMutation({
    mutationFn: (schools: LibrarySheet["schools"]) => ask("setSchools", { body: { schools } }),
    onSuccess: refreshLibrary,
  });
  const disputed = library.topics.filter(({ schools }) => schools !== undefined);
  return (
    <>
      <p className="mt-3 max-w-3xl">
        Good people do these differently. Pick what this store teaches; the walk says which was taught, and the record
        keeps it.
      </p>
      {choose.error !== null && <ErrorNotice error={choose.error} />}
      <div className="mt-2 border-t border-ink">
        {disputed.map((topic) => {
          const now = library.schools[topic.id] ?? topic.schools![0]!.id;
          return (
            <fieldset
              key={topic.id}
              disabled={!canWrite || choose.isPending}
              className="grid gap-x-6 border-b border-rule py-2 lg:grid-cols-[260px_1fr]"
            >
              <legend className="sr-only">{topic.title}</legend>
              <Link to={`/library/topic/${topic.id}`} className="head inline-flex min-h-11 items-center underline">
                {topic.title}
              </Link>
              <div className="grid gap-x-6 sm:grid-cols-2">
                {topic.schools!.map((school) => (
                  <label key={school.id} className="flex min-h-11 items-start gap-3 py-2">
                    <input
                      type="radio"
                      name={topic.id}
                      className="mt-1 size-5 shrink-0 accent-ink"
                      checked={now === school.id}
                      onChange={() => choose.mutate({ ...library.schools, [topic.id]: school.id })}
                    />
                    <span>
                      <strong>{school.name}</strong>
                      <span className="block text-soft">{school.tradeOff}</span>
                    </span>
                  </label>
                ))}
              </div>
            </fieldset>
          );
        })}
      </div>
    </>
  );
}
