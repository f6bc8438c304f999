import { z } from "zod";
import { amendmentSchema, bundleSchema, handoverSchema, sealedFormats, snapshotSchema } from "../core/record/index.ts";
import { conditionSchema, rigSchema } from "../core/rig/index.ts";
import { topicFileSchema } from "../core/topic/index.ts";

const formats = [
  { file: "ravik.rig.schema.json", title: "ravik.rig/1: a boat as it stands", schema: rigSchema },
  { file: "ravik.topics.schema.json", title: "ravik.topics/1: topics for the walk", schema: topicFileSchema },
  { file: "ravik.handover.schema.json", title: "ravik.handover/1: a sealed handover", schema: handoverSchema },
  {
    file: "ravik.amendment.schema.json",
    title: "ravik.amendment/1: what was added after a seal",
    schema: amendmentSchema,
  },
  {
    file: "ravik.bundle.schema.json",
    title: "ravik.bundle/1: a sealed handover with its additions",
    schema: bundleSchema,
  },
  { file: "ravik.snapshot.schema.json", title: "ravik.snapshot/1: what a walk goes by", schema: snapshotSchema },
  ...([2, 3] as const).flatMap((number) => [
    {
      file: `ravik.handover.${number}.schema.json`,
      title: `ravik.handover/${number}: what the seal of a handover is over`,
      schema: sealedFormats[number].handover,
    },
    {
      file: `ravik.amendment.${number}.schema.json`,
      title: `ravik.amendment/${number}: what the seal of an addition is over`,
      schema: sealedFormats[number].amendment,
    },
    {
      file: `ravik.bundle.${number}.schema.json`,
      title: `ravik.bundle/${number}: a sealed handover with contents, additions and the store's signature`,
      schema: sealedFormats[number].bundle,
    },
  ]),
  { file: "condition.schema.json", title: "When a topic applies: a question over a rig", schema: conditionSchema },
] as const;

/** The open formats as JSON Schema (2020-12), one file each, as they are to stand in docs/formats. */
export function listFormats(): { file: string; text: string }[] {
  return formats.map(({ file, title, schema }) => {
    const body = z.toJSONSchema(schema, { io: "input", unrepresentable: "any" });
    return { file, text: `${JSON.stringify({ title, ...body }, null, 2)}\n` };
  });
}
