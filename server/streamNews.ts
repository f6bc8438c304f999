import { PassThrough } from "node:stream";
import type { Context } from "koa";
import type { News } from "./news.ts";

const heartbeatMs = 20_000;

/** Answers with server-sent events: every piece of news as it comes, and a sign of life between, until the other side goes. */
export function streamNews(ctx: Context, listen: (listener: (news: News) => void) => () => void) {
  const stream = new PassThrough();
  ctx.type = "text/event-stream";
  ctx.set("Cache-Control", "no-store");
  // Compressed, an event would wait for the next to fill the block.
  ctx.compress = false;
  ctx.status = 200;
  ctx.body = stream;
  stream.write("event: hello\ndata: {}\n\n");
  const stop = listen((news) => stream.write(`event: news\ndata: ${JSON.stringify(news)}\n\n`));
  const heartbeat = setInterval(() => stream.write(": here\n\n"), heartbeatMs);
  heartbeat.unref();
  const end = () => {
    clearInterval(heartbeat);
    stop();
  };
  stream.on("close", end);
  ctx.req.on("close", () => stream.destroy());
}
