import type { Language } from "../../core/language/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { Caution } from "../ui/Notice.tsx";
import { useTell } from "../ui/tell.ts";
import { Glossed } from "./Glossed.tsx";

/** What a topic says: the caution before the step, then what to say, show and have them do, what goes wrong, why. */
export function TopicWords({ topic, language = "en" }: { topic: Topic; language?: Language }) {
  const tell = useTell();
  return (
    <div lang={language}>
      <div className="mt-3">
        <Caution texts={topic.cautions} />
      </div>
      <dl className="mt-3 grid grid-cols-1 gap-x-4 gap-y-0.5 md:grid-cols-[88px_1fr] md:gap-y-2.5">
        <Line name={tell("Say")} text={topic.say} />
        <Line name={tell("Show")} text={topic.show} />
        <Line name={tell("They do")} text={topic.does} />
        <Line name={tell("Wrong")} text={topic.wrong} isSoft />
        <Line name={tell("Why")} text={topic.why} isSoft />
      </dl>
      {topic.school !== undefined && (
        <p className="mt-3 text-base text-soft">
          {tell("Taught here:")} <strong className="text-ink">{topic.school.name}</strong>. {topic.school.tradeOff}
        </p>
      )}
    </div>
  );
}

function Line({ name, text, isSoft = false }: { name: string; text: string; isSoft?: boolean }) {
  return (
    <>
      <dt className="head pt-0.5 text-base font-semibold text-soft">{name}</dt>
      <dd className={`leading-snug ${isSoft ? "text-[17px] text-soft" : ""}`}>
        <Glossed text={text} />
      </dd>
    </>
  );
}
