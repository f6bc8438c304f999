import type { MeterKind } from "../../core/rig/index.ts";
import { Refused } from "../app/client.ts";
import type { Post } from "../offline/syncQueue.ts";
import { syncQueue, usePosts } from "../offline/useSync.ts";
import { Button } from "../ui/Button.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { useTell } from "../ui/tell.ts";
import { findQuestion, HoursQuestion } from "./HoursQuestion.tsx";

interface LettersProps {
  readonly about: string;
  /** Of each engine, what its meter counts: it decides what is asked. */
  readonly engines: readonly { readonly id: string; readonly meter?: MeterKind | undefined }[];
}

/** Hours and runs that lie on this device until there is signal; what the yard asked about one of them since. */
export function WaitingPosts({ about, engines }: LettersProps) {
  const tell = useTell();
  // Steps and trips stand on their own screens; here only what of them was not taken.
  const posts = usePosts(about).filter(({ name, refusal }) => name !== "addOwnerEntries" || refusal !== null);
  if (posts.length === 0) return null;
  return (
    <ul aria-label={tell("Kept on this device")} className="my-3 border-l-4 border-amber bg-panel px-3">
      {posts.map((post) => (
        <li key={post.id} className="border-b border-rule py-2 last:border-0">
          <p className="flex flex-wrap items-center gap-x-3">
            <span>
              <strong>{post.says}</strong>{" "}
              {tell(
                post.refusal === null
                  ? "is kept on this device and goes to the yard when there is signal."
                  : "was not taken by the yard.",
              )}
            </span>
            <button
              type="button"
              className="min-h-11 underline"
              aria-label={tell("Take back: {0}", post.says)}
              onClick={() => void syncQueue.discardPost(post.id)}
            >
              {tell("Take it back")}
            </button>
          </p>
          {post.refusal !== null && <Refusal post={post} engines={engines} />}
        </li>
      ))}
    </ul>
  );
}

function Refusal({ post, engines }: { post: Post; engines: LettersProps["engines"] }) {
  const tell = useTell();
  const refused = new Refused(post.refusal!);
  const question = findQuestion(refused);
  if (question === null || !("hours" in post.body))
    return (
      <ErrorNotice error={refused}>
        <Button className="mt-2" onClick={() => void syncQueue.answerPost(post.id, {})}>
          {tell("Send it again")}
        </Button>
      </ErrorNotice>
    );
  const { engine } = post.body;
  return (
    <HoursQuestion
      question={question}
      meter={engines.find(({ id }) => id === engine)?.meter}
      isBusy={false}
      onAnswer={(answer) => void syncQueue.answerPost(post.id, { answer })}
      onLeave={() => void syncQueue.discardPost(post.id)}
    />
  );
}
