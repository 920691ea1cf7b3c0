import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** A list of all that is built, for what opens Lumso while its server is away. */
const files: Plugin = {
  name: "files",
  generateBundle(_, bundle) {
    const source = JSON.stringify(Object.keys(bundle).filter((f) => f !== "index.html").map((f) => `/${f}`));
    this.emitFile({ type: "asset", fileName: "files.json", source });
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), files],
  build: { outDir: "../src/lumso/web", emptyOutDir: true },
  server: { proxy: { "/api": { target: "http://127.0.0.1:8321", changeOrigin: false } } },
});
