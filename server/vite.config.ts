import { defineConfig } from "vite";

/** The server as plain JavaScript in dist/server, so that a start need not translate TypeScript. Packages stay packages. */
export default defineConfig({
  root: `${import.meta.dirname}/..`,
  publicDir: false,
  build: {
    ssr: true,
    outDir: "dist/server",
    emptyOutDir: true,
    target: "node20",
    rolldownOptions: {
      input: {
        main: "server/main.ts",
        demo: "cli/demoServer.ts",
        test: "cli/testServer.ts",
        host: "cli/demoHost.ts",
        planWorker: "server/planning/planWorker.ts",
        pressWorker: "server/pdf/pressWorker.ts",
        hashWorker: "server/signIn/hashWorker.ts",
        // The commands of the terminal, so that they too work where only what runs is installed.
        setup: "cli/setUp.ts",
        owner: "cli/owner.ts",
        verify: "cli/verify.ts",
        compute: "cli/compute.ts",
        export: "cli/exportStore.ts",
        import: "cli/importStore.ts",
        backup: "cli/backup.ts",
        restore: "cli/restore.ts",
        install: "cli/install.ts",
        doctor: "cli/doctor.ts",
      },
    },
  },
});
