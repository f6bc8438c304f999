import { PassThrough } from "node:stream";
import type { Context } from "koa";
import { Failure } from "./failure.ts";
import type { News } from "./news.ts";
import type { Session, Sessions } from "./repositories/sessions.ts";

const heartbeatMs = 20_000;

/** A page has one open for each of its tabs; a browser allows six. */
const mostOfSession = 12;
const mostInAll = 500;

/** The live streams that are open: so many a session and in all. Failure: `busy`. */
export function createStreams() {
  const open = new Map<string, number>();
  let inAll = 0;
  return {
    /** Answers what to call when it is closed. */
    take(session: string): () => void {
      const mine = open.get(session) ?? 0;
      if (mine >= mostOfSession || inAll >= mostInAll) throw new Failure("busy");
      open.set(session, mine + 1);
      inAll++;
      return () => {
        inAll--;
        const left = open.get(session)! - 1;
        if (left === 0) open.delete(session);
        else open.set(session, left);
      };
    },
  };
}
export type Streams = ReturnType<typeof createStreams>;

/**
 * Answers with server-sent events: every piece of news as it comes, and a sign of life between, until the other side goes or
 * its session ends. `leave`: called then.
 */
export function streamNews(
  ctx: Context,
  listen: (listener: (news: News) => void) => () => void,
  { id }: Session,
  leave: () => void,
  sessions: Sessions,
) {
  const stream = new PassThrough();
  ctx.type = "text/event-stream";
  // Compressed, an event would wait for the next to fill the block.
  ctx.compress = false;
  ctx.status = 200;
  ctx.body = stream;
  stream.write("event: hello\ndata: {}\n\n");
  const stop = listen((news) => stream.write(`event: news\ndata: ${JSON.stringify(news)}\n\n`));
  const heartbeat = setInterval(() => stream.write(": here\n\n"), heartbeatMs);
  heartbeat.unref();
  const unhook = sessions.onEnd(id, () => stream.end());
  const end = () => {
    clearInterval(heartbeat);
    stop();
    unhook();
    leave();
  };
  stream.on("close", end);
  ctx.req.on("close", () => stream.destroy());
}
