// The deck's outbox against a machine that is not the laptop: whatever that answers, nothing is struck off.
import assert from "node:assert/strict";
import { createServer } from "node:http";

const kept = new Map();
globalThis.localStorage = {
  getItem: (key) => kept.get(key) ?? null,
  setItem: (key, text) => kept.set(key, String(text)),
  removeItem: (key) => kept.delete(key),
  key: (k) => [...kept.keys()][k],
  get length() { return kept.size; },
};
globalThis.window = { setTimeout: () => 0, clearTimeout() {}, addEventListener() {} };
globalThis.document = { addEventListener() {}, hidden: false };
const page = (status, body, headers = {}) => (answer) => answer.writeHead(status, headers).end(body);
const json = (status, said) => page(status, JSON.stringify(said), { "content-type": "application/json" });
const STRANGE = {
  "a portal's page": page(200, "<html>Welcome to the marina</html>", { "content-type": "text/html" }),
  "a yes of its own": json(200, { status: "ok" }),
  "names of others": json(200, { kept: ["other"], id: "other", name: "Elsewhere" }),
  "sent elsewhere": (answer, at, { url }) => (url === "/portal" ? page(200, "<html>Log in</html>") : page(302, "", { location: `${at}/portal` }))(answer),
  "no such page": json(404, { detail: "Not Found" }),
  "another's refusal": json(422, { detail: [{ loc: ["body"], msg: "field required" }] }),
  "not allowed": page(405, "Method Not Allowed"),
  "who are you": page(401, "", { "www-authenticate": "Basic" }),
  "a host it does not know": page(400, "Invalid host header"),
  "broken": page(500, "Internal Server Error"),
  "too busy": page(429, ""),
  "half an answer": (answer) => { answer.writeHead(200, { "content-length": "999" }); answer.write('{"kept": ["a"'); answer.destroy(); },
  "nothing": (answer) => answer.destroy(),
};
let says = STRANGE.nothing;
let asked = [];
const server = createServer((request, answer) => {
  let body = "";
  request.on("data", (part) => { body += part; });
  request.on("end", () => { asked.push([request.method, request.url, body]); says(answer, base, request, body); });
});
await new Promise((up) => server.listen(0, "127.0.0.1", up));
const base = `http://127.0.0.1:${server.address().port}`;
const real = globalThis.fetch;
globalThis.fetch = (address, how) => real(address.startsWith("/") ? base + address : address, how);
const { put, waiting, refused, flush, again } = await import(process.argv[2]);
const ALL = [
  { do: "keep", id: "a", cast: { id: "a" } }, { do: "keep", id: "b", cast: { id: "b" } }, { do: "mend", id: "a", cast: { id: "a", note: "x" } },
  { do: "water", id: "w", form: { stop: "Bay", name: "wind_mph", value: "7", token: "old" } }, { do: "withdraw", id: "b" },
];
for (const one of ALL) { await put(one); }
for (const [name, answer] of Object.entries(STRANGE)) {
  says = answer;
  asked = [];
  assert.equal(await flush(), false, name);
  assert.deepEqual(waiting().map((e) => e[1]), ALL, name);
  assert.deepEqual(refused(), [], name);
  assert.ok(asked.length <= 6, `${name}: asked ${asked.length} times`);
}
// The laptop is back, but for a page that is older than it: that stands aside, the rest is kept in order.
says = (answer, at, request, body) => {
  if (request.url === "/deck/water" && body.includes("old")) { return json(403, { detail: "An older page.", field: "token" })(answer); }
  return json(200, { kept: request.method === "POST" && body.startsWith("[") ? JSON.parse(body).map((c) => c.id) : ["a"], id: "b", name: "Bay" })(answer);
};
asked = [];
assert.equal(await flush(), true);
assert.deepEqual(asked.map(([method, at]) => `${method} ${at}`),
  ["POST /api/v1/casts", "PUT /api/v1/casts/a", "POST /deck/water", "DELETE /api/v1/casts/b"]);
assert.deepEqual(refused().map(([, o]) => [o.id, o.detail]), [["w", "An older page."]]);
assert.equal(await again("new"), true);
assert.deepEqual([waiting(), refused()], [[], []]);
server.close();
console.log("held");
