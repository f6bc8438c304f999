import { createServer, request } from "node:http";
import type { AddressInfo } from "node:net";

export interface SlowLine {
  readonly address: string;
  /** From now on answers to what is read at such an address come so much later. */
  slow(path: RegExp, ms: number): void;
  close(): void;
}

/** A line to a server on which some answers take their time. */
export async function openSlowLine(to: string): Promise<SlowLine> {
  let slowed: { readonly path: RegExp; readonly ms: number } | null = null;
  const { hostname, port } = new URL(to);
  const server = createServer((asked, answer) => {
    const isSlow = asked.method === "GET" && slowed?.path.test(asked.url!);
    setTimeout(
      () => {
        const passed = request(
          { hostname, port, path: asked.url, method: asked.method, headers: asked.headers },
          (got) => {
            answer.writeHead(got.statusCode!, got.headers);
            got.pipe(answer);
          },
        );
        passed.on("error", () => answer.destroy());
        asked.pipe(passed);
      },
      isSlow ? slowed!.ms : 0,
    );
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    slow(path, ms) {
      slowed = { path, ms };
    },
    close() {
      server.closeAllConnections();
      server.close();
    },
  };
}
