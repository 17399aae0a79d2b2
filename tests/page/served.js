/** A server with a copy of the demo, and a browser that looks at it, as a person would. */

import {spawn} from "node:child_process";
import {cpSync, mkdtempSync, readFileSync, rmSync} from "node:fs";
import {tmpdir} from "node:os";
import {dirname, join, resolve} from "node:path";
import {fileURLToPath} from "node:url";
import {chromium} from "playwright-core";

const SOURCE = resolve(dirname(fileURLToPath(import.meta.url)), "../..");
export const GAZE = process.env.GAZE ?? join(SOURCE, "build-release/gaze");

const ARGUMENTS = [
  "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
  "--disable-component-update", "--disable-sync",
];

export async function startBrowser() {
  return chromium.launch({executablePath: "/usr/bin/chromium", headless: true, args: ARGUMENTS});
}

/** A folder of its own with the demo levels in it. */
export function demoFolder() {
  const folder = mkdtempSync(join(tmpdir(), "gaze-page-"));
  cpSync(join(SOURCE, "demo"), folder, {recursive: true});
  return {
    folder,
    /** @param {string} name */
    file: (name) => join(folder, name),
    /** @param {string} name */
    read: (name) => readFileSync(join(folder, name), "utf8"),
    remove: () => rmSync(folder, {recursive: true}),
  };
}

/**
 * @param {string} level
 * @param {string[]} [more]
 * @param {string} [state]  Where the secret is kept.
 */
export async function serve(level, more = [], state = dirname(level)) {
  const child = spawn(GAZE, ["play", level, ...more], {env: {...process.env, XDG_RUNTIME_DIR: state}});
  let told = "";
  child.stderr.on("data", (text) => { told += text; });
  /** @type {string} */
  const address = await new Promise((resolve_, reject) => {
    let out = "";
    child.stdout.on("data", (text) => {
      out += text;
      const found = /http:\S+/.exec(out);
      if (found !== null) resolve_(found[0]);
    });
    child.on("exit", () => reject(new Error(`the server ended: ${told}`)));
  });
  return {
    address,
    pid: child.pid ?? 0,
    told: () => told,
    stop: () => new Promise((done) => {
      child.on("exit", done);
      child.kill();
    }),
  };
}

/**
 * Opens a page; whatever it complains of makes the test fail.
 * @param {import("playwright-core").Browser} browser
 * @param {string} address
 * @param {object} [options]
 */
export async function openPage(browser, address, options = {}) {
  const context = await browser.newContext({viewport: {width: 1280, height: 800}, ...options});
  const page = await context.newPage();
  /** @type {string[]} */
  const complaints = [];
  page.on("pageerror", (error) => complaints.push(error.message));
  page.on("console", (message) => { if (message.type() === "error") complaints.push(message.text()); });
  await page.goto(address);
  await page.waitForFunction(() => document.getElementById("name")?.textContent !== "Gaze" && document.getElementById("time")?.textContent !== "");
  return {page, complaints};
}

/** The time that the page shows, seconds. @param {import("playwright-core").Page} page */
export async function timeOf(page) {
  return Number.parseFloat(await page.locator("#time").innerText());
}

/** Plays for some time of the play. @param {import("playwright-core").Page} page @param {number} seconds */
export async function playFor(page, seconds) {
  const until = (await timeOf(page)) + seconds;
  await page.keyboard.press("p");
  await page.waitForFunction((end) => Number.parseFloat(document.getElementById("time")?.textContent ?? "") >= end, until);
  await page.keyboard.press("p");
  await page.waitForFunction(() => document.getElementById("play")?.textContent === "Play");
}

/** Moves the slider to a tick. @param {import("playwright-core").Page} page @param {number} tick */
export async function scrubTo(page, tick) {
  await page.locator("#timeline input").fill(String(tick));
  await page.waitForFunction((seconds) => Math.abs(Number.parseFloat(document.getElementById("time")?.textContent ?? "") - seconds) < 0.002, tick / 60);
}

/** The pixels of the picture. @param {import("playwright-core").Page} page */
export async function picture(page) {
  await page.waitForTimeout(60);
  return page.locator("#picture").screenshot();
}
