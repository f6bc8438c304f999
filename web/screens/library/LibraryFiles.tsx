import { useState } from "react";
import type { LibrarySheet } from "../../../api/index.ts";
import { type Topic, type TopicFile, topicFileSchema } from "../../../core/topic/index.ts";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { saveFile } from "../../ui/saveFile.ts";
import { useCanWrite, useTopicChanges } from "./useLibrary.ts";

const mostBytes = 5_000_000;
const linkLook = "inline-flex min-h-11 cursor-pointer items-center underline focus-within:outline-3";

/** Topics out to a file and in from one (`ravik.topics/1`). */
export function LibraryFiles({ library, found }: { library: LibrarySheet; found: readonly Topic[] }) {
  const canWrite = useCanWrite();
  const { importTopics } = useTopicChanges();
  const [problem, setProblem] = useState<string | null>(null);
  const save = (topics: readonly Topic[], name: string) => {
    const file: TopicFile = { format: "ravik.topics/1", topics: [...topics] };
    saveFile(name, "application/json", JSON.stringify(file, null, 2));
  };
  const read = async (file: File) => {
    importTopics.reset();
    setProblem(null);
    if (file.size > mostBytes) return setProblem("The file is larger than 5 MB.");
    try {
      const parsed = topicFileSchema.safeParse(JSON.parse(await file.text()));
      if (parsed.success) return importTopics.mutate(parsed.data.topics);
      const [issue] = parsed.error.issues;
      setProblem(`${issue?.path.join(".") || "the file"}: ${issue?.message}`);
    } catch {
      setProblem("The file is not JSON.");
    }
  };
  const ours = new Set(library.edits.map(({ topic }) => topic));
  return (
    <div className="border-t border-ink pt-1 text-sm">
      <span className="flex flex-wrap gap-x-4">
        <button
          type="button"
          className={linkLook}
          disabled={found.length === 0}
          onClick={() => save(found, "topics.json")}
        >
          Save these to a file
        </button>
        {ours.size > 0 && (
          <button
            type="button"
            className={linkLook}
            onClick={() =>
              save(
                library.topics.filter(({ id }) => ours.has(id)),
                "our-topics.json",
              )
            }
          >
            Save only ours
          </button>
        )}
        {canWrite && (
          <label className={linkLook}>
            Read topics from a file
            <input
              type="file"
              accept="application/json,.json"
              className="sr-only"
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                if (file !== undefined) void read(file);
                event.target.value = "";
              }}
            />
          </label>
        )}
      </span>
      {problem !== null && (
        <p role="alert" className="text-magenta">
          ▲ Not taken. {problem}
        </p>
      )}
      {importTopics.error !== null && <ErrorNotice error={importTopics.error} />}
      {importTopics.isSuccess && (
        <p role="status">
          {importTopics.data.changed} changed, {importTopics.data.same} the same already.
        </p>
      )}
    </div>
  );
}
