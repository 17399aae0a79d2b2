/** The page as a person uses it: keys, pointer, values, files, in a real browser. */

import assert from "node:assert/strict";
import {execFileSync} from "node:child_process";
import {existsSync, readFileSync, statSync, writeFileSync} from "node:fs";
import {after, afterEach, before, beforeEach, test} from "node:test";
import {GAZE, demoFolder, openPage, picture, playFor, scrubTo, serve, startBrowser, timeOf} from "./served.js";

/** @type {import("playwright-core").Browser} */
let browser;
/** @type {ReturnType<typeof demoFolder>} */
let demo;
/** @type {Awaited<ReturnType<typeof serve>>} */
let server;
/** @type {import("playwright-core").Page} */
let page;
/** @type {string[]} */
let complaints;

before(async () => { browser = await startBrowser(); });
after(async () => { await browser.close(); });
beforeEach(async () => {
  demo = demoFolder();
  server = await serve(demo.file("propagation_house.toml"));
  ({page, complaints} = await openPage(browser, server.address));
});
afterEach(async () => {
  assert.deepEqual(complaints, []);
  await page.context().close();
  await server.stop();
  demo.remove();
});

/** What somebody did: its places by time, from a take. @param {string} name */
async function placesOf(name) {
  await page.locator("#tab-takes").click();
  await page.locator("#take-name").fill(name);
  await page.locator("#save-take").click();
  await page.waitForFunction((wanted) => [...document.querySelectorAll("#take-list option")].some((one) => one.textContent === wanted), name);
  const [head, ...lines] = demo.read(`${name}.csv`).trim().split("\n").map((line) => line.split(","));
  const [time, x, y] = ["time", "x", "y"].map((column) => head.indexOf(column));
  return lines.map((line) => ({time: Number(line[time]), x: Number(line[x]), y: Number(line[y])}));
}

test("keys steer who is played, and let go gives it back to its script", async () => {
  await page.keyboard.press("p");
  await page.waitForTimeout(200);
  await page.keyboard.down("d");
  await page.waitForTimeout(800);
  await page.keyboard.up("d");
  await page.keyboard.down("ArrowDown");
  await page.waitForTimeout(500);
  await page.keyboard.up("ArrowDown");
  await page.keyboard.press("p");
  assert.ok(await page.getByRole("button", {name: "Let go"}).isEnabled());
  const places = await placesOf("by-keys");
  const step = 3.0 / 60;  // of a collector, metres
  const moves = places.slice(1).map((place, i) => ({x: place.x - places[i].x, y: place.y - places[i].y}));
  const isWay = (/** @type {number} */ x, /** @type {number} */ y) => (/** @type {{x: number, y: number}} */ move) =>
    Math.abs(move.x - x * step) < 1e-9 && Math.abs(move.y - y * step) < 1e-9;
  const east = moves.findIndex(isWay(1, 0));
  const south = moves.findIndex(isWay(0, -1));
  assert.ok(east >= 0 && south > east, "first east, then south");
  assert.ok(moves.filter(isWay(1, 0)).length > 20 && moves.filter(isWay(0, -1)).length > 10);
  await page.getByRole("button", {name: "Let go"}).click();
  await page.waitForFunction(() => /** @type {HTMLButtonElement} */ (document.querySelector("#hand button"))?.disabled);
});

test("a key that is held when play begins counts from then on", async () => {
  await page.keyboard.down("d");
  await page.keyboard.press("p");
  await page.waitForTimeout(600);
  await page.keyboard.press("p");
  await page.keyboard.up("d");
  const places = await placesOf("held");
  assert.ok(places[places.length - 1].x > places[0].x + 0.5, JSON.stringify(places[places.length - 1]));
});

