/** For everybody: without a violation of accessibility, by keys alone, at twice the text size. */

import assert from "node:assert/strict";
import {readFileSync, writeFileSync} from "node:fs";
import {createRequire} from "node:module";
import {after, before, test} from "node:test";
import {demoFolder, openPage, playFor, serve, startBrowser, timeOf} from "./served.js";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/** @type {import("playwright-core").Browser} */
let browser;
/** @type {ReturnType<typeof demoFolder>} */
let demo;
/** @type {Awaited<ReturnType<typeof serve>>} */
let server;

before(async () => {
  browser = await startBrowser();
  demo = demoFolder();
  server = await serve(demo.file("propagation_house.toml"));
});
after(async () => {
  await browser.close();
  await server.stop();
  demo.remove();
});

/** @param {import("playwright-core").Page} page @param {string} when */
async function expectNoViolation(page, when) {
  await page.evaluate(AXE);
  const found = await page.evaluate(() => /** @type {any} */ (window).axe.run(document));
  const told = found.violations.map((/** @type {any} */ one) => `${one.id}: ${one.nodes.map((/** @type {any} */ node) => node.html).join(" | ")}`);
  assert.deepEqual(told, [], when);
}

test("axe finds no violation on any panel, with a ghost, or with a faulty file", async () => {
  const {page} = await openPage(browser, server.address, {bypassCSP: true});
  await playFor(page, 2);
  for (const tab of ["why", "values", "checks", "events", "takes", "layers"]) {
    await page.locator(`#tab-${tab}`).click();
    await page.waitForTimeout(250);
    await expectNoViolation(page, tab);
  }
  await page.locator("#tab-values").click();
  await page.locator("#value-owner").selectOption("kind.sprinkler");
  await page.locator("#v-kind_sprinkler_sight_range").fill("3");
  await page.keyboard.press("Tab");
  await page.locator("#changes").waitFor();
  await expectNoViolation(page, "with a ghost");
  const text = demo.read("garden_kinds.toml");
  writeFileSync(demo.file("garden_kinds.toml"), `${text}\n[kind`);
  await page.getByRole("alert").filter({hasText: "The file cannot be played"}).waitFor();
  await expectNoViolation(page, "with a faulty file");
  writeFileSync(demo.file("garden_kinds.toml"), text);
  await page.locator("#drop").click();
  await page.context().close();
});

test("everything by keys alone", async () => {
  const {page, complaints} = await openPage(browser, server.address);
  /** Goes on with Tab until something of that name has the focus. @param {string} selector */
  const tabTo = async (selector) => {
    for (let i = 0; i < 80; ++i) {
      await page.keyboard.press("Tab");
      if (await page.evaluate((one) => document.activeElement?.matches(one) ?? false, selector)) return;
    }
    assert.fail(`Tab does not get to ${selector}`);
  };
  await tabTo("#play");
  const begun = await timeOf(page);
  await page.keyboard.press("Enter");
  await page.waitForFunction((was) => Number.parseFloat(document.getElementById("time")?.textContent ?? "") > was + 0.3, begun);
  await page.keyboard.press("Enter");
  await page.waitForFunction(() => document.getElementById("play")?.textContent === "Play");
  await tabTo("#player");
  await tabTo("#picture");
  await tabTo("#tab-why");
  await page.keyboard.press("ArrowRight");
  assert.ok(await page.locator("#panel-values").isVisible());
  await page.keyboard.press("End");
  assert.ok(await page.locator("#panel-layers").isVisible());
  await tabTo("#layer-seen");
  await page.keyboard.press("Space");
  assert.equal(await page.locator("#layer-seen").isChecked(), false);
  await tabTo("#timeline input");
  const before_ = await timeOf(page);
  await page.keyboard.press("ArrowLeft");
  await page.waitForFunction((was) => Number.parseFloat(document.getElementById("time")?.textContent ?? "") < was, before_);
  assert.deepEqual(complaints, []);
  await page.context().close();
});

test("at twice the text size nothing is cut off sideways", async () => {
  const {page} = await openPage(browser, server.address, {viewport: {width: 640, height: 400}, deviceScaleFactor: 2});
  const {scroll, client} = await page.evaluate(() => ({scroll: document.documentElement.scrollWidth, client: document.documentElement.clientWidth}));
  assert.ok(scroll <= client, `${scroll} in ${client}`);
  for (const id of ["play", "picture", "tab-values", "timeline"]) {
    await page.locator(`#${id}`).scrollIntoViewIfNeeded();
    assert.ok(await page.locator(`#${id}`).isVisible(), id);
  }
  await page.context().close();
});
