import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import type { RigSheet } from "../../../api/index.ts";
import { describers, isOneOf } from "../../../api/roles.ts";
import { isWithinHull } from "../../../core/drawing/index.ts";
import { listUnreachable } from "../../../core/power/index.ts";
import {
  addItem,
  changePart,
  checkRig,
  confirmUsual,
  createPart,
  type Finding,
  type PartKind,
  type Place,
  putUsual,
  type SheetSection,
  sheetSections,
} from "../../../core/rig/index.ts";
import { ask, Refused } from "../../app/client.ts";
import { boatQuery, boatsQuery, queryClient, rigQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { PlacePlan } from "../../plan/PlacePlan.tsx";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { KeyHelp } from "../../ui/KeyHelp.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { BoatSection } from "./BoatSection.tsx";
import { BreakersSection } from "./BreakersSection.tsx";
import { EnginesSection } from "./EnginesSection.tsx";
import { FiguresToRead } from "./FiguresToRead.tsx";
import { GearSection } from "./GearSection.tsx";
import { LeftToDo } from "./LeftToDo.tsx";
import { OwnOptions } from "./OwnOptions.tsx";
import { PanelSection } from "./PanelSection.tsx";
import { PlacesSection } from "./PlacesSection.tsx";
import { PowerSection } from "./PowerSection.tsx";
import { RigFile } from "./RigFile.tsx";
import { SaveTemplate } from "./SaveTemplate.tsx";
import { type SectionProps, sectionNames } from "./section.ts";
import { TanksSection } from "./TanksSection.tsx";
import { TrailerSection } from "./TrailerSection.tsx";
import { useRigDraft } from "./useRigDraft.ts";

type Tab = "left" | SheetSection;

/** The rig sheet: a boat described by the person standing on it. */
export function RigScreen() {
  const { boat } = useParams() as { boat: string };
  const sheet = useQuery(rigQuery(boat));
  return (
    <Fetched query={sheet} what="the rig">
      {(data) => <RigOf key={data.boat} sheet={data} />}
    </Fetched>
  );
}

function RigOf({ sheet }: { sheet: RigSheet }) {
  const draft = useRigDraft(sheet);
  const { rig, edit } = draft;
  const me = useMe();
  const canSave = isOneOf(describers, me.role);
  const findings = useFindings(sheet, rig);
  const [tab, setTab] = useState<Tab>("left");
  const [open, setOpen] = useState<string | null>(null);
  const [armed, setArmed] = useState<PartKind | null>(null);
  const save = useSaveRig(sheet, draft);
  const go = (next: Tab, item: string | null = null) => {
    setTab(next);
    setOpen(item);
    setArmed(null);
  };
  const put = (at: Place) => {
    if (armed === null) return;
    const part = createPart(rig, armed, at);
    edit((now) => addItem(now, "parts", part));
    setArmed(null);
    setTab("places");
    setOpen(part.id);
  };
  const mend = (finding: Finding) => {
    if (finding.place !== undefined && finding.item === null) {
      go("places");
      setArmed(finding.place);
      return;
    }
    // What a thing works by is in its own form.
    const isThing = finding.section === "panel" && rig.parts.some(({ id }) => id === finding.item);
    go(isThing ? "places" : finding.section, finding.item);
  };
  const section = { rig, edit, open, onOpen: setOpen };
  return (
    <div className="lg:grid lg:grid-cols-[330px_1fr]">
      <KeyHelp
        actions={[
          { key: "z", says: "Undo", act: draft.undo },
          { key: "s", says: "Save the boat", act: () => draft.isChanged && canSave && save.mutate() },
          ...sheetSections.map((each, i) => ({ key: String(i + 1), says: sectionNames[each], act: () => go(each) })),
          { key: "0", says: "Left to do", act: () => go("left") },
        ]}
      />
      <aside
        aria-label="Deck plan"
        className="bg-buff p-3 max-lg:h-96 lg:sticky lg:top-0 lg:h-[calc(100dvh-57px)] lg:border-r lg:border-rule"
      >
        <PlacePlan
          rig={rig}
          picked={open}
          armed={armed}
          onPick={(part) => {
            setOpen(part);
            if (part !== null) setTab("places");
          }}
          onPut={put}
          onMove={(id, at) => edit((now) => changePart(now, id, { at }))}
          className="size-full"
        />
      </aside>
      <main className="min-w-0 px-4 pt-4 pb-16 md:px-8">
        <div className="sticky top-0 z-10 -mx-2 bg-sheet px-2 pb-2">
          <SheetHead
            boat={sheet.boat}
            draft={draft}
            canSave={canSave && !save.isPending}
            onSave={() => save.mutate()}
          />
          <SheetTabs tab={tab} findings={findings} onGo={go} />
        </div>
        {!canSave && (
          <p className="py-2 text-soft">Your role may read this sheet; what is changed here is not saved.</p>
        )}
        {save.error !== null && (
          <NotSaved
            error={save.error}
            onLoad={() => {
              save.reset();
              void queryClient.fetchQuery({ ...rigQuery(sheet.boat), staleTime: 0 }).then(draft.load);
            }}
          />
        )}
        <div className="pt-3" role="tabpanel">
          {tab === "left" && (
            <>
              <LeftToDo
                findings={findings}
                onMend={mend}
                onPutUsual={(kinds) => edit((now) => putUsual(now, kinds))}
                onConfirmUsual={() => edit(confirmUsual)}
              />
              <FiguresToRead rig={rig} edit={edit} />
              <h2 className="mt-7 text-lg font-bold">Its own options</h2>
              <OwnOptions sheet={sheet} rig={rig} onGo={(next) => go(next)} />
            </>
          )}
          {tab === "places" && <PlacesSection {...section} armed={armed} onArm={setArmed} onPut={put} />}
          <Section tab={tab} section={section} sheet={sheet} draft={draft} by={me.name} />
          {tab !== "left" && <NextToDo findings={findings} after={tab} onMend={mend} />}
        </div>
      </main>
    </div>
  );
}

type Draft = ReturnType<typeof useRigDraft>;

function useFindings(sheet: RigSheet, rig: RigSheet["rig"]) {
  const aids = useMemo(
    () => ({
      breakInPacks: new Set(sheet.breakInPacks.map(({ id }) => id)),
      servicePacks: new Set(sheet.servicePacks.map(({ id }) => id)),
      idiom: storeRegion(),
      isWithinHull,
      unreachable: listUnreachable,
    }),
    [sheet],
  );
  return useMemo(() => checkRig(rig, aids), [rig, aids]);
}

function useSaveRig(sheet: RigSheet, draft: Draft) {
  return useMutation({
    mutationFn: () => {
      const { name, hull, rig } = draft;
      const kept = { name, hull, rig };
      return ask("setRig", { params: { boat: sheet.boat }, body: { version: draft.version, ...kept } }).then(
        ({ version }) => ({ version, kept }),
      );
    },
    onSuccess: ({ version, kept }) => {
      draft.markSaved(version, kept);
      queryClient.setQueryData(rigQuery(sheet.boat).queryKey, { ...sheet, ...kept, version });
      for (const { queryKey } of [boatQuery(sheet.boat), boatsQuery]) void queryClient.invalidateQueries({ queryKey });
      void queryClient.invalidateQueries({ queryKey: ["delivery"] });
      void queryClient.invalidateQueries({ queryKey: ["plans"] });
      void queryClient.invalidateQueries({ queryKey: ["today"] });
    },
  });
}

interface SheetHeadProps {
  readonly boat: string;
  readonly draft: Draft;
  readonly canSave: boolean;
  readonly onSave: () => void;
}

function SheetHead({ boat, draft, canSave, onSave }: SheetHeadProps) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <h1 className="mr-auto min-w-0 text-2xl font-bold">
        {draft.name} <span className="font-medium text-soft">{draft.hull}</span>
      </h1>
      <Link to={`/boats/${boat}`} className="inline-flex min-h-11 items-center underline">
        Boat's page
      </Link>
      <Button disabled={!draft.canUndo} onClick={draft.undo}>
        Undo
      </Button>
      <Button look="primary" disabled={!draft.isChanged || !canSave} onClick={onSave}>
        {draft.isChanged ? "Save the boat" : "Saved"}
      </Button>
    </div>
  );
}

