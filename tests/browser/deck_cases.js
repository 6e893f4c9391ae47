// What the deck's scripts do, case by case: { data, kept by the browser, before the page's scripts, run }.
const RIGS = { A: "swim-jig:0.375:craw", B: "football-jig:0.5:chunk", C: "underspin:0.25:paddle-tail" };
function cast(rod, count, more) {
  const [family, oz, trailer] = RIGS[rod].split(":");
  return { name: RIGS[rod], rod, countdown_s: count, pace_ft_s: 2, turns_per_s: 0.8, rod_tip_height_ft: 2, change: "none",
    lands: false, work: "swim", rig: { family, head_oz: Number(oz), trailer }, line: { material: "braid", test_lb: 30 },
    said: { rig: `${oz} oz ${family}`, line: `${rod} line`, count: String(count), turns: "9", runs: "5 ft", why: `${rod} at ${count}.` },
    ...more };
}
function order(casts, more) {
  const each = ["A", "B", "C"].map((rod) => casts.find((c) => c.rod === rod)).filter(Boolean);
  return { casts, each_rod: each, learned: [], move_on: null, left: null, mend: null, thrown: "", made: 0, cautions: [], ...more };
}
const row = (name, label, value, more) => ({ name, label, value, unit: "ft", step: "0.5", options: [], by: "", ...more });
// Two stops: three casts on A, A and B at the first; one that lands at the second.
function day(more, first) {
  const water = [row("fish_depth_ft", "Fish", "6"), row("water_temp_f", "Water", "61", { unit: "°F", step: "1", by: "sounder" }),
    row("wind_mph", "Wind", "4", { unit: "mph", step: "1", by: "typed" }),
    row("light", "Light", "low", { unit: "", step: "", options: [["low", "dim"], ["sunny", "sunny"]] })];
  const conditions = { water_temp_f: 61, wind_mph: 4, bottom_depth_ft: 9 };
  const casts = [cast("A", 4.04), cast("A", 6), cast("B", 2)];
  return { trip: "The day", units: "imperial", per: { cm: 2.54, kg: 0.45359237 }, made: [], instruments: false,
    rods: Object.entries(RIGS).map(([name, rig]) => ({ name, rig, said: `${name} tied`, line: `${name} line` })),
    stops: [{ name: "Point", water, conditions, next: order(casts, { cautions: ["Hooks.", "Lead."], ...first }) },
      { name: "Weed bed", water: water.slice(0, 2), conditions, next: order([cast("B", 3, { lands: true, work: "drag" })], { made: 7 }) }],
    answers: [["nothing", "Nothing"], ["bump", "Bump"], ["fish", "Fish"]], bitten: ["bump", "fish"],
    sounded: { water_temp_f: "fills", wind_mph: "fills", bottom_depth_ft: "offers" }, ...more };
}
const old = (id, hour, more) => ({ id, time: `2026-04-11T0${hour}:00:00-05:00`, trip: "The day", stop: "Point", outcome: "bump",
  countdown_s: 2.06, ...more });
const takes = (lab) => lab.replies.push(["POST /api/v1/casts", (b) => ({ answer: { kept: b.map((c) => c.id) } })], ["PUT", (b) => ({ answer: { kept: [b.id] } })],
  ["DELETE", (_, at) => ({ answer: { id: at.split("/").at(-1) } })]);
const answer = async (lab, outcome) => { lab.pass(800); lab.press(`[data-outcome=${outcome}]`); await lab.rest(); };
const facts = (lab) => lab.all(".facts dd");
const online = async (lab) => { window.dispatchEvent(new Event("online")); await lab.rest(); };
const button = (n) => `#inside > button:nth-of-type(${n})`;
const opens = async (lab, id) => { lab.press(`#${id}`); await lab.rest(); };

