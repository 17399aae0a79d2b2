/** A replay: one file, from disk, without a server and without a network. */

import assert from "node:assert/strict";
import {execFileSync} from "node:child_process";
import {readFileSync, statSync} from "node:fs";
import {after, before, test} from "node:test";
import {GAZE, demoFolder, openPage, picture, scrubTo, startBrowser} from "./served.js";

/** @type {import("playwright-core").Browser} */
let browser;
/** @type {ReturnType<typeof demoFolder>} */
let demo;

before(async () => {
  browser = await startBrowser();
  demo = demoFolder();
});
after(async () => {
  await browser.close();
  demo.remove();
});

test("each demo level fits into 2 MB and asks nobody for anything", async () => {
  for (const level of ["propagation_house", "terraces", "proving_ground", "sense_rooms", "root_cellar"]) {
    const file = demo.file(`${level}.html`);
    execFileSync(GAZE, ["replay", demo.file(`${level}.toml`), "--output", file]);
    assert.ok(statSync(file).size < 2_000_000, `${level}: ${statSync(file).size} bytes`);
    const text = readFileSync(file, "utf8").replaceAll("http://www.w3.org/2000/svg", "");
    assert.doesNotMatch(text, /https?:\/\//, level);
    const {page, complaints} = await openPage(browser, `file://${file}`, {offline: true});
    /** @type {string[]} */
    const asked = [];
    page.on("request", (request) => { if (!request.url().startsWith("data:")) asked.push(request.url()); });
    await scrubTo(page, 60);
    await picture(page);
    assert.deepEqual(asked, [], level);
    assert.deepEqual(complaints, [], level);
    await page.context().close();
  }
});

test("it is scrubbed and asked, and says what gaze why says", async () => {
  const file = demo.file("propagation_house.html");
  const {page, complaints} = await openPage(browser, `file://${file}`, {offline: true});
  await page.locator("#why-agent").selectOption("pruner-1");
  await page.locator("#why-other").selectOption("collector");
  const ask = (/** @type {string} */ at) => JSON.parse(execFileSync(GAZE, ["why", demo.file("propagation_house.toml"), "--agent", "pruner-1", "--other", "collector", "--at", at, "--json"], {encoding: "utf8"})).reason;
  for (const seconds of [4, 9, 20]) {
    await scrubTo(page, seconds * 60);
    const reason = ask(String(seconds));
    await page.waitForFunction((wanted) => document.getElementById("why-body")?.textContent?.includes(wanted), reason);
  }
  await scrubTo(page, 120);
  const there = await picture(page);
  await scrubTo(page, 600);
  assert.notDeepEqual(await picture(page), there);
  await scrubTo(page, 120);
  assert.deepEqual(await picture(page), there);
  assert.ok(await page.locator("#hand").isHidden(), "nobody is played");
  await page.locator("#picture").focus();
  await page.keyboard.press("p");
  await page.waitForFunction(() => Number.parseFloat(document.getElementById("time")?.textContent ?? "") > 2.5);
  assert.deepEqual(complaints, []);
  await page.context().close();
});