test("the pointer aims, a button and space fire, G throws", async () => {
  await page.keyboard.press("p");
  await page.keyboard.press("d");
  await page.locator("#picture").hover({position: {x: 500, y: 300}});
  await page.mouse.down();
  await page.waitForTimeout(300);
  await page.mouse.up();
  await page.keyboard.press("g");
  await page.waitForTimeout(600);
  await page.keyboard.press("p");
  await page.locator("#tab-events").click();
  await page.waitForFunction(() => document.getElementById("panel-events")?.textContent?.includes("collector fired pebble"));
  const text = await page.locator("#panel-events").innerText();
  assert.match(text, /collector fired pebble/);
});

test("time: pause, step, scrub, play on differently, from the start", async () => {
  await playFor(page, 5);
  const end = await timeOf(page);
  await page.keyboard.press(".");
  await page.waitForFunction((was) => Number.parseFloat(document.getElementById("time")?.textContent ?? "") > was, end);
  assert.ok(Math.abs((await timeOf(page)) - end - 1 / 60) < 0.002);
  await scrubTo(page, 120);
  const before_ = await picture(page);
  await scrubTo(page, 60);
  assert.notDeepEqual(await picture(page), before_);
  await scrubTo(page, 120);
  assert.deepEqual(await picture(page), before_, "going back shows the very same");
  await page.locator("#picture").focus();
  await page.keyboard.press("p");
  await page.keyboard.down("a");
  await page.waitForTimeout(300);
  await page.keyboard.up("a");
  await page.keyboard.press("p");
  await page.locator("#changed").waitFor();
  assert.ok((await timeOf(page)) < end, "what came later is forgotten");
  await page.keyboard.press("r");
  await page.waitForFunction(() => document.getElementById("time")?.textContent?.startsWith("0.000"));
});

test("why: two clicks show the numbers that gaze why has", async () => {
  await playFor(page, 4);
  await scrubTo(page, 240);
  await page.locator("#why-agent").selectOption("pruner-1");
  await page.locator("#why-other").selectOption("collector");
  await page.waitForFunction(() => document.querySelector("#why-body caption")?.textContent?.startsWith("pruner-1"));
  const said = JSON.parse(execFileSync(GAZE, ["why", demo.file("propagation_house.toml"), "--agent", "pruner-1", "--other", "collector", "--at", "4", "--json"], {encoding: "utf8"}));
  const text = await page.locator("#why-body").innerText();
  assert.ok(text.includes(said.reason), text);
  assert.ok(text.includes(`${said.tests[0].value.toFixed(2)} m`), text);
  assert.ok(text.includes(said.it_would_take.text), text);
  await page.waitForSelector("#plot svg");
  assert.equal(await page.locator("#plot svg").count(), 4);
  // By pointer: the one that is clicked first is asked about, the second is the other.
  const box = await page.locator("#picture").boundingBox();
  assert.ok(box !== null);
  await page.mouse.click(box.x + box.width / 2, box.y + 5);
  assert.equal(await page.locator("#why-agent").inputValue(), "pruner-1", "nobody is there");
});

test("values: tried on the same play, kept in the file, taken back", async () => {
  await playFor(page, 5);
  const files = ["propagation_house.toml", "garden_kinds.toml"];
  const texts = files.map((file) => demo.read(file));
  await page.locator("#tab-values").click();
  await page.locator("#value-owner").selectOption("kind.sprinkler");
  await page.locator("#v-kind_sprinkler_sight_range").fill("3");
  await page.keyboard.press("Tab");
  await page.waitForFunction(() => document.getElementById("tried")?.textContent?.includes("kind.sprinkler.sight.range = 3"));
  assert.match(await page.locator("#changes").innerText(), /sprinkler-1/);
  assert.deepEqual(files.map((file) => demo.read(file)), texts, "nothing is written yet");
  await page.locator("#keep").click();
  await page.waitForFunction(() => document.getElementById("tried")?.textContent === "");
  const [house, kinds] = files.map((file) => demo.read(file));
  assert.equal(house, texts[0]);
  const changed = kinds.split("\n").filter((line, i) => line !== texts[1].split("\n")[i]);
  assert.deepEqual(changed, ["range = 3.0"]);
  await page.locator("#undo").click();
  await page.waitForFunction(() => /** @type {HTMLButtonElement} */ (document.getElementById("undo")).disabled);
  assert.deepEqual(files.map((file) => demo.read(file)), texts, "to the byte");
});

