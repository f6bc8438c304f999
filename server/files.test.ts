import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { fileLimits, tellFile } from "./files.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let ines: Caller;
beforeAll(async () => {
  store = await openTestStore();
  ines = await store.signIn("ines");
});
afterAll(() => store.stop());

const bytes = (text: string) => new TextEncoder().encode(text);
const pdf = bytes("%PDF-1.7\n1 0 obj\n<<>>\nendobj\n%%EOF");
const send = (content: Uint8Array, type = "application/pdf", id = ulid().toLowerCase()) =>
  store.sendFile(ines, `/api/files/${id}`, content, type);

describe("a file that shows what was done", () => {
  it("comes back as it was sent, to be saved and not opened", async () => {
    const { body, status } = await send(pdf);
    expect(status).toBe(200);
    const answer = await fetch(`${store.address}/api/files/${body.file}`, { headers: { cookie: ines.cookie } });
    expect(answer.headers.get("content-type")).toBe("application/pdf");
    expect(answer.headers.get("content-disposition")).toBe("attachment");
    expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
    expect(new Uint8Array(await answer.arrayBuffer())).toEqual(pdf);
  });

  it("is kept once under its id, whatever comes after", async () => {
    const { body } = await send(bytes("oil, filter: 2 L"), "text/plain");
    expect((await send(pdf, "application/pdf", body.file)).status).toBe(200);
    expect((await ines.get(`/api/files/${body.file}`)).body.text).toBe("oil, filter: 2 L");
  });

  it("is told by its content: a page of HTML named text is text, a program named PDF is refused", async () => {
    const page = await send(bytes("<script>alert(1)</script>"), "application/pdf");
    expect((await ines.get(`/api/files/${page.body.file}`)).headers.get("content-type")).toContain("text/plain");
    const program = await send(new Uint8Array([0x4d, 0x5a, 0, 1, 2]));
    expect([program.status, program.body.error.code]).toEqual([415, "not-a-document"]);
    expect((await send(new Uint8Array([0xff, 0xfe, 0x41]))).body.error.code).toBe("not-a-document");
    expect((await send(new Uint8Array(0), "text/plain")).body.error.code).toBe("not-a-document");
    expect((await send(pdf, "text/html")).body.error.code).toBe("not-json");
    expect(tellFile(Buffer.from(`\n\n${"%PDF-1.4"}`))).toBe("application/pdf");
  });

  it("is refused when it is too large, and to strangers", async () => {
    const large = new Uint8Array(fileLimits.mostBytes + 1).fill(0x41);
    expect((await send(large, "text/plain")).body.error).toMatchObject({ code: "too-large", limit: "10 MB" });
    const answer = await store.sendFile(store.stranger, `/api/files/${ulid().toLowerCase()}`, pdf, "application/pdf");
    expect(answer.body.error.code).toBe("sign-in-needed");
  });

  it("stands by the service it shows, and in the printed history; one that never came is refused", async () => {
    const { body } = await send(pdf);
    const serve = (file: string) =>
      ines.send("POST", "/api/boats/w081/services", {
        id: ulid(),
        engine: "port",
        item: "annual",
        date: store.services.clock.today(),
        hours: 24,
        outcome: "elsewhere",
        note: "Yard on the north shore",
        file,
        fileName: "invoice 12.pdf",
      });
    expect((await serve("never-sent")).body.error).toMatchObject({ code: "not-found", what: "file" });
    expect((await serve(body.file)).status).toBe(200);
    const services = (await ines.get("/api/boats/w081")).body.services;
    expect(services.at(-1)).toMatchObject({ file: body.file, fileName: "invoice 12.pdf", photo: null });
    expect((await ines.get("/api/boats/w081/history.pdf")).status).toBe(200);
  });
});
