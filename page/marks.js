/**
 * Paints shapes, each by what it means.
 *
 * @typedef {import("./frame.js").Mark} Mark
 * @typedef {CanvasRenderingContext2D} Context
 */

import {paintBody, paintNose} from "./bodies.js";
import {STROKES, materialPattern} from "./look.js";
import {middleOf} from "./scene.js";

const LEAST_BODY = 6;  // pixels
const SEEN = ["seen_calm", "seen_alert"];

export class Marks {
  /**
   * @param {import("./scene.js").Scene} scene
   * @param {import("./view.js").View} view
   */
  constructor(scene, view) {
    this.scene = scene;
    this.view = view;
    /** @type {Map<string, CanvasPattern | null>} */
    this.patterns = new Map();
    /** Dashes and much else are left out then. */
    this.isCrowded = false;
  }

  /** @returns {import("./look.js").Palette} */
  get palette() {
    return this.scene.level.palette;
  }

  /** @param {number | null} team @returns {string} */
  teamColour(team) {
    const {teams, ink} = this.palette;
    return team === null ? ink : teams[team % teams.length];
  }

  /** @param {number | null} material @returns {string} */
  materialColour(material) {
    const {materials} = this.palette;
    return materials[(material ?? 0) % materials.length];
  }

  /** @param {Context} context @param {number} material @param {boolean} stopsSight */
  pattern(context, material, stopsSight) {
    const key = `${material} ${stopsSight}`;
    if (!this.patterns.has(key)) {
      this.patterns.set(key, materialPattern(context, this.materialColour(material), material, stopsSight));
    }
    return this.patterns.get(key) ?? this.materialColour(material);
  }

  /** @param {Context} context @param {Mark} mark */
  paint(context, mark) {
    const meaning = this.scene.meaning(mark);
    if (mark.form === "text" || this.scene.isHidden(meaning) || this.isLeftOut(mark, meaning)) return;
    context.setLineDash([]);
    context.globalAlpha = 1;
    switch (meaning) {
      case "body": case "body_out": return this.paintAgent(context, mark, meaning === "body");
      case "facing": return this.paintFacing(context, mark);
      case "shot": return this.paintShot(context, mark);
    }
    this.trace(context, mark);
    switch (meaning) {
      case "solid": return this.fillSolid(context, mark);
      case "solid_rim": return this.stroke(context, this.materialColour(mark.number), 1.6);
      case "walkway": return this.fill(context, this.palette.plate, 0.5);
      case "zone": return this.paintZone(context, mark);
      case "trail": return this.stroke(context, this.teamColour(mark.number), 1.8, [3, 3], 0.75);
      case "way": return this.paintWay(context, mark);
    }
    this.paintByLook(context, mark, meaning);
  }

  /** Among many, what they see is painted together, and the background is thinned. @param {Mark} mark @param {string} meaning */
  isLeftOut(mark, meaning) {
    if (!this.isCrowded) return false;
    const isBackground = meaning === "field" || meaning === "trail";
    return SEEN.includes(meaning) || (isBackground && !this.scene.isInFocus(mark));
  }

  /** @param {Context} context @param {Mark} mark @param {string} meaning */
  paintByLook(context, mark, meaning) {
    const look = STROKES[meaning];
    if (look === undefined) return;
    const colour = /** @type {string} */ (this.palette[look.colour]);
    if (look.fill !== undefined) this.fill(context, colour, look.fill);
    this.stroke(context, colour, look.width, look.dash, look.opacity);
    if (meaning === "sight_stopped") this.paintCross(context, mark, colour);
    if (meaning === "feeler" || meaning === "feeler_finds") this.paintDot(context, this.lastPixel(mark), 3, colour);
  }

  // Small parts.

  /** The way along a shape. @param {Context | Path2D} path @param {Mark} mark */
  outline(path, mark) {
    for (let i = 0; i < mark.points.length; i += 2) {
      const at = this.view.toPixel(mark.points[i], mark.points[i + 1]);
      if (i === 0) path.moveTo(at.x, at.y); else path.lineTo(at.x, at.y);
    }
    if (mark.form === "area") path.closePath();
  }

  /** @param {Context} context @param {Mark} mark */
  trace(context, mark) {
    context.beginPath();
    if (mark.form !== "circle") return this.outline(context, mark);
    const middle = this.view.toPixel(mark.points[0], mark.points[1]);
    context.arc(middle.x, middle.y, mark.radius * this.view.scale, 0, 2 * Math.PI);
  }

  /** @param {Context} context @param {string} colour @param {number} opacity */
  fill(context, colour, opacity) {
    context.globalAlpha = opacity;
    context.fillStyle = colour;
    context.fill();
    context.globalAlpha = 1;
  }

  /** @param {Context} context @param {string} colour @param {number} width @param {number[]} [dash] @param {number} [opacity] */
  stroke(context, colour, width, dash = [], opacity = 1) {
    context.globalAlpha = opacity;
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.setLineDash(this.isCrowded ? [] : dash);
    context.stroke();
    context.globalAlpha = 1;
    context.setLineDash([]);
  }

  /** @param {Mark} mark */
  lastPixel(mark) {
    const last = mark.points.length - 2;
    return this.view.toPixel(mark.points[last], mark.points[last + 1]);
  }

