// Opens Lumso while its server is away: the interface as it was last fetched, and of what was asked of the workshop the
// last answers. Copies belong to one workshop: another one at the same address never sees them.

const SHELL = "lumso-shell";
const META = "lumso-meta";
const ANSWERS = "lumso-answers-";
const KEPT = "X-Lumso-Kept";
const MOST_ANSWERS = 400;

/** Questions that are posted and keep nothing: asked again, they have the same answer. */
const PURE = [
  "/api/days",
  "/api/finish/steps",
  "/api/layouts",
  "/api/mix-sheet",
  "/api/mix-sheet/measure",
  "/api/sheet",
  "/api/sheet/measure",
];
/** What is never answered from a copy. */
const LIVE = /^\/api\/(identity|live|bench|jobs\/[^/]+\/changes|restore|backups|export|log\/.*\.pdf|days\/.*\.(pdf|ics)|enter|photographs|recordings)/;

let workshop = null;

async function fill() {
  const files = await (await fetch("/files.json", { cache: "no-cache" })).json();
  const shell = await caches.open(SHELL);
  await shell.addAll(["/", "/icon.svg", "/manifest.webmanifest", ...files]);
}

/** Which workshop answers here: asked, or as it was last time. Copies of another are let go. */
async function known() {
  const meta = await caches.open(META);
  try {
    const reply = await fetch("/api/identity", { cache: "no-store" });
    if (reply.status === 401) await forget(reply.clone());
    if (!reply.ok) return null;
    workshop = (await reply.json()).workshop;
    await meta.put("/workshop", new Response(workshop));
    for (const name of await caches.keys())
      if (name.startsWith(ANSWERS) && name !== ANSWERS + workshop) await caches.delete(name);
  } catch {
    workshop ??= (await (await meta.match("/workshop"))?.text()) ?? null;
  }
  return workshop;
}

/** What a question is kept under: its address, with what was posted. */
async function nameOf(request) {
  if (request.method === "GET") return request.url;
  const body = await request.clone().arrayBuffer();
  const hash = await crypto.subtle.digest("SHA-256", body);
  const hex = [...new Uint8Array(hash)].map((b) => b.toString(16).padStart(2, "0")).join("");
  return `${request.url}?posted=${hex}`;
}

async function keep(name, reply) {
  const whose = workshop ?? (await known());
  if (!whose) return;
  const headers = new Headers(reply.headers);
  headers.set(KEPT, new Date().toISOString());
  headers.delete("Content-Encoding");
  headers.delete("Content-Length");
  const answers = await caches.open(ANSWERS + whose);
  await answers.put(name, new Response(await reply.arrayBuffer(), { status: reply.status, headers }));
  const names = await answers.keys();
  for (const old of names.slice(0, Math.max(0, names.length - MOST_ANSWERS))) await answers.delete(old);
}

/** This device was turned out: what it kept of the workshop goes, here too. */
async function forget(reply) {
  const said = await reply.json().catch(() => null);
  if (said?.type !== "/problems/TurnedOut") return;
  workshop = null;
  for (const name of await caches.keys()) if (name !== SHELL) await caches.delete(name);
}

async function asked(event) {
  const name = await nameOf(event.request);
  try {
    const reply = await fetch(event.request);
    if (reply.status === 401) event.waitUntil(forget(reply.clone()));
    if (reply.ok && (reply.headers.get("Content-Type") ?? "").includes("json"))
      event.waitUntil(keep(name, reply.clone()).catch(() => undefined));
    return reply;
  } catch (error) {
    const whose = workshop ?? (await known());
    const kept = whose && (await (await caches.open(ANSWERS + whose)).match(name));
    if (kept) return kept;
    throw error;
  }
}

async function page(event) {
  try {
    const reply = await fetch(event.request);
    if (reply.ok) event.waitUntil(caches.open(SHELL).then((c) => c.put("/", reply.clone())));
    event.waitUntil(known());
    return reply.clone();
  } catch (error) {
    const kept = await caches.match("/");
    if (kept) return kept;
    throw error;
  }
}

async function asset(request) {
  const kept = await caches.match(request);
  if (kept) return kept;
  const reply = await fetch(request);
  if (reply.ok) await (await caches.open(SHELL)).put(request, reply.clone());
  return reply;
}

self.addEventListener("install", (event) => event.waitUntil(fill().then(() => self.skipWaiting())));
self.addEventListener("activate", (event) => event.waitUntil(known().then(() => self.clients.claim())));
self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  if (request.mode === "navigate") return event.respondWith(page(event));
  if (url.pathname.startsWith("/assets/") || url.pathname === "/icon.svg") return event.respondWith(asset(request));
  if (!url.pathname.startsWith("/api/") || LIVE.test(url.pathname)) return;
  if (request.method === "GET" ? request.headers.get("Accept") !== "text/event-stream" : PURE.includes(url.pathname))
    event.respondWith(asked(event));
});
