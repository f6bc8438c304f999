import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { LibrarySheet } from "../../../api/index.ts";
import { authors, isOneOf } from "../../../api/roles.ts";
import type { Topic } from "../../../core/topic/index.ts";
import { ask } from "../../app/client.ts";
import { boatsQuery, libraryQuery, queryClient, rigQuery, templateQuery, templatesQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";

/** Everything planned or told is made from the library: after a change it is fetched anew. */
export async function refreshLibrary() {
  await queryClient.invalidateQueries({ queryKey: libraryQuery.queryKey });
  for (const key of ["delivery", "plans", "today"]) void queryClient.invalidateQueries({ queryKey: [key] });
}

export const useCanWrite = () => isOneOf(authors, useMe().role);

export function useTopicChanges() {
  return {
    keep: useMutation({
      mutationFn: (topic: Topic) => ask("setTopic", { params: { topic: topic.id }, body: topic }),
      onSuccess: refreshLibrary,
    }),
    revert: useMutation({
      mutationFn: (topic: string) => ask("revertTopic", { params: { topic } }),
      onSuccess: refreshLibrary,
    }),
    importTopics: useMutation({
      mutationFn: (topics: Topic[]) => ask("importTopics", { body: { topics } }),
      onSuccess: refreshLibrary,
    }),
  };
}

/** Which boat the library is read on: a template or one of the store's boats, remembered on this device. */
export function usePreviewBoat() {
  const [picked, setPicked] = useState(() => localStorage.getItem(key));
  const templates = useQuery(templatesQuery);
  const boats = useQuery(boatsQuery);
  const options: [string, string][] = [
    ...(templates.data?.templates ?? []).map(({ id, name, family }): [string, string] => [
      `template:${id}`,
      `${name} (${family.replaceAll("-", " ")})`,
    ]),
    ...(boats.data?.boats ?? []).map(({ id, name, hull }): [string, string] => [`boat:${id}`, `${name}, ${hull}`]),
  ];
  const now = options.some(([id]) => id === picked) ? picked! : (options[0]?.[0] ?? "");
  const [kind, id = ""] = now.split(":");
  const template = useQuery({ ...templateQuery(id), enabled: kind === "template" });
  const boat = useQuery({ ...rigQuery(id), enabled: kind === "boat" });
  return {
    now,
    options,
    rig: (kind === "template" ? template.data?.rig : boat.data?.rig) ?? null,
    pick(next: string) {
      localStorage.setItem(key, next);
      setPicked(next);
    },
  };
}

const key = "ravik-library-boat";

export type EditOf = LibrarySheet["edits"][number];