/** What is left to do in the section that follows, so that one need not go back for it. */
function NextToDo(props: { findings: readonly Finding[]; after: SheetSection; onMend: (finding: Finding) => void }) {
  const { findings, after, onMend } = props;
  const order = [...sheetSections, ...sheetSections].slice(sheetSections.indexOf(after) + 1);
  const next = order.flatMap((each) => findings.find(({ section }) => section === each) ?? [])[0];
  if (next === undefined || next.section === after) return null;
  return (
    <Button className="mt-8 text-left" onClick={() => onMend(next)}>
      Next, {sectionNames[next.section]}: {next.text}
    </Button>
  );
}

interface SheetTabsProps {
  readonly tab: Tab;
  readonly findings: readonly Finding[];
  readonly onGo: (tab: Tab) => void;
}

function SheetTabs({ tab, findings, onGo }: SheetTabsProps) {
  return (
    <div role="tablist" aria-label="Sections of the sheet" className="mt-2 flex flex-wrap border-b border-ink">
      <TabButton isOn={tab === "left"} onPick={() => onGo("left")} count={findings.length}>
        To do
      </TabButton>
      {sheetSections.map((each) => (
        <TabButton
          key={each}
          isOn={tab === each}
          onPick={() => onGo(each)}
          count={findings.filter((finding) => finding.section === each).length}
        >
          {sectionNames[each]}
        </TabButton>
      ))}
    </div>
  );
}