  /** @param {Context} context @param {{x: number, y: number}} at @param {number} radius @param {string} colour */
  paintDot(context, at, radius, colour) {
    context.beginPath();
    context.arc(at.x, at.y, radius, 0, 2 * Math.PI);
    context.fillStyle = colour;
    context.fill();
  }

  /** @param {Context} context @param {Mark} mark @param {string} colour */
  paintCross(context, mark, colour) {
    const at = this.lastPixel(mark);
    context.beginPath();
    for (const side of [-1, 1]) {
      context.moveTo(at.x - 5, at.y - 5 * side);
      context.lineTo(at.x + 5, at.y + 5 * side);
    }
    this.stroke(context, colour, 2.4);
  }

  // Shapes that need more than a stroke.

  /** @param {Context} context @param {Mark} mark */
  fillSolid(context, mark) {
    const stopsSight = this.scene.level.materials[mark.number ?? 0]?.stops_sight ?? true;
    context.fillStyle = this.pattern(context, mark.number ?? 0, stopsSight);
    context.fill();
  }

  /** The dimmer, the darker. @param {Context} context @param {Mark} mark */
  paintZone(context, mark) {
    this.fill(context, this.palette.ink, 0.05 + 0.25 * mark.share);
    this.stroke(context, this.palette.ink, 1, [3, 5]);
  }

  /** A line to a ring at its end. @param {Context} context @param {Mark} mark */
  paintWay(context, mark) {
    const colour = this.teamColour(mark.number);
    this.stroke(context, colour, 1.2, [], 0.9);
    if (this.isCrowded) return;
    this.paintDot(context, this.lastPixel(mark), 4, this.palette.paper);
    this.stroke(context, colour, 1.6);
  }

  /** Half sizes in pixels, about a middle. @param {Mark} mark */
  boxOf(mark) {
    const middle = middleOf(mark);
    const isCircle = mark.form === "circle";
    const wide = isCircle ? mark.radius : Math.abs(mark.points[0] - middle.x);
    const tall = isCircle ? mark.radius : Math.abs(mark.points[1] - middle.y);
    const at = this.view.toPixel(middle.x, middle.y);
    return {x: at.x, y: at.y, wide: Math.max(LEAST_BODY, wide * this.view.scale),
            tall: Math.max(LEAST_BODY, tall * this.view.scale)};
  }

  /** @param {Context} context @param {Mark} mark @param {boolean} isAlive */
  paintAgent(context, mark, isAlive) {
    paintBody(context, this.boxOf(mark), mark.number, this.teamColour(mark.number), this.palette.paper, isAlive);
  }

  /** @param {Context} context @param {Mark} mark */
  paintFacing(context, mark) {
    const [x1, y1, x2, y2] = mark.points;
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length === 0) return;
    const beyond = 0.2;  // metres: so far the line goes beyond the body
    const reach = Math.max(LEAST_BODY, (length - beyond) * this.view.scale);
    const facing = {x: (x2 - x1) / length, y: -(y2 - y1) / length};
    paintNose(context, this.view.toPixel(x1, y1), facing, reach, this.palette);
  }

  /** @param {Context} context @param {Mark} mark */
  paintShot(context, mark) {
    const [x, y, fromX, fromY] = mark.points;
    const at = this.view.toPixel(x, y);
    const from = this.view.toPixel(fromX, fromY);
    context.beginPath();
    context.moveTo(from.x, from.y);
    context.lineTo(at.x, at.y);
    this.stroke(context, this.palette.shot, 2, [], 0.6);
    this.paintDot(context, at, Math.max(3, mark.radius * this.view.scale), this.palette.shot);
  }

  /** Where somebody was in the play before. @param {Context} context @param {Mark} mark */
  paintGhost(context, mark) {
    const box = this.boxOf(mark);
    context.beginPath();
    context.arc(box.x, box.y, box.wide, 0, 2 * Math.PI);
    this.stroke(context, this.teamColour(mark.number), 1.8, [2, 3]);
  }

  /** Each island and each attack has a pattern of its own. @param {Context} context @param {Mark} mark */
  paintOverlay(context, mark) {
    this.trace(context, mark);
    const isMesh = this.scene.overlay === "mesh";
    const style = (mark.number ?? 0) + 1;
    context.fillStyle = this.pattern(context, style, !isMesh);
    context.fill();
    if (isMesh) this.stroke(context, this.materialColour(style), 0.8, [], 0.7);
  }

  /** What many see is filled as one area: overlaps do not show, and it takes a third of the time. @param {Context} context */
  paintSeenTogether(context) {
    for (const meaning of SEEN) {
      if (this.scene.isHidden(meaning)) continue;
      const path = new Path2D();
      for (const mark of this.scene.marks.moment) {
        if (mark.form !== "text" && this.scene.meaning(mark) === meaning) this.outline(path, mark);
      }
      const look = STROKES[meaning];
      context.fillStyle = context.strokeStyle = /** @type {string} */ (this.palette[look.colour]);
      context.lineWidth = 1;
      context.globalAlpha = look.fill ?? 0;
      context.fill(path);
      context.globalAlpha = 0.8;
      context.stroke(path);
      context.globalAlpha = 1;
    }
  }
}
