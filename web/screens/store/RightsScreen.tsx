import { useQuery } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { everyone } from "../../../api/index.ts";
import { rightsQuery } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";

const isEverybodys = ({ admits }: { admits: readonly string[] }) => admits.length === everyone.length;

/** What each role may do, by the jobs people come to do: the server's own list, the one it goes by. */
export function RightsScreen() {
  const query = useQuery(rightsQuery);
  return (
    <Fetched query={query} what="who may do what">
      {({ jobs }) => (
        <main className="px-4 pt-6 pb-10 md:px-8">
          <h1 className="text-2xl font-bold">Who may do what</h1>
          <p className="text-soft">This is the list the server goes by. Everybody may read what is not named here.</p>
          <table className="mt-3 w-full max-md:hidden">
            <thead>
              <tr className="border-b border-ink text-left">
                <th className="py-2 font-semibold">What</th>
                {everyone.map((role) => (
                  <th key={role} className="w-24 px-2 text-center font-semibold">
                    {role}
                  </th>
                ))}
              </tr>
            </thead>
            {jobs.map(({ job, rights }) => (
              <tbody key={job}>
                <tr className="border-b border-ink">
                  <th scope="rowgroup" colSpan={everyone.length + 1} className="pt-5 pb-1 text-left">
                    <span className="text-lg font-bold text-ink">{job}</span>
                  </th>
                </tr>
                {rights.map(({ what, admits }) => (
                  <tr key={what} className="border-b border-rule">
                    <th scope="row" className="py-1.5 pr-4 text-left font-text text-base font-normal text-ink">
                      {what}
                    </th>
                    {everyone.map((role) => (
                      <td key={role} className="px-2">
                        {admits.includes(role) ? (
                          <Check role="img" aria-label="may" className="mx-auto size-5" />
                        ) : (
                          <span className="sr-only">may not</span>
                        )}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            ))}
          </table>
          <div className="md:hidden">
            {jobs.map(({ job, rights }) => (
              <section key={job}>
                <h2 className="mt-5 border-b border-ink text-lg font-bold">{job}</h2>
                <ul>
                  {rights.map(({ what, admits }) => (
                    <li key={what} className="border-b border-rule py-2">
                      {what}
                      <span className="block text-sm text-soft">
                        {isEverybodys({ admits }) ? "everybody" : admits.join(", ")}
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </div>
        </main>
      )}
    </Fetched>
  );
}
