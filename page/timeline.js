/**
 * The timeline: a row for each agent with its events, and a slider to any moment.
 *
 * @typedef {{tick: number, agent: string, what: string, other?: string, text: string}} GameEvent
 */

import {byId, make, makeSvg, seconds} from "./dom.js";

const ROW = 15;  // pixels
const SCALE = 15;
const NAMES = 110;
/** What is worth a mark of its own; the rest is a thin line. @type {Record<string, string>} */
const SIGNS = {noticed: "eye", hurt: "cross", defeated: "box", attacked: "tick", fired: "tick", heard: "ring", lost: "gap"};

export class Timeline {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.talk = talk;
    /** @type {GameEvent[]} */
    this.events = [];
    this.rate = 60;
    this.state = {tick: 0, end: 0, length: 0};
    /** @type {string[]} */
    this.agents = [];
    this.isOld = false;
    this.svg = makeSvg("svg", {role: "img", "aria-label": "Events by agent over time"});
    this.slider = make("input", {type: "range", min: "0", max: "1", step: "1", value: "0", "aria-label": "Moment"});
    this.slider.addEventListener("input", () => talk.say({do: "go_to", tick: Number(this.slider.value)}));
    byId("timeline").append(make("div", {className: "rows", tabIndex: 0, role: "group", "aria-label": "Events by agent"}, []), this.slider);
    byId("timeline").querySelector(".rows")?.append(this.svg);
    this.svg.addEventListener("click", (event) => this.goToClick(/** @type {MouseEvent} */ (event)));
    talk.on("level", (level) => this.takeLevel(level));
    talk.on("state", (state) => this.takeState(state));
    talk.on("events", (message) => this.takeEvents(message));
    new ResizeObserver(() => this.draw()).observe(byId("timeline"));
  }

  /** @param {any} level */
  takeLevel(level) {
    this.rate = level.ticks_per_second;
    this.agents = level.agents.filter((/** @type {any} */ agent) => !agent.is_thing)
      .map((/** @type {any} */ agent) => agent.id);
    this.events = [];
    this.draw();
  }

  /** @param {any} state */
  takeState(state) {
    const wasLonger = this.last();
    this.state = state;
    this.slider.max = String(this.last());
    this.slider.value = String(state.tick);
    this.slider.setAttribute("aria-valuetext", seconds(state.seconds));
    if (this.last() !== wasLonger) this.draw(); else this.moveCursor();
  }

  /** @param {any} message */
  takeEvents(message) {
    this.events.length = message.from;
    this.events.push(...message.list);
    this.draw();
  }

  /** The last tick of the scale: the level's length, and longer if play is. */
  last() {
    return Math.max(this.state.end, Math.round(this.state.length * this.rate), 1);
  }

  wide = 100;

  width() {
    return this.wide;
  }

  /** @param {number} tick */
  xOf(tick) {
    return NAMES + (tick / this.last()) * (this.width() - NAMES - 8);
  }

  /** @param {MouseEvent} event */
  goToClick(event) {
    const x = event.clientX - this.svg.getBoundingClientRect().left;
    const tick = ((x - NAMES) / (this.width() - NAMES - 8)) * this.last();
    this.talk.say({do: "go_to", tick: Math.max(0, Math.round(tick))});
  }

  draw() {
    if (this.isOld) return;
    this.isOld = true;
    setTimeout(() => { this.isOld = false; this.paint(); }, 120);
  }

  paint() {
    this.wide = Math.max(100, this.svg.getBoundingClientRect().width);
    const rows = this.agents;
    const height = rows.length * ROW + SCALE;
    this.svg.setAttribute("height", String(height));
    /** @type {Node[]} */
    const parts = [];
    this.addScale(parts, height);
    rows.forEach((agent, i) => {
      const y = SCALE + i * ROW + ROW / 2;
      parts.push(makeSvg("text", {x: 0, y: y + 4}, [agent.length > 16 ? `${agent.slice(0, 15)}\u2026` : agent]));
      parts.push(makeSvg("line", {x1: NAMES, x2: this.width() - 8, y1: y, y2: y, stroke: "currentColor", "stroke-opacity": 0.2}));
      this.addEvents(parts, agent, y);
    });
    this.cursor = makeSvg("line", {y1: SCALE - 3, y2: height, stroke: "currentColor", "stroke-width": 2});
    parts.push(this.cursor);
    this.svg.replaceChildren(...parts);
    // Its knob, 16 pixels wide, stands below the moment.
    this.slider.style.marginLeft = `${NAMES - 8}px`;
    this.slider.style.width = `${this.width() - NAMES - 8 + 16}px`;
    this.moveCursor();
  }

  moveCursor() {
    const x = this.xOf(this.state.tick);
    this.cursor?.setAttribute("x1", String(x));
    this.cursor?.setAttribute("x2", String(x));
  }

  /** @param {Node[]} parts @param {number} height */
  addScale(parts, height) {
    const all = this.last() / this.rate;
    const step = [1, 2, 5, 10, 20, 60, 120, 300, 600, 1800].find((one) => all / one <= 12) ?? 3600;
    for (let at = 0; at <= all + 1e-9; at += step) {
      const x = this.xOf(at * this.rate);
      parts.push(makeSvg("line", {x1: x, x2: x, y1: SCALE, y2: height, stroke: "currentColor", "stroke-opacity": 0.15}));
      parts.push(makeSvg("text", {x, y: 11, "text-anchor": at === 0 ? "start" : at + step > all ? "end" : "middle"}, [`${at} s`]));
    }
  }

  /** One path for each sort of sign, and one sign for each pixel. @param {Node[]} parts @param {string} agent @param {number} y */
  addEvents(parts, agent, y) {
    /** @type {Map<string, string>} */
    const paths = new Map();
    const seen = new Set();
    for (const event of this.events) {
      if (event.agent !== agent) continue;
      const sign = SIGNS[event.what] ?? "thin";
      const x = Math.round(this.xOf(event.tick));
      if (seen.has(`${sign} ${x}`)) continue;
      seen.add(`${sign} ${x}`);
      paths.set(sign, (paths.get(sign) ?? "") + signPath(sign, x, y));
    }
    for (const [sign, path] of paths) {
      const isFilled = sign === "eye" || sign === "box";
      parts.push(makeSvg("path", {d: path, fill: isFilled ? signColour(sign) : "none", stroke: signColour(sign), "stroke-width": sign === "thin" ? 1 : 1.8, "stroke-opacity": sign === "thin" ? 0.45 : 1}));
    }
  }
}

/** @param {string} sign */
function signColour(sign) {
  if (sign === "eye") return "var(--alert)";
  return sign === "cross" || sign === "box" ? "var(--stopped)" : "currentColor";
}

/** @param {string} sign @param {number} x @param {number} y */
function signPath(sign, x, y) {
  switch (sign) {
    case "eye": return `M${x - 5} ${y}L${x} ${y - 5}L${x + 5} ${y}L${x} ${y + 5}Z`;
    case "cross": return `M${x - 3} ${y - 4}L${x + 3} ${y + 4}M${x - 3} ${y + 4}L${x + 3} ${y - 4}`;
    case "box": return `M${x - 4} ${y - 5}h8v10h-8Z`;
    case "ring": return `M${x - 3} ${y}a3 3 0 1 0 6 0a3 3 0 1 0 -6 0`;
    case "gap": return `M${x - 4} ${y - 4}v8M${x + 4} ${y - 4}v8`;
    case "tick": return `M${x} ${y - 5}v5`;
    default: return `M${x} ${y - 3}v6`;
  }
}
