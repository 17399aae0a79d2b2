/**
 * What the page costs, measured in a browser and in the server:  node bench/page.js [COMMAND]
 * after `npm ci` in tests/page. Prints medians; docs/benchmarks.md has what came of it.
 */

import {readFileSync, writeFileSync} from "node:fs";
import {demoFolder, openPage, serve, startBrowser} from "../tests/page/served.js";

/** 200 agents who look and walk on 60 m x 60 m, among 60 blocks. */
function crowd() {
  let seed = 7;
  const random = (low, high) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return low + (high - low) * (seed / 2147483648);
  };
  let text = `seconds = 600.0
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
[kind.watcher]
team = "caretakers"
sight = { range = 10.0, field_of_view = 110.0 }
move = { speed = 1.5 }
[kind.guest]
team = "visitors"
health = 100000.0
move = { speed = 3.0 }
`;
  for (let i = 0; i < 60; ++i) {
    const [x, y] = [random(1, 58), random(1, 58)];
    const [w, h] = [random(0.5, 3), random(0.5, 3)];
    text += `[[block]]\nid = "block-${i}"\nmaterial = "brick"\nheight = 2.5\noutline = [[${x}, ${y}], [${x + w}, ${y}], [${x + w}, ${y + h}], [${x}, ${y + h}]]\n`;
  }
  for (let i = 0; i < 199; ++i) {
    const [x, y] = [random(0, 60), random(0, 60)];
    text += `[[agent]]\nid = "watcher-${i}"\nkind = "watcher"\nat = [${x}, ${y}]\npatrol = [[${x}, ${y}], [${x + random(-6, 6)}, ${y + random(-6, 6)}]]\n`;
  }
  return `${text}[[agent]]\nid = "guest"\nkind = "guest"\nat = [-2.0, 30.0]\ndriver = "host"\n`;
}

const median = (values) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Notes when messages come, before the page sees them. */
function watchMessages() {
  const log = [];
  window.log = log;
  const Original = window.WebSocket;
  window.WebSocket = class extends Original {
    constructor(...rest) {
      super(...rest);
      window.socket = this;
      this.addEventListener("message", (event) => {
        const name = typeof event.data === "string" ? JSON.parse(event.data).tell : "frame";
        log.push({name, at: performance.now(), of: typeof event.data === "string" ? 0 : new Uint8Array(event.data)[0], bytes: event.data.byteLength ?? event.data.length});
      });
    }
  };
}

async function opened(browser, address) {
  const context = await browser.newContext({viewport: {width: 1280, height: 800}});
  const page = await context.newPage();
  await page.addInitScript(watchMessages);
  await page.goto(address);
  await page.waitForTimeout(1500);
  return page;
}

async function frames(page) {
  await page.keyboard.press("p");
  await page.waitForTimeout(1000);
  return page.evaluate(async () => {
    window.log.length = 0;
    const gaps = [];
    let last = performance.now();
    const end = last + 5000;
    while (last < end) {
      await new Promise((done) => requestAnimationFrame(done));
      const now = performance.now();
      gaps.push(now - last);
      last = now;
    }
    const moments = window.log.filter((one) => one.of === 2);
    return {gaps, moments: moments.map((one) => one.at), bytes: moments.reduce((sum, one) => sum + one.bytes, 0) / moments.length};
  });
}

async function keyToPicture(page) {
  const times = [];
  for (const key of ["d", "a", "w", "s", "d", "a", "w", "s", "d", "a"]) {
    await page.waitForTimeout(150);
    await page.evaluate(() => {
      window.taken = new Promise((done) => addEventListener("keydown", () => {
        const begun = performance.now();
        window.log.length = 0;
        // The second frame after the key shows a step that was made after it; then it is painted.
        const look = () => {
          const seen = window.log.filter((one) => one.of === 2 && one.at > begun);
          if (seen.length >= 2) requestAnimationFrame(() => done(performance.now() - begun));
          else requestAnimationFrame(look);
        };
        look();
      }, {once: true}));
    });
    await page.keyboard.down(key);
    times.push(await page.evaluate(() => window.taken));
    await page.keyboard.up(key);
  }
  return times;
}

async function valueAnswered(page) {
  const times = [];
  for (let i = 0; i < 7; ++i) {
    times.push(await page.evaluate(async (value) => {
      window.log.length = 0;
      const begun = performance.now();
      window.socket.send(JSON.stringify({do: "try", path: "kind.pruner.sight.range", value}));
      while (!window.log.some((one) => one.name === "changes")) await new Promise((done) => setTimeout(done, 1));
      return performance.now() - begun;
    }, String(5 + i * 0.25)));
  }
  return times;
}

async function stepTo(page, seconds) {
  await page.evaluate(async (ticks) => {
    for (let left = ticks; left > 0; left -= 1000) {
      window.log.length = 0;
      window.socket.send(JSON.stringify({do: "step", ticks: Math.min(left, 1000)}));
      while (!window.log.some((one) => one.name === "state")) await new Promise((done) => setTimeout(done, 1));
    }
  }, seconds * 60);
}

const memory = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))[1]) / 1024;
const processor = (pid) => {
  const parts = readFileSync(`/proc/${pid}/stat`, "utf8").split(") ")[1].split(" ");
  return (Number(parts[11]) + Number(parts[12])) / 100;
};

if (process.argv[2] !== undefined) process.env.GAZE = process.argv[2];
const browser = await startBrowser();
const demo = demoFolder();
writeFileSync(demo.file("crowd.toml"), crowd());

{
  const server = await serve(demo.file("crowd.toml"));
  const page = await opened(browser, server.address);
  const before = processor(server.pid);
  const {gaps, moments, bytes} = await frames(page);
  const between = moments.slice(1).map((at, i) => at - moments[i]);
  console.log(`200 agents: a picture every ${median(gaps).toFixed(1)} ms, the slowest of a hundred ${gaps[Math.floor(gaps.length * 0.99)].toFixed(1)} ms`);
  console.log(`  a new moment every ${median(between).toFixed(1)} ms, ${(bytes / 1024).toFixed(0)} kB each; the server used ${((processor(server.pid) - before) / 6 * 100).toFixed(0)} % of a core`);
  console.log(`  from key to picture: ${median(await keyToPicture(page)).toFixed(0)} ms`);
  await server.stop();
}
{
  const server = await serve(demo.file("propagation_house.toml"));
  const page = await opened(browser, server.address);
  await page.keyboard.press("p");
  console.log(`demo: from key to picture: ${median(await keyToPicture(page)).toFixed(0)} ms`);
  await page.keyboard.press("p");
  await stepTo(page, 60);
  console.log(`  a changed value after a minute of play is answered in ${median(await valueAnswered(page)).toFixed(0)} ms`);
  await page.evaluate(() => window.socket.send(JSON.stringify({do: "drop_values"})));
  await stepTo(page, 3540);
  console.log(`  after an hour of play: ${memory(server.pid).toFixed(0)} MB`);
  await page.waitForTimeout(1000);
  const idle = processor(server.pid);
  await page.waitForTimeout(5000);
  console.log(`  paused: ${((processor(server.pid) - idle) / 5 * 100).toFixed(1)} % of a core`);
  await server.stop();
}
await browser.close();
demo.remove();
