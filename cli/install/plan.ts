import { isIP } from "node:net";
import { type Answers, addressOf } from "./answers.ts";

/** One thing done to the machine, and how it is undone. */
export type Action =
  /** `unless`: not where this command already goes well; then nothing is undone either. */
  | {
      readonly kind: "run";
      readonly command: readonly string[];
      readonly unless?: readonly string[];
      readonly undo?: readonly string[];
    }
  | { readonly kind: "write"; readonly path: string; readonly text: string; readonly mode: number }
  | { readonly kind: "folder"; readonly path: string; readonly mode: number; readonly owner?: string }
  | { readonly kind: "copy"; readonly from: string; readonly to: string; readonly only: readonly string[] };

/** What is asked of whoever installs, as one question. */
export interface Step {
  readonly id: string;
  /** What is about to be done, with its why. */
  readonly says: string;
  readonly actions: readonly Action[];
}

/** Where everything lies; paths of a machine, each under `root` in a test. */
export const places = {
  app: "/srv/ravik/app",
  data: "/srv/ravik/data",
  settings: "/etc/ravik/ravik.env",
  done: "/etc/ravik/installed.json",
  service: "/etc/systemd/system/ravik.service",
  certificates: "/etc/ravik/certificates",
  /** Read by the proxy's own user, who sees nothing of the folder with the keys. */
  authority: "/etc/ravik/authority.crt",
  renew: "/etc/ravik/renew-certificate",
  renewService: "/etc/systemd/system/ravik-certificate.service",
  renewTimer: "/etc/systemd/system/ravik-certificate.timer",
  site: "/etc/nginx/sites-available/ravik",
  siteOn: "/etc/nginx/sites-enabled/ravik",
  page: "/srv/ravik/tablets.pdf",
  command: "/usr/local/bin/ravik",
} as const;

const user = "ravik";
export const port = 4600;

/** The folders of a built copy that run; nothing else of it is needed. */
const whatRuns = ["dist", "node_modules", "cli/ravik.mjs", "package.json", "LICENSE", "content"];

/**
 * What an installation does, in its order: packages, a user of its own, the program, its folders, its settings, a certificate,
 * the service, the proxy. Nothing here touches the machine.
 *
 * @param from the folder of the built copy this command runs from.
 */
export function planInstall(answers: Answers, from: string): Step[] {
  const isOwn = answers.authority === "own";
  return [
    {
      id: "packages",
      says: `Install from Debian: nginx, the proxy that speaks https to tablets${isOwn ? ", and openssl" : ", and certbot, which fetches and renews the certificate"}.`,
      actions: (isOwn ? ["nginx", "openssl"] : ["nginx", "certbot", "python3-certbot-nginx"]).map(install),
    },
    {
      id: "user",
      says: `Make the user “${user}”, who can do nothing but run Ravik.`,
      actions: [
        {
          kind: "run",
          command: [
            "useradd",
            "--system",
            "--no-create-home",
            "--home-dir",
            "/srv/ravik",
            "--shell",
            "/usr/sbin/nologin",
            user,
          ],
          unless: ["id", user],
          undo: ["sh", "-c", `! id ${user} >/dev/null 2>&1 || userdel ${user}`],
        },
      ],
    },
    {
      id: "program",
      says: `Copy this build of Ravik to ${places.app}, where “${user}” can run it and not change it, and make the command “ravik”.`,
      actions: [
        { kind: "folder", path: "/srv/ravik", mode: 0o755 },
        { kind: "copy", from, to: places.app, only: whatRuns },
        { kind: "write", path: places.command, text: command(), mode: 0o755 },
      ],
    },
    {
      id: "folders",
      says: `Make the folder of the store, ${places.data}${answers.backupFolder === null ? ". What is in it stays" : `, and that of its backups, ${answers.backupFolder}. What is in them stays`} when --remove undoes the rest.`,
      actions: [
        { kind: "folder", path: places.data, mode: 0o700, owner: user },
        ...(answers.backupFolder === null
          ? []
          : [{ kind: "folder", path: answers.backupFolder, mode: 0o700, owner: user } as const]),
      ],
    },
    {
      id: "settings",
      says: `Write its settings to ${places.settings}: the address ${addressOf(answers)}${answers.backupFolder === null ? "" : ", the backups"}.`,
      actions: [
        { kind: "folder", path: "/etc/ravik", mode: 0o755 },
        { kind: "write", path: places.settings, text: writeSettings(answers), mode: 0o600 },
      ],
    },
    isOwn ? certificateOfOwn(answers) : certificateOfPublic(answers),
    {
      id: "service",
      says: "Run Ravik as a service: it starts with the machine, and again should it end.",
      actions: [
        lastlyBy("systemctl", "daemon-reload"),
        { kind: "write", path: places.service, text: service(answers), mode: 0o644 },
        { kind: "run", command: ["systemctl", "daemon-reload"] },
        {
          kind: "run",
          command: ["systemctl", "enable", "--now", "ravik"],
          undo: ["systemctl", "disable", "--now", "ravik"],
        },
      ],
    },
    {
      id: "proxy",
      says: `Put nginx before it: https for ${[answers.name, ...answers.addresses].join(", ")}, and http sent on to it.`,
      actions: [
        lastlyBy("systemctl", "reload-or-restart", "nginx"),
        { kind: "write", path: places.site, text: writeSite(answers), mode: 0o644 },
        { kind: "run", command: ["ln", "-sf", places.site, places.siteOn], undo: ["rm", "-f", places.siteOn] },
        { kind: "run", command: ["nginx", "-t"] },
        { kind: "run", command: ["systemctl", "reload-or-restart", "nginx"] },
      ],
    },
  ];
}

