import { startServer, stopChild } from "../demoProcess.ts";

/** The built server on a store, and somebody who is signed in there. Times are from the question to the last byte. */
export async function startStore(folder: string, login: string) {
  const env = { RAVIK_DATA: folder, PORT: "0", RAVIK_ZONE: "UTC", RAVIK_LOG: "fatal" };
  const { child, port } = await startServer("main", env);
  const address = `http://127.0.0.1:${port}`;
  const headers: Record<string, string> = { origin: address, "content-type": "application/json" };
  const call = async (method: string, path: string, body?: object) => {
    const startMs = performance.now();
    const sent = body === undefined ? {} : { body: JSON.stringify(body) };
    const answer = await fetch(address + path, { method, headers, ...sent });
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`bench: ${method} ${path} answered ${answer.status}`);
    return { answer, ms: performance.now() - startMs };
  };
  const { answer } = await call("POST", "/api/sign-in", { login, password: "slack-water" });
  headers.cookie = answer.headers.get("set-cookie")!.split(";")[0]!;
  return { child, address, headers, call, stop: () => stopChild(child) };
}
