import { useState } from "react";
import { Link } from "react-router";
import { type BoatSort, type BoatStage, boatSorts, boatStages } from "../../../core/care/index.ts";
import { type BoatList, useFoundBoats } from "../../app/useFoundBoats.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { BoatTable } from "./BoatTable.tsx";
import { stageWords } from "./stageWords.ts";

/** So many boats the server sends at once. */
const pageSize = 300;

/** Every boat of the store: the next handover first, then the next service; all, or those at one stage. */
export function BoatsScreen() {
  const [text, setText] = useState("");
  const [stage, setStage] = useState<BoatStage | "all">("all");
  const [sort, setSort] = useState<BoatSort>("next");
  const [page, setPage] = useState(0);
  const { all, list, find, error } = useFoundBoats(text, { stage, page, sort });
  return (
    <Fetched query={all} what="the boats">
      {({ boatsInAll, stages }) => (
        <main className="px-4 pt-5 pb-10 md:px-8">
          <Head boatsInAll={boatsInAll} />
          {boatsInAll > 0 && (
            <>
              <div className="mt-3 flex flex-wrap items-end gap-3">
                <input
                  type="search"
                  aria-label="Find in this list"
                  placeholder="Name, hull or stock number, buyer, phone"
                  className={`${fieldLook} max-w-md flex-1 basis-64`}
                  maxLength={100}
                  value={text}
                  onChange={(event) => {
                    setText(event.target.value);
                    setPage(0);
                  }}
                />
                <label className="flex min-w-0 flex-wrap items-center gap-2 text-soft">
                  Sorted by
                  <select
                    value={sort}
                    onChange={(event) => {
                      setSort(event.target.value as BoatSort);
                      setPage(0);
                    }}
                    className="min-h-11 max-w-full min-w-0 rounded-md border border-soft bg-panel px-2 text-ink"
                  >
                    {boatSorts.map((each) => (
                      <option key={each} value={each}>
                        {sortWords[each]}
                      </option>
                    ))}
                  </select>
                </label>
              </div>
              <Stages
                stages={stages}
                boatsInAll={boatsInAll}
                stage={stage}
                onPick={(picked) => {
                  setStage(picked);
                  setPage(0);
                }}
              />
            </>
          )}
          {error !== null && <ErrorNotice error={error} />}
          {list !== undefined && (
            <>
              <Says list={list} find={find} />
              <BoatTable list={list} />
              <Pages page={page} found={list.boatsFound} onPick={setPage} />
            </>
          )}
        </main>
      )}
    </Fetched>
  );
}

const sortWords: Readonly<Record<BoatSort, string>> = {
  next: "what comes next",
  name: "name",
  buyer: "buyer",
  stock: "stock number",
  sold: "handed over, latest first",
};

interface StagesProps {
  readonly stages: BoatList["stages"];
  readonly boatsInAll: number;
  readonly stage: BoatStage | "all";
  readonly onPick: (stage: BoatStage | "all") => void;
}

function Stages({ stages, boatsInAll, stage, onPick }: StagesProps) {
  const chips = [["all", boatsInAll] as const, ...boatStages.map((each) => [each, stages[each] ?? 0] as const)];
  return (
    <div role="radiogroup" aria-label="Which boats" className="mt-2 flex flex-wrap gap-1">
      {chips.map(([each, count]) => (
        <button
          key={each}
          type="button"
          role="radio"
          aria-checked={stage === each}
          onClick={() => onPick(each)}
          className="head min-h-11 rounded-md border border-rule px-3 font-semibold aria-checked:border-ink aria-checked:bg-ink aria-checked:text-sheet"
        >
          {stageWords[each]} <span className="num font-normal">{count.toLocaleString("en-US")}</span>
        </button>
      ))}
    </div>
  );
}

function Says({ list: { boats, boatsFound, boatsInAll }, find }: { list: BoatList; find: string }) {
  if (boatsInAll === 0 || (boatsFound === boats.length && boatsFound > 0)) return null;
  if (boatsFound > 0)
    return (
      <p role="status" className="mt-2 text-soft">
        {boats.length} of {boatsFound.toLocaleString("en-US")} stand on this page.
      </p>
    );
  return (
    <EmptySheet>
      <p role="status">{find === "" ? "No boat stands here now." : `No boat and no buyer has "${find}" in it.`}</p>
    </EmptySheet>
  );
}

function Pages({ page, found, onPick }: { page: number; found: number; onPick: (page: number) => void }) {
  const pages = Math.ceil(found / pageSize);
  if (pages < 2) return null;
  const go = (to: number) => {
    onPick(to);
    document.documentElement.scrollTop = 0;
  };
  return (
    <nav aria-label="Pages" className="mt-3 flex items-center gap-3">
      <Button disabled={page === 0} onClick={() => go(page - 1)}>
        Previous
      </Button>
      <span className="num">
        {page + 1} of {pages}
      </span>
      <Button disabled={page >= pages - 1} onClick={() => go(page + 1)}>
        Next
      </Button>
    </nav>
  );
}

function Head({ boatsInAll }: { boatsInAll: number }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <h1 className="mr-auto text-2xl font-bold">
        Boats <span className="num text-base font-normal text-soft">{boatsInAll.toLocaleString("en-US")}</span>
      </h1>
      <Link to="/bundles" className={linkLook("plain")}>
        Import a handover
      </Link>
      <Link to="/boats/stock" className={linkLook("plain")}>
        Read a stock list
      </Link>
      <Link to="/boats/new" className={linkLook("primary")}>
        New boat
      </Link>
    </div>
  );
}