/** What is run once all that comes after it in the step is undone: undoing goes from the end. */
const lastlyBy = (...undo: readonly string[]): Action => ({ kind: "run", command: ["true"], undo });

const install = (name: string): Action => ({
  kind: "run",
  command: ["apt-get", "install", "-y", "-qq", name],
  // One that was removed is known still, by the settings that it left.
  unless: [
    "sh",
    "-c",
    `dpkg-query --show --showformat='\${Status}' ${name} 2>/dev/null | grep -q '^install ok installed$'`,
  ],
  undo: ["apt-get", "remove", "-y", "-qq", name],
});

function certificateOfPublic({ name, email }: Answers): Step {
  return {
    id: "certificate",
    says: `Fetch a certificate for ${name} from a public authority: its port 80 must be open to the world while that goes on. You agree to that authority's terms. It is renewed by itself.`,
    actions: [
      {
        kind: "run",
        command: ["certbot", "certonly", "--nginx", "--non-interactive", "--agree-tos", "-m", email!, "-d", name],
        undo: ["certbot", "delete", "--non-interactive", "--cert-name", name],
      },
    ],
  };
}

function certificateOfOwn(answers: Answers): Step {
  return {
    id: "certificate",
    says: "Make an authority of the store's own and a certificate by it, renewed every month by itself. Each tablet is told once to trust it; its private key never leaves this machine.",
    actions: [
      { kind: "folder", path: places.certificates, mode: 0o700 },
      { kind: "write", path: places.renew, text: writeRenewal(answers), mode: 0o700 },
      { kind: "run", command: [places.renew], undo: ["rm", "-rf", places.certificates, places.authority] },
      lastlyBy("systemctl", "daemon-reload"),
      { kind: "write", path: places.renewService, text: renewService, mode: 0o644 },
      { kind: "write", path: places.renewTimer, text: renewTimer, mode: 0o644 },
      { kind: "run", command: ["systemctl", "daemon-reload"] },
      {
        kind: "run",
        command: ["systemctl", "enable", "--now", "ravik-certificate.timer"],
        undo: ["systemctl", "disable", "--now", "ravik-certificate.timer"],
      },
    ],
  };
}

/** The service's environment; quoted as systemd reads it. */
export function writeSettings({ backupFolder, passphrase, timeZone, ...answers }: Answers): string {
  const lines = [
    ["RAVIK_DATA", places.data],
    ["RAVIK_ZONE", timeZone],
    ["RAVIK_ADDRESS", addressOf(answers)],
    ["RAVIK_TRUST_PROXY", "1"],
    ["HOST", "127.0.0.1"],
    ["PORT", String(port)],
    ...(backupFolder === null ? [] : [["RAVIK_BACKUP", backupFolder]]),
    ...(passphrase === null ? [] : [["RAVIK_BACKUP_PASSPHRASE", passphrase]]),
  ];
  return lines.map(([name, value]) => `${name}="${value}"\n`).join("");
}

/** What `writeSettings` wrote. */
export const readSettings = (text: string): Record<string, string> =>
  Object.fromEntries([...text.matchAll(/^([A-Z_]+)="(.*)"$/gm)].map(([, name, value]) => [name!, value!]));

/** `ravik` from anywhere: with the settings of the service, as its user. */
const command = () => `#!/bin/sh
# Made by "ravik install". Runs a command of Ravik as its service runs; --remove and doctor as whoever asks.
set -a
[ -r ${places.settings} ] && . ${places.settings}
set +a
[ "$(id -u)" = 0 ] || set -- plain "$@"
case "$1" in
  plain) shift; exec /usr/bin/env node ${places.app}/cli/ravik.mjs "$@" ;;
  install|doctor) exec /usr/bin/env node ${places.app}/cli/ravik.mjs "$@" ;;
  *) exec runuser -u ${user} --preserve-environment -- /usr/bin/env node ${places.app}/cli/ravik.mjs "$@" ;;
esac
`;

const service = ({ backupFolder }: Answers) => `[Unit]
Description=Ravik
After=network.target

[Service]
User=${user}
WorkingDirectory=${places.app}
EnvironmentFile=${places.settings}
ExecStart=/usr/bin/env node dist/server/main.js
Restart=on-failure
TimeoutStopSec=20
NoNewPrivileges=true
PrivateTmp=true
ProtectHome=true
ProtectSystem=strict
ReadWritePaths=${[places.data, ...(backupFolder === null ? [] : [backupFolder])].join(" ")}

[Install]
WantedBy=multi-user.target
`;

