import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { PanelSwitch, Part, Rig } from "../../core/rig/index.ts";
import { createSearch, type Synonyms } from "../../core/search/index.ts";
import { createTopicSearch, type Topic } from "../../core/topic/index.ts";
import { glossaryQuery } from "../app/queries.ts";

/** What people say for what the library calls otherwise, as it was last fetched; nothing at first. */
export function useSynonyms(): Synonyms {
  const { data } = useQuery(glossaryQuery);
  return data?.synonyms ?? none;
}

const none: Synonyms = [];

/** Finds topics, switches and things of one boat by words as people ask, best first. Works without signal. */
export function useFind({ topics, rig }: { readonly topics: readonly Topic[]; readonly rig: Rig }) {
  const synonyms = useSynonyms();
  return useMemo(() => createFind(topics, rig, synonyms), [topics, rig, synonyms]);
}

export function createFind(topics: readonly Topic[], rig: Rig, synonyms: Synonyms) {
  const findTopics = createTopicSearch(topics, synonyms);
  const stationOf = new Map(rig.stations.map(({ id, label }) => [id, label]));
  return {
    topics: (words: string) => findTopics({ words, system: null, only: null }),
    switches: createSearch(
      rig.panel,
      (item: PanelSwitch) => ({
        title: item.label ?? "no label",
        text: `switch ${rig.panel.indexOf(item) + 1} ${item.positions.map(({ label }) => label).join(" ")}`,
      }),
      synonyms,
    ),
    parts: createSearch(
      rig.parts,
      ({ label, kind, reach, holds = [], station }: Part) => ({
        title: label,
        keys: kind.replaceAll("-", " "),
        text: [reach ?? "", ...holds, stationOf.get(station) ?? ""].join(" "),
      }),
      synonyms,
    ),
  };
}
