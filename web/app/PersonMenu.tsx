import { useId, useState } from "react";
import { Link, useNavigate } from "react-router";
import { lock } from "../offline/sharedTablet.ts";
import { signOut } from "../offline/signOut.ts";
import { useSyncStatus } from "../offline/useSync.ts";
import { count } from "../ui/words.ts";
import { applyTheme, readTheme, type Theme, themes } from "./theme.ts";
import { useMe } from "./useMe.ts";

const themeWords: Readonly<Record<Theme, string>> = {
  day: "Light screen",
  sun: "Sunlight screen",
  night: "Dark screen",
};
const itemLook = "block w-full min-h-11 px-4 py-2 text-left hover:bg-shoal focus-visible:bg-shoal";

/** Who I am, day, sun or night, and the way out. */
export function PersonMenu({ isShort = false }: { isShort?: boolean }) {
  const me = useMe();
  const navigate = useNavigate();
  const id = useId();
  const [theme, setTheme] = useState(readTheme);
  const [isWarned, setWarned] = useState(false);
  const { unsent } = useSyncStatus();
  const initials = me.name
    .split(" ")
    .map((word) => word[0])
    .join("");
  const leave = async () => {
    // What is kept here is sent when this person signs in again: that must be known before the tablet is put away.
    if (unsent > 0 && !isWarned) return setWarned(true);
    await signOut(me);
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
        {themes
          .filter((each) => each !== theme)
          .map((each) => (
            <button
              key={each}
              type="button"
              className={itemLook}
              onClick={() => {
                applyTheme(each);
                setTheme(each);
              }}
            >
              {themeWords[each]}
            </button>
          ))}
        {isWarned && unsent > 0 && (
          <p role="alert" className="border-l-4 border-amber bg-caution px-4 py-2 text-oncaution">
            {count(unsent, "thing is", "things are")} waiting to sync. {unsent === 1 ? "It stays" : "They stay"} on this
            tablet and {unsent === 1 ? "is" : "are"} sent when you sign in here again.
          </p>
        )}
        <Link to="/account" className={`${itemLook} no-underline`}>
          Your account
        </Link>
        {me.isShared && (
          <button type="button" className={itemLook} onClick={lock}>
            Lock: hand this tablet on
          </button>
        )}
        <button type="button" className={itemLook} onClick={() => void leave()}>
          {isWarned && unsent > 0 ? "Sign out anyway" : "Sign out"}
        </button>
      </div>
    </>
  );
}
