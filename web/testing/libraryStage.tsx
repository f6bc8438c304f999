import userEvent from "@testing-library/user-event";
import type { LibrarySheet, TemplateLine } from "../../api/index.ts";
import { glossary, rigTemplates, synonyms, topics } from "../../content/index.ts";
import { GlossaryScreen } from "../screens/library/GlossaryScreen.tsx";
import { LanguagesScreen } from "../screens/library/LanguagesScreen.tsx";
import { LibraryScreen } from "../screens/library/LibraryScreen.tsx";
import { SchoolsScreen } from "../screens/library/SchoolsScreen.tsx";
import { StylesScreen } from "../screens/library/StylesScreen.tsx";
import { TemplatesScreen } from "../screens/library/TemplatesScreen.tsx";
import { answerWith, showScreen } from "./answerWith.tsx";

const noStages = {
  "in-stock": 0,
  "making-ready": 0,
  "to-hand-over": 0,
  "in-break-in": 0,
  "service-due": 0,
  "in-use": 0,
};

export const lines: TemplateLine[] = Object.entries(rigTemplates).map(
  ([id, { maker, model, family, loaM, beamM }]) => ({
    id,
    name: model,
    maker,
    model,
    family,
    loaM,
    beamM,
    isShipped: id !== "sedge-18",
  }),
);
export const plain: LibrarySheet = {
  topics: [...topics],
  edits: [],
  schools: {},
  ownStyles: [],
  minutesOf: { horn: 1.26 },
  raised: {},
  forgotten: { horn: { late: 3, calls: 2 } },
};
export const horn = topics.find(({ id }) => id === "horn")!;
export const ours = { ...horn, say: "Ours: one press, and look who turns round." };
export const edited: LibrarySheet = {
  ...plain,
  topics: topics.map((topic) => (topic.id === "horn" ? ours : topic)),
  edits: [
    {
      topic: "horn",
      by: "Odile",
      at: "2026-05-02T08:00:00.000Z",
      shipped: horn,
      isBehind: true,
      basis: null,
      setAside: null,
    },
  ],
};

const pages = [
  { path: "/library", element: <LibraryScreen /> },
  { path: "/library/new", element: <LibraryScreen /> },
  { path: "/library/topic/:topic", element: <LibraryScreen /> },
  { path: "/library/schools", element: <SchoolsScreen /> },
  { path: "/library/styles", element: <StylesScreen /> },
  { path: "/library/templates", element: <TemplatesScreen /> },
  { path: "/library/glossary", element: <GlossaryScreen /> },
  { path: "/library/languages", element: <LanguagesScreen /> },
];
/** Answers what the library pages ask, with this library. */
export const serveLibrary = (library: LibrarySheet = plain, more: Parameters<typeof answerWith>[0] = {}) =>
  answerWith({
    library: () => library,
    templates: () => ({ templates: lines }),
    template: ({ params }) => {
      const line = lines.find(({ id }) => id === params.template)!;
      return { ...line, rig: rigTemplates[line.id as "sedge-18"] };
    },
    boats: () => ({ boats: [], boatsFound: 0, boatsInAll: 0, stages: noStages }),
    glossary: () => ({ synonyms, entries: glossary, told: [], ours: [], leftOut: [] }),
    ...more,
  });
/** A page of the library, as a role sees it. */
export const showLibrary = (at: string, role?: string) => showScreen(pages, at, role);
export const user = userEvent.setup();
