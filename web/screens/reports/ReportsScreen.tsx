import { queryOptions, useQuery } from "@tanstack/react-query";
import type { ReportSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { formatDayAndYear } from "../../ui/words.ts";
import { LoadReport } from "./LoadReport.tsx";
import { MinutesReport } from "./MinutesReport.tsx";
import { BreakInReport, FirstServiceReport } from "./MonthReports.tsx";
import { CallReport, PromiseReport, SnagReport } from "./OwedReports.tsx";
import { ForgottenReport, NotDoneReport, PutOffReport } from "./ShareReports.tsx";

const reportsQuery = queryOptions({ queryKey: ["reports"], queryFn: () => ask("reports") });

/** What the store learns from twelve months, beside the twelve before: each with a sentence, and as CSV. */
export function ReportsScreen() {
  const reports = useQuery(reportsQuery);
  return (
    <Fetched query={reports} what="the reports">
      {(sheet) => <Reports sheet={sheet} />}
    </Fetched>
  );
}

function Reports({ sheet }: { sheet: ReportSheet }) {
  const { from, to, closed } = sheet;
  return (
    <main className="max-w-5xl px-4 pt-5 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">Reports</h1>
      <p>
        {formatDayAndYear(from)} to {formatDayAndYear(to)}: {closed.now} handovers closed, {closed.before} in the twelve
        months before. The bar around a figure is its 95 % range: the fewer cases, the wider it is. Where two ranges
        overlap, the figures may be the same.
      </p>
      <MinutesReport sheet={sheet} />
      <PutOffReport sheet={sheet} />
      <ForgottenReport sheet={sheet} />
      <NotDoneReport sheet={sheet} />
      <FirstServiceReport sheet={sheet} />
      <BreakInReport sheet={sheet} />
      <SnagReport sheet={sheet} />
      <PromiseReport sheet={sheet} />
      <CallReport sheet={sheet} />
      <LoadReport sheet={sheet} />
    </main>
  );
}
