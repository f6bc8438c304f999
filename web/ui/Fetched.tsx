import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { ErrorNotice, Waiting } from "./Notice.tsx";

interface FetchedProps<T> {
  readonly query: UseQueryResult<T>;
  /** What is being fetched, after "Fetching". */
  readonly what: string;
  readonly children: (data: T) => ReactNode;
}

/** A screen once its data is there; until then what is being fetched, or why it cannot be. */
export function Fetched<T>({ query, what, children }: FetchedProps<T>) {
  if (query.data !== undefined) return children(query.data);
  if (query.error === null) return <Waiting what={what} />;
  return (
    <main className="p-8">
      <ErrorNotice error={query.error} />
    </main>
  );
}