var cases = {
  "the screen says the cast in hand and what follows": { async run(lab) {
    const { same, all, text } = lab;
    same([all("#stop *"), all("#rig *"), facts(lab)], [["Point", "1 of 2"], ["Rod A: 0.375 oz swim-jig", "A line"], ["4.04", "9", "5 ft"]]);
    same([text("now"), text("what"), text("why"), text("kept"), all("#last li")], ["4.04", "Splash", "A at 4.04.", "", []]);
    same(all("#beside :is(h2, li)"), ["After this, while nothing bites", "A at 6.", "B at 2.", "Take care", "Hooks.", "Lead."]);
    const shut = () => ["before", "after", "undo", "stay"].map((id) => lab.by(id).disabled || lab.by(id).hidden);
    same(shut(), [true, false, true, true]);
    await opens(lab, "after");
    same([all("#stop *"), facts(lab), all("#beside *"), shut()], [["Weed bed", "2 of 2"], ["3", "–", "bottom"], [], [false, true, true, true]]);
    await opens(lab, "before");
    same(all("#stop *"), ["Point", "1 of 2"]);
  } },
  "what is thrown again and again stands in one line": {
    data: day({}, { casts: [cast("A", 4), cast("A", 6), cast("A", 6), cast("A", 6), cast("B", 2)] }),
    async run(lab) { lab.same(lab.all("#beside :is(h2, li)"), ["After this, while nothing bites", "A at 6: 3 times.", "B at 2.", "Take care", "Hooks.", "Lead."]); } },
  "what another window threw is taken in while this one rests": { async run(lab) {
    lab.replies.push(["GET /api/v1/next", order([cast("B", 2.5)], { made: 1 })]);
    lab.run_(20000);
    await lab.rest();
    lab.same(facts(lab)[0], "2.5");
    lab.replies.unshift(["GET /api/v1/next", order([cast("A", 9)], { made: 2 })]);
    await opens(lab, "go");
    const asked = lab.asked.length;
    lab.run_(20000);
    await lab.rest();
    lab.same([lab.asked.length, facts(lab)[0]], [asked, "2.5"]);
  } },
  "what was learned stands before the next cast alone": {
    data: day({}, { casts: [cast("A", 4, { rod: "" }), cast("A", 6)], learned: ["Deeper."], move_on: "Move on.", left: "An hour left.",
      mend: { symptom: "It ran high", change: "slow down" } }),
    async run(lab) {
      lab.same(lab.all("#rig *")[0], "0.375 oz swim-jig");
      lab.same(lab.text("why"), "It ran high. Smallest change: slow down. Or search on. Deeper. Move on. An hour left. A at 4.");
      await answer(lab, "nothing");
      lab.same(lab.text("why"), "A at 6.");
    } },
  "another rod can be declined, before the count": {
    data: day({}, { casts: [cast("B", 2, { change: "rod" }), cast("A", 4)], thrown: RIGS.A }), async run(lab) {
      lab.same(lab.by("stay").hidden, false);
      await opens(lab, "go");
      lab.same(lab.by("stay").hidden, true);
      for (let k = 0; k < 2; k += 1) { lab.pass(400); await opens(lab, "go"); }
      lab.same(lab.by("stay").hidden, false);
      await opens(lab, "stay");
      lab.same([lab.all("#rig *")[0], lab.by("stay").hidden], ["Rod A: 0.375 oz swim-jig", true]);
    } },
  "another trailer can be declined for the first cast": {
    data: day({}, { casts: [cast("B", 2, { change: "trailer" }), cast("A", 4, { change: "retie" })], thrown: RIGS.A }), async run(lab) {
      lab.same(lab.by("stay").hidden, false);
      await answer(lab, "nothing");
      lab.same([facts(lab)[0], lab.by("stay").hidden], ["4", true]);
    } },
  "a count is no other rod": { data: day({}, { casts: [cast("A", 2, { change: "count" })], thrown: RIGS.A }),
    async run(lab) { lab.same(lab.by("stay").hidden, true); } },
  "where nothing was thrown nothing is declined": { data: day({}, { casts: [cast("A", 2, { change: "rod" })] }),
    async run(lab) { lab.same(lab.by("stay").hidden, true); } },
  "it counts, a tone a second, a long one on the count, then one a turn": { async run(lab) {
    const seen = async (ms) => {
      lab.pass(ms);
      lab.run_(40);
      await lab.rest();
      return [lab.text("now"), lab.text("what"), lab.by("go").className, lab.tones.splice(0), lab.buzzed.splice(0), lab.awake];
    };
    lab.run_(40);
    await opens(lab, "go");
    lab.same([lab.text("now"), lab.tones.splice(0), lab.buzzed.splice(0)], ["", [520], [60]]);
    lab.same(await seen(0), ["0", "Now", "go counting", [], [], 1]);
    lab.same(await seen(1000), ["1", "Now", "go counting", [520], [], 1]);
    lab.same(await seen(0), ["1", "Now", "go counting", [], [], 1]);
    lab.same(await seen(2000), ["3", "Now", "go counting", [520], [], 1]);
    lab.same(await seen(1039), ["4", "Now", "go counting", [520], [], 1]);
    lab.same(await seen(1), ["4", "In", "go reeling", [1040, 780], [400], 1]);
    lab.same(await seen(1300), ["5", "In", "go reeling", [640], [], 1]);
    lab.same(await seen(0), ["5", "In", "go reeling", [], [], 1]);
    lab.same([await seen(1250), await seen(1250), await seen(1250)].map((s) => s[3]), [[640], [640], [780]]);
    await opens(lab, "go");
    lab.same(await seen(0), ["4.04", "Splash", "go", [], [], 0]);
  } },
  "a screen that was locked in a count is kept on again": { async run(lab) {
    await opens(lab, "go");
    await opens(lab, "water"); // a look elsewhere asks no second time
    lab.same(lab.awake, 1);
    lab.hidden();
    document.dispatchEvent(new Event("visibilitychange"));
    await lab.rest();
    lab.same(lab.awake, 1);
    lab.press("#close");
    await answer(lab, "nothing");
    lab.same(lab.awake, 0);
    document.dispatchEvent(new Event("visibilitychange"));
    await lab.rest();
    lab.same(lab.awake, 0);
    lab.pass(400);
    lab.press("#go");
    lab.pass(800);
    lab.press("[data-outcome=nothing]"); // over before the browser has granted it
    await lab.rest();
    lab.same(lab.awake, 0);
  } },
  "what lands is counted without turns": { async run(lab) {
    await opens(lab, "after");
    await opens(lab, "go");
    lab.pass(2999);
    lab.run_(40);
    lab.same(lab.text("what"), "Now");
    lab.tones.length = 0;
    [1, 2500].forEach((ms) => { lab.pass(ms); lab.run_(40); });
    lab.same([lab.text("what"), lab.text("now"), lab.tones], ["In", "5", [1040]]);
  } },
  "a press too many is none, and a clock put back begins anew": { async run(lab) {
    const said = [];
    for (const ms of [400, 349, 1, 349, 1]) { lab.pass(ms); lab.press("#go"); said.push(lab.text("what")); }
    lab.same(said, ["Now", "Now", "In", "In", "Splash"]);
    lab.pass(400);
    lab.press("#go");
    lab.pass(2000);
    lab.run_(40);
    lab.wall -= 3600000;
    lab.run_(40);
    lab.same(lab.text("now"), "0");
    lab.pass(1000);
    lab.run_(40);
    lab.same(lab.text("now"), "1");
  } },
  "an answer is the cast as it was thrown": { before: takes, async run(lab) {
    await opens(lab, "go");
    [4040, 2260].forEach((ms) => { lab.pass(ms); lab.run_(40); });
    await answer(lab, "bump");
    const [{ id, ...one }] = lab.sent("POST")[0];
    lab.same(one, { time: "2026-04-11T06:12:07.100-05:00", trip: "The day", stop: "Point", family: "swim-jig", head_oz: 0.375,
      trailer: "craw", line: { material: "braid", test_lb: 30 }, countdown_s: 4.04, pace_ft_s: 2, turns_per_s: 0.8,
      rod_tip_height_ft: 2, work: "swim", outcome: "bump", conditions: {}, at_s: 7.1, count_s: 4 });
    lab.same(lab.asked.map((a) => a[1]).at(-1), "/api/v1/next?stop=Point&limit=6&units=imperial");
    lab.same([facts(lab)[0], lab.text("what"), lab.all("#last li"), lab.by("undo").disabled], ["4.04", "Splash", ["06:12 Bump, count 4"], false]);
    lab.same([lab.awake, lab.buzzed], [0, [60, 400, 60]]);
    lab.same(lab.all("#beside :is(h2, li)").slice(2, 5), ["B at 2.", "The day so far", "06:12 Point: Bump, count 4"]);
    await answer(lab, "nothing");
    await opens(lab, "go");
    lab.pass(1260);
    lab.press("#go");
    lab.pass(500);
    await answer(lab, "nothing");
    const [plain, early] = lab.sent("POST").slice(1).map((b) => b[0]);
    lab.same([plain.at_s, plain.count_s, plain.countdown_s], [undefined, undefined, 4.04]);
    lab.same([early.at_s, early.count_s, early.countdown_s, lab.all("#rig *")[0]], [2.6, 1.3, 6, "Rod B: 0.5 oz football-jig"]);
    await opens(lab, "go");
    lab.pass(600000);
    await answer(lab, "nothing");
    lab.same([lab.sent("POST").at(-1)[0].at_s, facts(lab)[0]], [undefined, "2"]); // the last of the order stands
  } },
  "two taps are one answer, and undo takes back the last": { before: takes, async run(lab) {
    const count = () => lab.all("#last li").length;
    const after = async (ms, css) => { lab.pass(ms); lab.press(css); await lab.rest(); return count(); };
    await answer(lab, "nothing");
    lab.same([await after(699, "[data-outcome=bump]"), await after(0, "#undo"), await after(1, "[data-outcome=bump]")], [1, 1, 2]);
    lab.same([await after(699, "#undo"), await after(1, "#undo"), lab.all("#last li")], [2, 1, ["06:12 Nothing, count 4"]]);
    lab.same([lab.sent("POST").length, lab.sent("DELETE").length, facts(lab)[0]], [2, 1, "4.04"]);
    await after(800, "[data-outcome=nothing]");
    await opens(lab, "after");
    lab.same([await after(800, "#undo"), await after(800, "#undo"), await after(800, "#undo")], [1, 0, 0]);
    lab.same([lab.by("undo").disabled, lab.sent("DELETE").length, facts(lab)[0]], [true, 3, "3"]);
  } },
  "the order anew goes in, but late, for another stop or in a count it changes nothing": { before: takes, async run(lab) {
    const hold = [];
    const anew = order([cast("C", 9)]);
    lab.replies.push(["GET", () => new Promise((go) => hold.push(() => go({ answer: anew })))]);
    await answer(lab, "nothing");
    lab.same(facts(lab)[0], "6");
    await opens(lab, "go");
    hold.shift()();
    await lab.rest();
    lab.same([lab.text("what"), facts(lab)[0]], ["Now", "6"]);
    for (let k = 0; k < 2; k += 1) { lab.pass(400); await opens(lab, "go"); }
    await answer(lab, "nothing");
    await opens(lab, "after");
    hold.shift()();
    await lab.rest();
    lab.same(facts(lab), ["3", "–", "bottom"]);
    hold.shift()();
    await lab.rest();
    lab.same(facts(lab)[0], "9");
    await opens(lab, "before");
    lab.same(facts(lab)[0], "4.04");
  } },
  "an answer that is none leaves the order": { before: takes, async run(lab) {
    lab.replies.push(["GET", { casts: [] }, 503]);
    await answer(lab, "nothing");
    lab.same([facts(lab)[0], lab.text("kept")], ["6", "1 cast, all on the laptop."]);
  } },
  "a rod that was picked keeps to its own": { before: takes, async run(lab) {
    await opens(lab, "rig");
    await opens(lab, "inside > button:nth-of-type(2)");
    lab.same([lab.all("#rig *")[0], facts(lab)[0]], ["Rod B: 0.5 oz football-jig", "2"]);
    lab.replies.push(["GET", order([cast("C", 8)], { each_rod: [] })]);
    await answer(lab, "nothing");
    lab.same(lab.asked.at(-1)[1], "/api/v1/next?stop=Point&rig=football-jig%3A0.5%3Achunk&limit=6&units=imperial");
    lab.same(JSON.parse(localStorage.getItem("heathdrop-deck-state")),
      { trip: "The day", stop: 0, at: 0, begun: 0, reeling: 0, rig: RIGS.B });
    lab.same(facts(lab)[0], "2"); // an answer for it alone forgets nothing of the others
    await opens(lab, "rig");
    lab.replies.pop();
    await opens(lab, "inside > button:nth-of-type(1)");
    lab.same(facts(lab)[0], "4.04");
    await opens(lab, "after");
    await opens(lab, "before");
    lab.same(facts(lab)[0], "8"); // at a stop anew whichever the search says
  } },
  "a page loaded again has the day, what waits and what was taken back": {
    data: day({ made: [5, 3, 4, 2].map((h) => old(`m${h}`, h)) }),
    kept: { "heathdrop-deck-state": { trip: "The day", stop: 1, at: 5, begun: 0, reeling: 0, rig: "" },
      "heathdrop-out-000000001-w": { do: "keep", id: "w", cast: old("w", 4, { time: "2026-04-11T04:30:00-05:00", outcome: "x" }) },
      "heathdrop-out-000000002-m3": { do: "withdraw", id: "m3" },
      "heathdrop-out-000000003-o": { do: "keep", id: "o", cast: old("o", 9, { trip: "Another" }) },
      "heathdrop-out-000000004-q": "{half", "heathdrop-out-n": "4" },
    async run(lab) {
      lab.same([lab.all("#stop *")[0], facts(lab)[0]], ["Weed bed", "3"]);
      lab.same(lab.all("#last li"), ["05:00 Bump, count 2.1", "04:30 x, count 2.1 · waits", "04:00 Bump, count 2.1"]);
      lab.same(lab.text("kept"), "No connection to the laptop. 3 kept on this phone, not sent yet.");
      lab.same([lab.all("#beside h2"), lab.all("#beside li").length, lab.all("#beside li")[1]],
        [["The day so far"], 4, "04:30 Point: x, count 2.1"]);
    } },
  "a state of another day is begun anew": { kept: { "heathdrop-deck-state": { trip: "Another", stop: 1 } },
    async run(lab) { lab.same(lab.all("#stop *")[0], "Point"); } },
  "a state at a stop that is none is begun anew": { kept: { "heathdrop-deck-state": { trip: "The day", stop: 2 } },
    async run(lab) { lab.same(lab.all("#stop *")[0], "Point"); } },
  "a state that cannot be read is begun anew": { kept: { "heathdrop-deck-state": "{half" },
    async run(lab) { lab.same(lab.all("#stop *")[0], "Point"); } },
  "a count goes on where it was": { kept: { "heathdrop-deck-state": { trip: "The day", stop: 0, at: 2, begun: Date.parse("2026-04-11T11:11:58Z") } },
    async run(lab) { lab.run_(40); lab.same([lab.text("now"), lab.text("what"), facts(lab)[0]], ["2", "Now", "4.04"]); } },
  "one cast is on the laptop": { data: day({ made: [old("m", 5)] }), before: takes,
    async run(lab) { lab.same(lab.text("kept"), "1 cast, all on the laptop."); } },
  "casts are on the laptop, twelve of them beside": { data: day({ made: Array.from({ length: 14 }, (_, k) => old(`m${k}`, 5)) }), before: takes,
    async run(lab) { lab.same([lab.text("kept"), lab.all("#beside ul:first-of-type li").length], ["14 casts, all on the laptop.", 12]); } },
  "a browser that keeps nothing says so and has it in hand": {
    before() { localStorage.setItem = () => { throw new Error("full"); }; Storage.prototype.setItem = localStorage.setItem; },
    async run(lab) {
      await answer(lab, "nothing");
      lab.same(lab.text("kept"), "No connection to the laptop. 1 kept on this phone, not sent yet. "
        + "This browser keeps nothing: leave the page open.");
      takes(lab);
      await online(lab);
      lab.same(lab.text("kept"), "1 cast, all on the laptop.");
    } },
  "a clock that is off is said and put right": { async run(lab) {
    const off = (s) => {
      lab.replies.length = 0;
      lab.replies.push(["POST", (b) => ({ answer: { kept: b.map((c) => c.id) } }), 200, { Date: new Date(lab.wall + 1000 * s).toUTCString() }]);
    };
    off(121);
    await answer(lab, "nothing");
    lab.same(lab.text("kept"), "1 cast, all on the laptop. This phone's clock is off: casts get the laptop's time.");
    off(119);
    await answer(lab, "nothing");
    lab.same([lab.sent("POST")[1][0].time.slice(0, 19), lab.text("kept")], ["2026-04-11T06:14:01", "2 casts, all on the laptop."]);
  } },
  "what is not taken is sent again, after one second, two, four, to fifteen": { async run(lab) {
    const said = [];
    for (const status of [403, 429, 500, 200]) {
      lab.replies.length = 0;
      lab.replies.push(["POST", { kept: [] }, status]);
      await (said.length ? online(lab) : answer(lab, "nothing"));
      said.push(lab.text("kept").replace(" 1 kept on this phone, not sent yet.", ""));
    }
    lab.same(said, ["This phone is not paired with the laptop any more.", "The laptop cannot keep it now.", "The laptop cannot keep it now.",
      "What answers there is not this laptop."]);
    const after = [];
    for (let k = 0; k < 6; k += 1) { after.push(lab.waits()); await lab.due(lab.waits()[0]); }
    lab.same(after, [[1000], [2000], [4000], [8000], [15000], [15000]]);
    const before = lab.asked.length;
    document.dispatchEvent(new Event("visibilitychange"));
    await lab.rest();
    lab.same([lab.asked.length - before, lab.waits()], [1, [15000]]);
    await online(lab);
    lab.same(lab.waits(), [1000]);
    takes(lab);
    lab.replies.shift();
    await lab.due(1000);
    lab.same([lab.text("kept"), lab.waits()], ["1 cast, all on the laptop.", []]);
  } },
  "operations go in order, fifty casts in a letter": { async run(lab) {
    const { put, waiting, flush } = await lab.module("deck/outbox.js");
    for (let k = 0; k < 60; k += 1) { put({ do: "keep", id: `c${k}`, cast: { id: `c${k}` } }); }
    put({ do: "mend", id: "c1", cast: { id: "c1", x: 1 } });
    put({ do: "withdraw", id: "c2" });
    put({ do: "water", id: "w", form: { name: "wind_mph", stop: "Point" } });
    put({ do: "keep", id: "z", cast: { id: "z" } });
    await lab.rest();
    lab.same(waiting().map((e) => e[0]).filter((_, k) => k % 59 === 0), ["heathdrop-out-000000001-c0", "heathdrop-out-000000060-c59"]);
    takes(lab);
    lab.replies.push(["POST /deck/water", day().stops[0]]);
    lab.asked.length = 0;
    await flush();
    const size = (b) => (Array.isArray(b) ? b.length : b);
    lab.same(lab.asked.map(([m, at, b]) => [m, at, size(b)]).slice(0, 6), [["POST", "/api/v1/casts", 50], ["POST", "/api/v1/casts", 10],
      ["PUT", "/api/v1/casts/c1", { id: "c1", x: 1 }], ["DELETE", "/api/v1/casts/c2", null], ["POST", "/deck/water", { name: "wind_mph", stop: "Point" }],
      ["POST", "/api/v1/casts", 1]]);
    lab.same(waiting(), []);
  } },
  "a yes that names nothing strikes nothing off": { async run(lab) {
    const { put, waiting, flush } = await lab.module("deck/outbox.js");
    const all = [{ do: "mend", id: "m", cast: { id: "m" } }, { do: "withdraw", id: "w" }, { do: "water", id: "x", form: { stop: "Point" } }];
    for (const one of all) {
      lab.replies.length = 0;
      for (const [status, said] of [[200, {}], [404, {}], [200, { kept: [], id: "other", name: "Bay" }]]) {
        lab.replies.unshift(["/", said, status]);
        await put(waiting().length ? { ...one, id: "behind" } : one);
        lab.same([await flush(), waiting()[0][1].id], [false, one.id]);
      }
      lab.replies.unshift(["/", { kept: [one.id, "behind"], id: "w", name: "Point" }]);
      await flush();
      waiting().forEach(([key]) => localStorage.removeItem(key));
    }
  } },
  "one that is refused stands in nobody's way, and goes again when it is asked to": { async run(lab) {
    const { put, refused, waiting, flush } = await lab.module("deck/outbox.js");
    const made = (id) => ({ id, outcome: "fish", head_oz: 0.375, family: "swim-jig", stop: "Bay", time: "2027-04-03T06:12:00Z" });
    ["a", "b", "c"].forEach((id) => put({ do: "keep", id, cast: made(id) }));
    put({ do: "water", id: "w", form: { stop: "Bay", name: "wind_mph", value: "7", token: "old" } });
    await lab.rest();
    lab.asked.length = 0;
    const no = (detail, field, status = 422) => ({ answer: { detail, field }, status });
    lab.replies.push(["POST /deck/water", () => no("An older page.", "token", 403)]);
    lab.replies.push(["POST", (b) => (b.some((c) => c.id === "b") ? no("No b.", "casts") : { answer: { kept: b.map((c) => c.id) } })]);
    lab.same(await flush(), true);
    lab.same(lab.sent("POST").slice(0, 4).map((b) => b.map((c) => c.id)), [["a", "b", "c"], ["a"], ["b"], ["c"]]);
    lab.same(refused().map(([key, o]) => [key, o.detail]), [["heathdrop-refused-000000002-b", "No b."], ["heathdrop-refused-000000004-w", "An older page."]]);
    lab.same([waiting(), lab.text("kept")], [[], "An older page. 2 not kept: see More."]);
    await opens(lab, "more");
    const time = new Date("2027-04-03T06:12:00Z").toTimeString().slice(0, 5);
    lab.same(lab.all("#inside > p").slice(2, 4), [`Not kept: fish on a 0.375 oz swim jig, Bay, ${time}. No b.`,
      "Not kept: wind mph 7 at Bay. An older page."]);
    lab.replies.length = 0;
    lab.replies.push(["POST /deck/water", (form) => ({ answer: { ...day().stops[0], name: form.stop } })],
      ["POST", (b) => ({ answer: { kept: b.map((c) => c.id) } })]);
    [...document.querySelectorAll("#inside > button")].find((one) => one.textContent === "Send them again").click();
    await lab.rest();
    lab.same([refused(), waiting()], [[], []]);
  } },
  "one that nobody keeps does not hold up the rest, and what is of the same cast waits behind it": { async run(lab) {
    const { put, waiting, flush } = await lab.module("deck/outbox.js");
    put({ do: "mend", id: "odd", cast: { id: "odd" } });
    put({ do: "withdraw", id: "odd" });
    put({ do: "withdraw", id: "other" });
    await lab.rest();
    lab.asked.length = 0;
    lab.replies.unshift(["PUT", {}, 500], ["DELETE", { id: "other" }]);
    lab.same(await flush(), false);
    lab.same(lab.asked.map(([m, at]) => [m, at]), [["PUT", "/api/v1/casts/odd"], ["DELETE", "/api/v1/casts/other"]]);
    lab.same(waiting().map((e) => [e[1].do, e[1].id]), [["mend", "odd"], ["withdraw", "odd"]]);
    // Where nothing is kept, two are asked and no more.
    put({ do: "withdraw", id: "third" });
    lab.replies.unshift(["DELETE", {}, 404]);
    put({ do: "withdraw", id: "fourth" });
    await lab.rest();
    lab.asked.length = 0;
    lab.same([await flush(), lab.asked.length], [false, 2]);
  } },
  "the panel of stops": { async run(lab) {
    await opens(lab, "stop");
    lab.same([lab.by("panel").open, lab.text("paneltitle"), lab.all("#inside > button"), lab.marked("#inside > button", "aria-current")],
      [true, "Stops", ["Point0 casts here", "Weed bed7 casts here"], ["true", "false"]]);
    lab.press(button(2));
    lab.same([lab.by("panel").open, lab.all("#stop *")[0]], [false, "Weed bed"]);
  } },
  "the panel of rigs": { async run(lab) {
    await opens(lab, "rig");
    lab.same(lab.all("#inside > button"), ["Rod A: A tiedA line", "Rod B: B tiedB line", "Rod C: C tiedC line",
      "Whichever the search saysany rod", "What bit last time", "From my box"]);
    lab.same(lab.marked("#inside > button", "aria-current"), ["true", "false", "false", "false", null, null]);
    const asks = async (n) => { lab.press(button(n)); await lab.rest(); return [lab.all("#inside > button").slice(n), lab.all("#inside [role=alert]")]; };
    lab.same(await asks(6), [[], ["No connection to the laptop: only the rods can be changed now."]]);
    lab.replies.push(["/deck/box", [{ rig: "x:1:y", said: "Mine" }]], ["/deck/last", { detail: "None yet." }, 422],
      ["/deck/typed", [{ rig: "q:1:y", said: "Typed", small: "as typed" }]]);
    lab.same([await asks(6), lab.asked.at(-1)[1]], [[["Minetie it on"], [""]], "/deck/box?stop=Point"]);
    lab.same([await asks(5), lab.asked.at(-1)[1]], [[["From my box"], ["None yet."]], "/deck/last?stop=Point"]);
    lab.type(".typedrig input", "3/8 swim jig");
    lab.by("inside").querySelector("form").requestSubmit();
    await lab.rest();
    lab.same([lab.all("#inside > button").at(-1), lab.asked.at(-1)[1]], ["Typedas typed", "/deck/typed?rig=3%2F8%20swim%20jig"]);
    lab.press(button(7));
    lab.same(JSON.parse(localStorage.getItem("heathdrop-deck-state")).rig, "q:1:y");
    await opens(lab, "rig");
    lab.press(button(4));
    lab.same(JSON.parse(localStorage.getItem("heathdrop-deck-state")).rig, "");
  } },
  "water is stepped, and sent once it stands": {
    data: (() => { const d = day(); d.stops[0].water[0].value = ""; return d; })(), async run(lab) {
      const rows = () => [...document.querySelectorAll("#inside > div")].map((d) => [...d.children].map((e) => e.textContent));
      const change = (label) => lab.press(`[aria-label='${label}']`);
      const forms = () => lab.kept("water").map(({ form }) => [form.name, form.value, form.stop, form.by, form.rig]);
      await opens(lab, "water");
      lab.same(rows(), [["Fish", "–", "? ft", "+"], ["Water (from the sounder)", "–", "61 °F", "+"],
        ["Wind (typed here)", "–", "4 mph", "+"], ["Light", "dim", "sunny"]]);
      change("Fish more");
      lab.same(rows()[0][2], "1 ft");
      ["Fish less", "Fish less", "Fish less"].forEach(change);
      lab.same(rows()[0][2], "0 ft");
      ["Fish more", "Wind less"].forEach(change);
      lab.same([forms(), lab.waits()], [[], [450]]);
      await lab.due(450);
      lab.same(forms(), [["fish_depth_ft", "0.5", "Point", "", ""], ["wind_mph", "3", "Point", "", ""]]);
      lab.press(".words button:nth-of-type(2)");
      lab.same(lab.marked(".words button", "aria-current"), ["false", "true"]);
      change("Water more");
      lab.press("#close");
      await lab.rest();
      lab.same(forms().slice(2).map((f) => f.slice(0, 2)), [["light", "sunny"], ["water_temp_f", "62"]]);
      lab.same(lab.waits().includes(450), false);
      const changed = { ...day().stops[0], water: [row("fish_depth_ft", "Fish", "3", { by: "typed" })], next: order([cast("A", 7)]) };
      lab.replies.push(["POST /deck/water", changed]);
      await opens(lab, "water");
      await online(lab);
      lab.same([rows(), facts(lab)[0]], [[["Fish (typed here)", "–", "3 ft", "+"]], "7"]);
      lab.press("#close");
      await lab.rest();
      await opens(lab, "stop");
      lab.press(button(2));
      await opens(lab, "water");
      change("Water more");
      const other = rows();
      lab.replies.length = 0;
      lab.replies.push(["POST /deck/water", { ...changed, next: order([cast("A", 8)]) }]);
      const { put } = await lab.module("deck/outbox.js");
      await put({ do: "water", id: "w", form: {} });
      lab.same([rows(), facts(lab)[0]], [other, "3"]);
    } },
  "water that is being changed is not redrawn under the finger": { async run(lab) {
    const { put } = await lab.module("deck/outbox.js");
    lab.replies.push(["POST /deck/water", { ...day().stops[0], water: [] }]);
    await opens(lab, "water");
    lab.press("[aria-label='Fish more']");
    await put({ do: "water", id: "w", form: {} });
    lab.same(lab.all("#inside > div").length, 4);
    lab.press("#close");
    await lab.rest();
    await opens(lab, "stop");
    await put({ do: "water", id: "v", form: {} });
    lab.same(lab.text("paneltitle"), "Stops");
  } },
  "a water answered in a count waits for the next cast": { async run(lab) {
    const { put } = await lab.module("deck/outbox.js");
    lab.replies.push(["POST /deck/water", { ...day().stops[0], next: order([cast("A", 7)]) }]);
    await opens(lab, "go");
    await put({ do: "water", id: "w", form: {} });
    lab.same(facts(lab)[0], "4.04");
  } },
  "a fish is written down as it is said": { async run(lab) {
    const keep = async () => { [...document.querySelectorAll("#inside > button")].at(-1).click(); await lab.rest(); };
    const fish = () => lab.kept("mend").at(-1)?.cast.fish;
    const [LENGTH, WEIGHT] = ["[aria-label='Length, in']", "[aria-label='Weight, lb']"];
    const says = [["21", 21, "5", 5], ["21 1/2", 21.5, "5 lb 3 oz", 5.19], ["53 cm", 20.9, "5-3", 5.19], ["53cm", 20.9, "5lbs 8", 5.5],
      ["21,5", 21.5, "2 kg", 4.41], ['20"', 20, "400 g", 0.88], ["20 in", 20, "3 lbs", 3], [".5", 0.5, " 5 LB ", 5]];
    for (const [length, inches, weight, pounds] of says) {
      await answer(lab, "fish");
      lab.type(LENGTH, length);
      lab.type(WEIGHT, weight);
      await keep();
      lab.same([length, weight, fish()], [length, weight, { length_in: inches, weight_lb: pounds }]);
    }
    await answer(lab, "fish");
    lab.type(LENGTH, "");
    for (const [css, text] of [[WEIGHT, "five"], [LENGTH, "4 stone"]]) {
      lab.same(lab.text("paneltitle"), "Fish");
      lab.type(css, text);
      await keep();
      lab.same([lab.by("panel").open, lab.all("#inside [role=status]")], [true, ["Length in inches, weight in lb: 21 1/2, 5 lb 3 oz."]]);
      lab.type(css, "");
    }
    await keep();
    lab.same([lab.by("panel").open, fish()], [false, {}]);
    lab.press("#go");
    lab.pass(3140);
    await answer(lab, "fish");
    const fields = () => lab.values("#inside input");
    lab.same([lab.text("paneltitle"), fields()], ["Fish, bit at 3.9 s", ["14", "14", "", "0"]]);
    lab.same(lab.all(".measured > :not(input)"), ["Length, in", "–", "+", "Weight, lb", "–", "+"]);
    ["Length more", "Weight more", "Weight more"].forEach((label) => lab.press(`[aria-label='${label}']`));
    lab.same(fields(), ["14.5", "14.5", "0.5", "0.5"]);
    for (let k = 0; k < 3; k += 1) { lab.press("[aria-label='Weight less']"); }
    lab.type("[aria-label='Length, dragged']", "20");
    lab.same(fields(), ["20", "20", "", "0"]);
    lab.type(LENGTH, "16");
    lab.same(fields(), ["16", "16", "", "0"]);
    await keep();
    lab.same(fish(), { length_in: 16 });
  } },
  "a fish in centimetres and kilograms": { data: day({ units: "metric" }), async run(lab) {
    await answer(lab, "fish");
    ["Length more", "Weight more"].forEach((label) => lab.press(`[aria-label='${label}']`));
    lab.same(lab.values("#inside input"), ["36", "36", "0.1", "0.1"]);
    lab.type("[aria-label='Weight, kg']", "x");
    [...document.querySelectorAll("#inside > button")].at(-1).click();
    lab.same(lab.all("#inside [role=status]"), ["Length in cm, weight in kg: 53, 1.2."]);
    lab.type("[aria-label='Length, cm']", "53");
    lab.type("[aria-label='Weight, kg']", "2");
    [...document.querySelectorAll("#inside > button")].at(-1).click();
    lab.same(lab.kept("mend")[0].cast.fish, { length_in: 20.9, weight_lb: 4.41 });
  } },
  "what is read seldom is under More": { async run(lab) {
    await opens(lab, "more");
    lab.by("ending").requestSubmit = () => { lab.ended = true; };
    lab.same(lab.all("#inside > p").slice(0, 2), ["Hooks.", "Lead."]);
    lab.same(lab.marked("#inside a", "href"), ["/deck/record", "/log", "/export/casts.csv", "/bottom", "/devices"]);
    lab.press(button(1));
    lab.same([lab.ended, lab.all("#inside > button")[0]], [undefined, "Tap again to end the trip: its casts stay"]);
    lab.press(button(1));
    lab.same(lab.ended, true);
    const sun = () => { lab.press("#decksun"); return [document.documentElement.classList.contains("sun"), lab.marked("#decksun", "aria-pressed")[0]]; };
    lab.same([sun(), sun()], [[true, "true"], [false, "false"]]);
  } },
  "the sounder fills what nobody typed, once a minute": {
    data: day({ instruments: true }),
    before(lab) {
      const live = (value, said, state) => ({ value, said, state: state || "live" });
      lab.feed = { depth_ft: live(12.34, "12.3 ft"), water_temp_f: live(62.04, "62 °F"), wind_mph: live(8.6, "9 mph"),
        pressure_hpa: live(1013.2, "1013 hPa", "stale"), pressure_trend: "falling", position: live({ lat: 50.1, lon: -3.2, x: 1 }) };
      lab.replies.push(["GET /api/v1/feed?units=imperial", () => ({ answer: lab.feed })]);
    },
    async run(lab) {
      const forms = () => lab.kept("water").map(({ form }) => [form.name, form.value, form.by]);
      const again = async (ms) => { lab.pass(ms); lab.run_(2000); await lab.rest(); };
      const thrown = async () => { await answer(lab, "nothing"); return lab.kept("keep").at(-1).cast; };
      lab.same([lab.by("sounder").hidden, lab.all("#sounder span"), lab.marked("#sounder span", "class")], [false,
        ["Depth 12.3 ft live", "Water 62 °F live", "Wind 9 mph live", "1013 hPa falling"], ["feed-live", "feed-live", "feed-live", "feed-stale"]]);
      lab.same(forms(), [["water_temp_f", "62 °F", "sounder"]]); // the wind was typed, the depth is only offered
      await again(59999);
      lab.same(forms().length, 1);
      lab.feed.water_temp_f.value = 61.4; // a degree apart and no less
      await again(1);
      lab.same(forms().length, 1);
      lab.feed.water_temp_f.value = 60;
      await again(0);
      lab.same(forms()[1], ["water_temp_f", "60 °F", "sounder"]);
      const one = await thrown();
      lab.same([one.conditions, one.lat, one.lon, one.x], [{ water_temp_f: 60, wind_mph: 9 }, 50.1, -3.2, undefined]);
      lab.feed.pressure_hpa = { ...lab.feed.pressure_hpa, state: "live" };
      lab.feed.wind_mph.state = lab.feed.position.state = "lost";
      await again(0);
      const two = await thrown();
      lab.same([two.conditions, two.lat], [{ water_temp_f: 60, pressure_hpa: 1013.2 }, undefined]);
      lab.feed.pressure_trend = null;
      await again(0);
      lab.same(lab.all("#sounder span").length, 3);
      lab.replies.length = 0;
      await again(0);
      lab.same(lab.all("#sounder span"), ["Depth – lost", "Water – lost", "Wind – lost"]);
    } },
  "without instruments nothing is asked": { async run(lab) {
    lab.same([lab.by("sounder").hidden, lab.every.map((e) => e.ms)], [true, [40, 20000]]);
    lab.same(lab.asked.map((a) => a[1]), ["/api/v1/next?stop=Point&limit=6&units=imperial"]);
    lab.run_(20000); // what another window threw is asked for while this one rests, and not in a count
    lab.same(lab.asked.length, 2);
    lab.press("#go");
    lab.run_(20000);
    lab.same(lab.asked.length, 2);
  } },
  "a time never goes back, and a name is a uuid": { zone: 150, async run(lab) {
    const { stamp, uuid, heard, skew } = await lab.module("shell/clock.js");
    const at = [];
    const say = () => at.push(Date.parse(stamp()) - Date.parse("2026-04-11T11:12:00Z"));
    say();
    say();
    lab.wall -= 5000;
    say();
    lab.wall -= 86400000;
    say();
    heard("no date");
    heard(null);
    say();
    lab.same(skew(), 0);
    heard(new Date(Date.now() + 7200000).toISOString());
    say();
    lab.same([at, stamp().slice(-6), skew()], [[0, 1, 2, -86405000, -86404999, -79205000], "-02:30", 7200000]);
    const ids = Array.from({ length: 40 }, uuid);
    lab.same([new Set(ids).size, ids.filter((i) => !/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/.test(i))], [40, []]);
  } },
  "a time east of Greenwich": { zone: -330, async run(lab) {
    const { stamp } = await lab.module("shell/clock.js");
    lab.same(stamp(), "2026-04-11T16:42:00.000+05:30");
  } },
};