test("a value of one agent alone gets a line of its own in the file", async () => {
  const before_ = demo.read("propagation_house.toml");
  await page.locator("#tab-values").click();
  await page.locator("#value-owner").selectOption("agent.sprinkler-1");
  await page.locator("#v-agent_sprinkler-1_sight_range").fill("4.5");
  await page.keyboard.press("Tab");
  await page.waitForFunction(() => document.getElementById("tried")?.textContent?.includes("agent.sprinkler-1.sight.range = 4.5"));
  await page.locator("#keep").click();
  await page.waitForFunction(() => document.getElementById("tried")?.textContent === "");
  const lines = before_.split("\n");
  const added = demo.read("propagation_house.toml").split("\n").filter((line) => !lines.includes(line));
  assert.deepEqual(added, ["sight.range = 4.5"]);
});

test("values that cannot be are refused with the reason", async () => {
  await page.locator("#tab-values").click();
  await page.locator("#value-owner").selectOption("kind.pruner");
  await page.locator("#v-kind_pruner_sight_range").fill("-3");
  await page.keyboard.press("Tab");
  await page.getByRole("alert").filter({hasText: "sight.range"}).waitFor();
  assert.equal(await page.locator("#tried").innerText(), "");
});

test("the file: saved elsewhere it is played anew, faults are shown, the last good level goes on", async () => {
  await playFor(page, 3);
  const file = demo.file("garden_kinds.toml");
  const text = readFileSync(file, "utf8");
  writeFileSync(file, text.replace("\nrange = 9.0", "\nrange = 4.0"));
  await page.locator("#changed").waitFor();
  const time = await timeOf(page);
  writeFileSync(file, text.replace("\nrange = 9.0", "\nrange = nine"));
  const alert = page.getByRole("alert").filter({hasText: "The file cannot be played"});
  await alert.waitFor();
  assert.match(await alert.innerText(), /garden_kinds\.toml:\d+:\d+: .*\n?.*range = nine/s);
  await page.locator("#picture").focus();
  await playFor(page, 0.5);
  assert.ok((await timeOf(page)) > time, "the last good level goes on");
  writeFileSync(file, text);
  await alert.waitFor({state: "hidden"});
});

test("checks: figures, expectations and findings, live, and places", async () => {
  await page.locator("#tab-checks").click();
  await page.waitForFunction(() => document.querySelectorAll("#expectations li").length === 3);
  await playFor(page, 5);
  const figures = await page.locator("#figures").innerText();
  assert.match(figures, /collector\.first-noticed\s+\d/);
  const before_ = await picture(page);
  await page.locator("#findings button").first().click();
  assert.notDeepEqual(await picture(page), before_, "the place is marked");
  await page.locator("#figures button").first().click();
  await page.waitForFunction(() => Number.parseFloat(document.getElementById("time")?.textContent ?? "") < 5);
});

test("takes: saved beside the level, loaded, and played as they were", async () => {
  await page.keyboard.press("p");
  await page.keyboard.down("d");
  await page.waitForTimeout(700);
  await page.keyboard.up("d");
  await page.keyboard.press("p");
  const played = await placesOf("evening-3");
  assert.ok(existsSync(demo.file("evening-3.csv")));
  await page.locator("#take-list").selectOption("evening-3");
  await page.locator("#load-take").click();
  await page.waitForFunction(() => document.getElementById("time")?.textContent?.startsWith("0.000"));
  await page.locator("#picture").focus();
  await playFor(page, played[played.length - 1].time - 0.05);
  const again = await placesOf("again");
  for (let i = 0; i < Math.min(again.length, played.length); ++i) {
    assert.ok(Math.hypot(again[i].x - played[i].x, again[i].y - played[i].y) < 1e-9, `at ${again[i].time}`);
  }
  await page.locator("#take-name").fill("../elsewhere");
  await page.locator("#save-take").click();
  await page.getByRole("alert").filter({hasText: "a take is named by"}).waitFor();
});