/** Why it was not saved; what somebody else saved meanwhile can be loaded. */
function NotSaved({ error, onLoad }: { error: Error; onLoad: () => void }) {
  const isOutdated = error instanceof Refused && error.code === "rig-changed";
  return (
    <ErrorNotice error={error}>
      {isOutdated && (
        <Button className="mt-2" onClick={onLoad}>
          Load what they saved
        </Button>
      )}
    </ErrorNotice>
  );
}

interface OneSectionProps {
  readonly tab: Tab;
  readonly section: SectionProps;
  readonly sheet: RigSheet;
  readonly draft: Draft;
  /** Who looks at the boat. */
  readonly by: string;
}

/** The section of a tab that needs nothing of the deck plan. */
function Section({ tab, section, sheet, draft, by }: OneSectionProps) {
  const { rig, edit } = section;
  switch (tab) {
    case "boat":
      return (
        <>
          <BoatSection
            {...section}
            name={draft.name}
            hull={draft.hull}
            onRename={draft.rename}
            onRenumber={draft.renumber}
          />
          <SaveTemplate rig={rig} />
          <RigFile rig={rig} name={draft.name} onRead={(read) => edit(() => read)} />
        </>
      );
    case "power":
      return <PowerSection {...section} by={by} />;
    case "panel":
      return <PanelSection {...section} />;
    case "breakers":
      return <BreakersSection {...section} />;
    case "engines":
      return <EnginesSection {...section} packs={sheet} />;
    case "tanks":
      return <TanksSection {...section} />;
    case "trailer":
      return <TrailerSection {...section} />;
    case "gear":
      return <GearSection {...section} />;
    default:
      return null;
  }
}

interface TabButtonProps {
  readonly isOn: boolean;
  readonly count: number;
  readonly onPick: () => void;
  readonly children: string;
}

function TabButton({ isOn, count, onPick, children }: TabButtonProps) {
  return (
    <button
      type="button"
      role="tab"
      aria-selected={isOn}
      onClick={onPick}
      className={`flex min-h-11 items-center gap-1.5 rounded-t-md px-2 ${isOn ? "bg-ink font-bold text-sheet" : ""}`}
    >
      {children}
      {count > 0 && (
        <span className={`num text-sm font-bold ${isOn ? "" : "text-amber"}`} title={`${count} left to do`}>
          {count}
        </span>
      )}
    </button>
  );
}
