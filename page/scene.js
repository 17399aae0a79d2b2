/**
 * What there is to draw: the level, the last frames, and what is hidden or marked.
 *
 * @typedef {import("./frame.js").Mark} Mark
 * @typedef {import("./view.js").Point} Point
 */

import {LAYERS} from "./look.js";

/** Among more agents than this, dashes, and names, trails and whole fields of those in the background are left out. */
const CROWD = 60;

export class Scene {
  /** The message "level". @type {any} */
  level = null;
  /** @type {{level: Mark[], moment: Mark[], ghost: Mark[], overlay: Mark[]}} */
  marks = {level: [], moment: [], ghost: [], overlay: []};
  /** Layers that are switched off. @type {Set<string>} */
  hidden = new Set();
  /** What is laid over the level: "mesh", "reach" or nothing. */
  overlay = "";
  /** Who is played. */
  player = "";
  /** Pair and place that other parts have marked. @type {{pair: string[], place: Point | null}} */
  marked = {pair: [], place: null};
  /** Ids by number. @type {Map<number, string>} */
  ids = new Map();

  /** @param {any} level */
  take(level) {
    this.level = level;
    this.ids = new Map(level.agents.map((/** @type {any} */ agent) => [agent.number, agent.id]));
    this.marks.ghost = [];
  }

  /** @param {Mark} mark @returns {string} */
  meaning(mark) {
    return this.level === null ? "" : this.level.meanings[mark.meaning];
  }

  /** @param {number | null} number */
  idOf(number) {
    return this.ids.get(number ?? -1) ?? "";
  }

  /** @param {Mark} mark */
  isBody(mark) {
    const meaning = this.meaning(mark);
    return mark.form !== "text" && (meaning === "body" || meaning === "body_out");
  }

  bodies() {
    return this.marks.moment.filter((mark) => this.isBody(mark));
  }

  isCrowded() {
    return this.bodies().length > CROWD;
  }

  /** @param {string} meaning */
  isHidden(meaning) {
    return LAYERS.some((layer) => this.hidden.has(layer.name) && layer.meanings.includes(meaning));
  }

  /** Somebody whose name is never left out. @param {Mark} mark */
  isInFocus(mark) {
    const id = this.idOf(mark.who);
    return id === this.player || this.marked.pair.includes(id);
  }

  /** @param {string} id @returns {Point | null} */
  placeOf(id) {
    const body = this.bodies().find((mark) => this.idOf(mark.who) === id);
    return body === undefined ? null : middleOf(body);
  }

  /** Who is within a distance of a place; the nearest. @param {Point} plan @param {number} within  Metres. */
  agentAt(plan, within) {
    let [nearest, least] = ["", within];
    for (const body of this.bodies()) {
      const middle = middleOf(body);
      const distance = Math.hypot(middle.x - plan.x, middle.y - plan.y);
      if (distance < least) [nearest, least] = [this.idOf(body.who), distance];
    }
    return nearest;
  }

  /** The corners of all that stands still, and of all bodies; nothing if there is nothing. */
  corners() {
    let [low, high] = [{x: Infinity, y: Infinity}, {x: -Infinity, y: -Infinity}];
    const still = this.marks.level.filter((mark) => mark.form !== "text" && this.meaning(mark) !== "ground");
    for (const mark of [...still, ...this.bodies()]) {
      for (let i = 0; i < mark.points.length; i += 2) {
        low = {x: Math.min(low.x, mark.points[i]), y: Math.min(low.y, mark.points[i + 1])};
        high = {x: Math.max(high.x, mark.points[i]), y: Math.max(high.y, mark.points[i + 1])};
      }
    }
    return low.x > high.x ? null : {low, high};
  }
}

/** @param {Mark} mark @returns {Point} */
export function middleOf(mark) {
  let [x, y] = [0, 0];
  const count = mark.points.length / 2;
  for (let i = 0; i < mark.points.length; i += 2) {
    x += mark.points[i] / count;
    y += mark.points[i + 1] / count;
  }
  return {x, y};
}