test("layers are switched, the picture is moved, zoomed and fitted", async () => {
  await playFor(page, 1);
  const whole = await picture(page);
  await page.locator("#tab-layers").click();
  await page.locator("#layer-seen").uncheck();
  const without = await picture(page);
  assert.notDeepEqual(without, whole);
  await page.locator("#layer-seen").check();
  assert.deepEqual(await picture(page), whole);
  await page.locator("#overlay-agent").selectOption("pruner-1");
  await page.locator("#overlay-what").selectOption("mesh");
  await page.locator("#overlay-names li").filter({hasText: "ground"}).waitFor();
  assert.notDeepEqual(await picture(page), whole);
  await page.locator("#overlay-what").selectOption("");
  await page.waitForFunction(() => document.querySelectorAll("#overlay-names li").length === 0);
  await page.getByRole("button", {name: "Nearer"}).click();
  const near = await picture(page);
  assert.notDeepEqual(near, whole);
  await page.keyboard.down("Alt");
  await page.locator("#picture").hover({position: {x: 300, y: 300}});
  await page.mouse.down();
  await page.mouse.move(500, 400);
  await page.mouse.up();
  await page.keyboard.up("Alt");
  assert.notDeepEqual(await picture(page), near);
  await page.locator("#picture").focus();
  await page.keyboard.press("f");
  await page.mouse.move(1000, 700);
  const again = await picture(page);
  await page.keyboard.press("f");
  assert.deepEqual(await picture(page), again);
});

test("two pages on one level see one play", async () => {
  const other = await openPage(browser, server.address);
  await playFor(page, 1);
  await other.page.waitForFunction((time) => document.getElementById("time")?.textContent?.startsWith(time), (await timeOf(page)).toFixed(3));
  assert.deepEqual(other.complaints, []);
  await other.page.context().close();
});

test("a server that goes is told of, and the page comes back with it", async () => {
  const port = new URL(server.address).port;
  const secret = demo.file("gaze-page-secret");
  assert.equal(statSync(secret).mode & 0o777, 0o600, "nobody else can read it");
  assert.ok(server.address.endsWith(`/${readFileSync(secret, "utf8")}/`));
  await playFor(page, 0.5);
  await server.stop();
  await page.locator("#link").filter({hasText: "Gaze has gone"}).waitFor();
  server = await serve(demo.file("propagation_house.toml"), ["--port", port]);
  await page.waitForFunction(() => document.getElementById("link")?.textContent === "");
  await page.waitForFunction(() => document.getElementById("time")?.textContent?.startsWith("0.000"));
  complaints.length = 0;  // of the connections that failed meanwhile
  await playFor(page, 0.5);
});

/** Seconds of processor time of the server so far. */
function processorTime() {
  const parts = readFileSync(`/proc/${server.pid}/stat`, "utf8").split(") ")[1].split(" ");
  return (Number(parts[11]) + Number(parts[12])) / 100;
}

test("left alone the play ends with the level, and then nothing is busy", async () => {
  await page.locator("#tab-checks").click();
  await page.waitForFunction(() => document.querySelectorAll("#expectations li").length === 3);
  for (let i = 0; i < 5; ++i) await page.getByRole("button", {name: "Faster"}).click();
  await page.locator("#picture").focus();
  await page.keyboard.press("p");
  await page.waitForFunction(() => document.getElementById("time")?.textContent?.startsWith("28.000"), null, {timeout: 60_000});
  await page.waitForFunction(() => document.getElementById("play")?.textContent === "Play");
  const before_ = processorTime();
  await page.waitForTimeout(4000);
  assert.ok(processorTime() - before_ < 0.2, `${processorTime() - before_} s of 4 s`);
});