/** Of a public name the certificate is certbot's, else our own. */
export const certificateOf = ({ authority, name }: Pick<Answers, "authority" | "name">) =>
  authority === "public"
    ? { chain: `/etc/letsencrypt/live/${name}/fullchain.pem`, key: `/etc/letsencrypt/live/${name}/privkey.pem` }
    : { chain: `${places.certificates}/cert.pem`, key: `${places.certificates}/key.pem` };

/** The authority's certificate as tablets fetch it, before they can trust anything that comes by https. */
export const authorityPath = "/ravik-authority.crt";

/** nginx's site: https before the server, http only to say where that is and to hand out the authority. */
export function writeSite(answers: Answers, ports = { http: 80, https: 443, server: port }): string {
  const { chain, key } = certificateOf(answers);
  const names = [answers.name, ...answers.addresses].join(" ");
  const isOwn = answers.authority === "own";
  const handOut = `
  location = ${authorityPath} {
    default_type application/x-x509-ca-cert;
    alias ${places.authority};
  }`;
  return `# Made by "ravik install"; "ravik install --remove" takes it away.
server {
  listen ${ports.https} ssl;
  server_name ${names};
  ssl_certificate     ${chain};
  ssl_certificate_key ${key};
  ssl_protocols TLSv1.2 TLSv1.3;${isOwn ? "" : '\n  add_header Strict-Transport-Security "max-age=31536000" always;'}
  client_max_body_size 0;  # Ravik itself says what is too large
  location / {
    proxy_pass http://127.0.0.1:${ports.server};
    proxy_http_version 1.1;
    proxy_set_header Host $http_host;
    proxy_set_header X-Forwarded-For $remote_addr;
    proxy_set_header X-Forwarded-Proto https;
    proxy_buffering off;
    proxy_request_buffering off;
    proxy_read_timeout 1h;
  }
}
server {
  listen ${ports.http};
  server_name ${names};${isOwn ? handOut : ""}
  location / {
    return 301 https://$host$request_uri;
  }
}
`;
}

/**
 * A script that makes the store's own authority where there is none for these names, and a certificate by it: each time anew, so
 * that a timer renews it. The authority can vouch for these names alone: whoever stole its key could not pass for a bank.
 */
export function writeRenewal(
  { name, addresses }: Answers,
  folder: string = places.certificates,
  handedOut: string = places.authority,
): string {
  const names = [`DNS:${name}`, ...addresses.map((address) => `IP:${address}`)].join(",");
  const alone = (address: string) =>
    isIP(address) === 4
      ? `permitted;IP:${address}/255.255.255.255`
      : `permitted;IP:${address}/${"ffff:".repeat(7)}ffff`;
  const none = "excluded;IP:0.0.0.0/0.0.0.0";
  const only = [`permitted;DNS:${name}`, ...(addresses.length === 0 ? [none] : addresses.map(alone))].join(",");
  return `#!/bin/sh
# Made by "ravik install": the store's own authority, and a certificate by it.
set -eu
umask 077
cd ${folder}
only='${only}'
if [ ! -f authority-key.pem ] || [ ! -f authority.pem ] || [ "$(cat only 2>/dev/null)" != "$only" ]; then
  openssl req -x509 -newkey rsa:3072 -nodes -days 3650 -subj "/CN=Ravik at ${name}" \\
    -addext "basicConstraints=critical,CA:TRUE,pathlen:0" -addext "keyUsage=critical,keyCertSign,cRLSign" \\
    -addext "nameConstraints=critical,$only" -keyout authority-key.pem -out authority.pem
  printf '%s' "$only" > only
fi
printf '%s\\n' "subjectAltName=${names}" "basicConstraints=critical,CA:FALSE" \\
  "keyUsage=critical,digitalSignature,keyEncipherment" "extendedKeyUsage=serverAuth" > names
openssl req -newkey rsa:2048 -nodes -subj "/CN=${name}" -keyout key-new.pem -out request.pem
openssl x509 -req -in request.pem -CA authority.pem -CAkey authority-key.pem -CAcreateserial -days 397 -sha256 \\
  -extfile names -out cert-new.pem
openssl verify -CAfile authority.pem cert-new.pem
mv key-new.pem key.pem
mv cert-new.pem cert.pem
cp authority.pem ${handedOut}
chmod 644 ${handedOut}
# Not yet there at the first time.
systemctl reload nginx 2>/dev/null || true
`;
}

const renewService = `[Unit]
Description=A new certificate for Ravik

[Service]
Type=oneshot
ExecStart=${places.renew}
`;
const renewTimer = `[Unit]
Description=A new certificate for Ravik every month

[Timer]
OnCalendar=monthly
Persistent=true
RandomizedDelaySec=2h

[Install]
WantedBy=timers.target
`;

/** Lines for a firewall, where there is one: printed, for nobody knows what else this machine is for. */
export const firewallLines: readonly string[] = [
  "ufw allow 80,443/tcp",
  "nft add rule inet filter input tcp dport { 80, 443 } accept",
  "firewall-cmd --permanent --add-service=http --add-service=https && firewall-cmd --reload",
];
