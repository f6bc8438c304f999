import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type BrowserContext, chromium, expect, test } from "@playwright/test";
import { chromiumArgs, chromiumPath } from "../cli/browser.ts";
import type { Answers } from "../cli/install/answers.ts";
import { places, readSettings, writeRenewal, writeSettings, writeSite } from "../cli/install/plan.ts";

const answers: Answers = {
  name: "ravik.yard",
  authority: "own",
  email: null,
  addresses: ["127.0.0.1"],
  backupFolder: null,
  passphrase: null,
  timeZone: "America/Halifax",
};

const findPort = () =>
  new Promise<number>((done) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

test("what `ravik install` sets up: the proxy with an authority of its own, a browser that trusts it, offline and camera allowed", async () => {
  test.setTimeout(120_000);
  const folder = mkdtempSync(join(tmpdir(), "ravik-yard-"));
  // Where it starts as root the proxy serves as a user of its own, as on a real machine.
  chmodSync(folder, 0o755);
  const ports = { http: await findPort(), https: await findPort(), server: await findPort() };
  const running: ChildProcess[] = [];
  const open: BrowserContext[] = [];
  try {
    // As the installation writes it, with ports that anybody may listen on.
    const certificates = join(folder, "certificates");
    const authority = join(folder, "authority.crt");
    mkdirSync(certificates, { mode: 0o700 });
    writeFileSync(join(folder, "renew"), writeRenewal(answers, certificates, authority), { mode: 0o700 });
    execFileSync(join(folder, "renew"), { stdio: "pipe" });
    const env = {
      ...process.env,
      ...readSettings(writeSettings(answers)),
      RAVIK_DATA: join(folder, "data"),
      RAVIK_ADDRESS: `https://127.0.0.1:${ports.https}`,
      PORT: String(ports.server),
      RAVIK_LOG: "error",
    };
    setUpStore(env);
    running.push(spawn(process.execPath, ["dist/server/main.js"], { env, stdio: "inherit" }));
    running.push(
      startProxy(
        folder,
        writeSite(answers, ports).replaceAll(places.certificates, certificates).replaceAll(places.authority, authority),
      ),
    );
    const http = `http://127.0.0.1:${ports.http}`;
    await expect.poll(() => statusOf(`http://127.0.0.1:${ports.server}/api/health`), { timeout: 20_000 }).toBe(200);
    await expect.poll(() => statusOf(`${http}/ravik-authority.crt`), { timeout: 20_000 }).toBe(200);
    const handedOut = await fetch(`${http}/ravik-authority.crt`);
    expect(handedOut.headers.get("content-type")).toBe("application/x-x509-ca-cert");
    const away = await fetch(`${http}/boats?x=1`, { redirect: "manual", headers: { host: "ravik.yard" } });
    expect([away.status, away.headers.get("location")]).toEqual([
      301,
      expect.stringMatching(/^https:\/\/[^/]+\/boats\?x=1$/),
    ]);

    // A tablet that was not told of the authority is warned; one that was keeps Ravik and its camera.
    const address = `https://ravik.yard:${ports.https}`;
    const stranger = await openBrowser(join(folder, "stranger"));
    open.push(stranger);
    await expect(stranger.pages()[0]!.goto(address)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
    const home = join(folder, "tablet");
    trust(home, authority);
    const tablet = await openBrowser(home);
    open.push(tablet);
    const page = tablet.pages()[0]!;
    await page.goto(address);
    await page.getByLabel("Name", { exact: true }).fill("odile");
    await page.getByLabel("Password", { exact: true }).fill("slack water at the ramp");
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(page.getByRole("navigation").getByRole("link", { name: "Boats" })).toBeVisible();
    const [cookie] = await tablet.cookies(address);
    expect(cookie).toMatchObject({ secure: true, httpOnly: true });
    expect(await page.evaluate(() => isSecureContext)).toBe(true);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    const seen = await page.evaluate(async () => {
      const stream = await navigator.mediaDevices.getUserMedia({ video: true });
      const [track] = stream.getVideoTracks();
      const { readyState } = track!;
      track!.stop();
      return readyState;
    });
    expect(seen).toBe("live");
    await page.reload();
    await page.waitForLoadState("networkidle");
    await tablet.setOffline(true);
    await page.reload();
    await expect(page.getByRole("navigation").getByRole("link", { name: "Boats" })).toBeVisible();
    await expect(page.getByText(/no signal/)).toBeVisible();

    // The doctor, as far as a machine without systemd lets it: it asks the address as a tablet does.
    const said = doctor({ ...env, NODE_EXTRA_CA_CERTS: authority });
    expect(said).toMatch(/✓ https +https:\/\/127\.0\.0\.1:\d+ answers\./);
    expect(said).toMatch(/✓ Certificate +It holds for 39\d more days\./);
    expect(said).toMatch(/✓ Key /);
    expect(said).toMatch(/▲ Backup +No folder is named/);
    expect(doctor(env)).toMatch(/▲ https .* by nobody that browsers know/);
  } finally {
    await Promise.all(open.map((each) => each.close()));
    for (const each of running) each.kill("SIGTERM");
    await Promise.all(
      running.map((each) => (each.exitCode === null ? new Promise((done) => each.once("exit", done)) : null)),
    );
    rmSync(folder, { recursive: true, force: true });
  }
});

const statusOf = (address: string) =>
  fetch(address).then(
    ({ status }) => status,
    () => 0,
  );

/** The owner's questions in the terminal, answered. */
function setUpStore(env: NodeJS.ProcessEnv): void {
  const typed = [
    "Slack Water Boats",
    "",
    "",
    "",
    "America/Halifax",
    "us",
    "Odile Pellow",
    "odile",
    "slack water at the ramp",
  ];
  execFileSync(process.execPath, ["dist/server/setup.js"], { env, input: `${typed.join("\n")}\n`, stdio: "pipe" });
}

/** Debian's nginx with this site alone, writing nothing outside of the folder. */
function startProxy(folder: string, site: string): ChildProcess {
  const temporary = ["client_body", "proxy", "fastcgi", "uwsgi", "scgi"].map(
    (kind) => `${kind}_temp_path ${folder}/${kind};`,
  );
  writeFileSync(join(folder, "site"), site);
  writeFileSync(
    join(folder, "nginx.conf"),
    `daemon off; worker_processes 1; pid ${folder}/nginx.pid; error_log ${folder}/error.log;
events {}
http { access_log off; ${temporary.join(" ")} include ${folder}/site; }`,
  );
  return spawn("/usr/sbin/nginx", ["-c", join(folder, "nginx.conf")], { stdio: "inherit" });
}

/** As a tablet's settings do it once. */
function trust(home: string, authority: string): void {
  const store = join(home, ".pki", "nssdb");
  mkdirSync(store, { recursive: true });
  execFileSync("certutil", ["-d", `sql:${store}`, "-N", "--empty-password"]);
  execFileSync("certutil", ["-d", `sql:${store}`, "-A", "-t", "C,,", "-n", "ravik", "-i", authority]);
}

const openBrowser = (home: string) =>
  chromium.launchPersistentContext(join(home, "profile"), {
    executablePath: chromiumPath,
    args: [...chromiumArgs, "--host-resolver-rules=MAP ravik.yard 127.0.0.1", "--use-fake-device-for-media-stream"],
    permissions: ["camera"],
    serviceWorkers: "allow",
    env: { ...process.env, HOME: home } as Record<string, string>,
  });

function doctor(env: NodeJS.ProcessEnv): string {
  try {
    return execFileSync(process.execPath, ["dist/server/doctor.js"], { env, encoding: "utf8", stdio: "pipe" });
  } catch (error) {
    return (error as { stdout: string }).stdout;
  }
}
