import { useId, useState } from "react";
import { useNavigate } from "react-router";
import { leaveNothingAboard } from "../offline/aboard.ts";
import { journal } from "../offline/useJournal.ts";
import { letterbox } from "../offline/useLetters.ts";
import { describeError } from "../ui/errorWords.ts";
import { ask, Refused } from "./client.ts";
import { queryClient } from "./queries.ts";
import { applyTheme, readTheme } from "./theme.ts";
import { useMe } from "./useMe.ts";

const itemLook = "block w-full min-h-11 px-4 py-2 text-left hover:bg-shoal focus-visible:bg-shoal";

/** Who I am, day or night, and the way out. */
export function PersonMenu({ isShort = false }: { isShort?: boolean }) {
  const me = useMe();
  const navigate = useNavigate();
  const id = useId();
  const [theme, setTheme] = useState(readTheme);
  const [error, setError] = useState<unknown>(null);
  const initials = me.name
    .split(" ")
    .map((word) => word[0])
    .join("");
  const signOut = async () => {
    try {
      await ask("signOut");
    } catch (reason) {
      // A session that is over already is what was wanted; anything else would leave it open behind our back.
      if (!(reason instanceof Refused) || reason.code !== "sign-in-needed") {
        setError(reason);
        return;
      }
    }
    journal.setUser(null);
    letterbox.setUser(null);
    queryClient.clear();
    await leaveNothingAboard();
    await navigate("/sign-in");
  };
  return (
    <>
      <button
        type="button"
        popoverTarget={id}
        className="head min-h-11 font-bold"
        aria-label={`${me.name}, ${me.role}: menu`}
      >
        {isShort ? (
          <span className="grid size-9 place-items-center rounded-full border border-ink text-sm">{initials}</span>
        ) : (
          me.name
        )}
      </button>
      <div
        id={id}
        popover="auto"
        className="inset-auto top-14 right-3 m-0 w-64 rounded-md border border-ink bg-panel py-1 text-base text-ink shadow-lg"
      >
        <p className="px-4 py-2 text-soft">
          {me.name}, {me.role}
          <br />
          {me.store}
        </p>
        <button
          type="button"
          className={itemLook}
          onClick={() => {
            const next = theme === "day" ? "night" : "day";
            applyTheme(next);
            setTheme(next);
          }}
        >
          {theme === "day" ? "Night sheet" : "Day sheet"}
        </button>
        <button type="button" className={itemLook} onClick={() => void signOut()}>
          Sign out
        </button>
        {error !== null && (
          <p role="alert" className="px-4 py-2 text-magenta">
            ▲ Still signed in. {describeError(error)}
          </p>
        )}
      </div>
    </>
  );
}
