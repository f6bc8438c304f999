import type { Delivery } from "../../../api/index.ts";
import { languageNames } from "../../../core/language/index.ts";
import { addressOf } from "../../app/client.ts";
import { linkLook } from "../../ui/Button.tsx";
import { storeRegion } from "../../ui/storeTime.ts";

const papers = [
  ["letter", "Letter"],
  ["a4", "A4"],
] as const;

/** The record as PDF, on both papers, and as its buyer reads it. */
export function RecordPapers({ delivery }: { delivery: Delivery }) {
  const pdf = addressOf("recordPdf", { delivery: delivery.id });
  const language = delivery.planOptions.language ?? "en";
  return (
    <>
      {papers.map(([paper, says]) => (
        <a
          key={paper}
          href={`${pdf}?paper=${paper}`}
          target="_blank"
          rel="noreferrer"
          className={linkLook(paper === storeRegion().paper ? "primary" : "plain")}
        >
          PDF, {says}
        </a>
      ))}
      {language !== "en" && (
        <a
          href={`${pdf}?paper=${storeRegion().paper}&language=${language}`}
          target="_blank"
          rel="noreferrer"
          className={linkLook("plain")}
        >
          PDF, {languageNames[language]}
        </a>
      )}
    </>
  );
}
