import { useQuery } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { everyone } from "../../../api/index.ts";
import { rightsQuery } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";

const isEverybodys = ({ admits }: { admits: readonly string[] }) => admits.length === everyone.length;

/** What each role may do: the server's own list, the one it goes by. What everybody may read is left out. */
export function RightsScreen() {
  const query = useQuery(rightsQuery);
  return (
    <Fetched query={query} what="who may do what">
      {({ rights: all }) => {
        // What only some may do is what is looked for.
        const rights = [...all].sort((a, b) => Number(isEverybodys(a)) - Number(isEverybodys(b)));
        return (
          <main className="px-4 pt-6 pb-10 md:px-8">
            <h1 className="text-2xl font-bold">Who may do what</h1>
            <p className="text-soft">This is the list the server goes by. Everybody may read what is not named here.</p>
            <div className="mt-3 max-md:hidden">
              <table className="w-full border-t border-ink">
                <thead>
                  <tr className="border-b border-ink text-left">
                    <th className="py-2 font-semibold">What</th>
                    {everyone.map((role) => (
                      <th key={role} className="px-2 text-center font-semibold">
                        {role}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {rights.map(({ what, admits }) => (
                    <tr key={what} className="border-b border-rule">
                      <th scope="row" className="py-1.5 pr-4 text-left font-normal">
                        {what}
                      </th>
                      {everyone.map((role) => (
                        <td key={role} className="px-2">
                          {admits.includes(role) ? (
                            <Check role="img" aria-label="may" className="mx-auto size-4" />
                          ) : (
                            <span className="sr-only">may not</span>
                          )}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            <ul className="mt-3 border-t border-ink md:hidden">
              {rights.map(({ what, admits }) => (
                <li key={what} className="border-b border-rule py-2">
                  {what}
                  <span className="block text-sm text-soft">
                    {isEverybodys({ admits }) ? "everybody" : admits.join(", ")}
                  </span>
                </li>
              ))}
            </ul>
          </main>
        );
      }}
    </Fetched>
  );
}
