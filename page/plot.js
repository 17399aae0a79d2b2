/** A plot of what one agent measures of another over the play, with the moment in it. */

import {make, makeSvg} from "./dom.js";

const [WIDE, TALL, LEFT] = [360, 62, 4];
/** @type {{key: string, label: string, unit: string}[]} */
const LINES = [
  {key: "distance", label: "distance", unit: "m"},
  {key: "angle", label: "off its sight", unit: "\u00b0"},
  {key: "visible", label: "visible", unit: "%"},
  {key: "evidence", label: "evidence", unit: "%"},
];

export class Plot {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.panel = make("div", {id: "plot"});
    /** @type {any} */
    this.history = null;
    this.tick = 0;
    this.talk = talk;
    talk.on("history", (message) => { this.history = message; this.draw(); });
    talk.on("state", (state) => { this.tick = state.tick; this.moveCursor(); });
    talk.on("level", () => { this.history = null; this.panel.replaceChildren(); });
    /** @type {Element[]} */
    this.cursors = [];
  }

  draw() {
    this.cursors = [];
    const history = this.history;
    if (history === null || history.ticks.length < 2) {
      this.panel.replaceChildren();
      return;
    }
    this.panel.replaceChildren(make("h2", {}, ["Over the play"]), ...LINES
      .filter(({key}) => history[key] !== undefined).map((line) => this.drawLine(line)));
    this.moveCursor();
  }

  /** @param {number} tick */
  xOf(tick) {
    const {ticks} = this.history;
    const [first, last] = [ticks[0], ticks[ticks.length - 1]];
    return LEFT + ((tick - first) / Math.max(1, last - first)) * (WIDE - 2 * LEFT);
  }

  /** @param {{key: string, label: string, unit: string}} line */
  drawLine({key, label, unit}) {
    /** @type {number[]} */
    const values = this.history[key];
    /** @type {number | undefined} */
    const limit = this.history.limits[key];
    const most = Math.max(...values, limit ?? 0, 1e-9) * 1.08;
    const yOf = (/** @type {number} */ value) => TALL - 14 - (value / most) * (TALL - 30);
    const path = values.map((value, i) => `${i === 0 ? "M" : "L"}${this.xOf(this.history.ticks[i]).toFixed(1)} ${yOf(value).toFixed(1)}`).join("");
    const cursor = makeSvg("line", {y1: 14, y2: TALL - 12, stroke: "currentColor", "stroke-width": 1.5});
    this.cursors.push(cursor);
    const parts = [
      makeSvg("text", {x: LEFT, y: 11}, [`${label}, up to ${Math.max(...values).toFixed(key === "distance" ? 1 : 0)} ${unit}`]),
      makeSvg("path", {d: path, fill: "none", stroke: "currentColor", "stroke-width": 1.4}), cursor];
    if (limit !== undefined) {
      parts.push(makeSvg("line", {x1: LEFT, x2: WIDE - LEFT, y1: yOf(limit), y2: yOf(limit), stroke: "var(--stopped)", "stroke-dasharray": "5 3"}));
      parts.push(makeSvg("text", {x: WIDE - LEFT, y: 11, "text-anchor": "end"}, [`limit ${limit} ${unit} (dashed)`]));
    }
    return makeSvg("svg", {viewBox: `0 0 ${WIDE} ${TALL}`, role: "img", "aria-label": `${label} over time`}, parts);
  }

  moveCursor() {
    if (this.history === null) return;
    const x = String(this.xOf(this.tick));
    for (const cursor of this.cursors) {
      cursor.setAttribute("x1", x);
      cursor.setAttribute("x2", x);
    }
  }
}
