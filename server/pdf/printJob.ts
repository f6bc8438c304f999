import { writeFloatPlanPdf } from "./floatPlanPdf.ts";
import { writeHistoryPdf } from "./historyPdf.ts";
import { writePackPdf } from "./packPdf.ts";
import type { PrintJob } from "./papers.ts";
import { writePlanPdf } from "./planPdf.ts";
import { writeRecordPdf } from "./recordPdf.ts";

export function printJob(job: PrintJob): Promise<Buffer> {
  switch (job.kind) {
    case "record":
      return writeRecordPdf(job.delivery, job.store, job);
    case "plan":
      return writePlanPdf(job.delivery, job.store, job);
    case "float-plan":
      return writeFloatPlanPdf(job.question);
    case "pack":
      return writePackPdf(job.question);
    case "history":
      return writeHistoryPdf(job.boat, job.store, job);
  }
}
