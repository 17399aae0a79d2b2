/** Paints the whole picture: what stands still once for each view, the rest each time. */

import {LabelRoom} from "./labels.js";
import {Marks} from "./marks.js";

/** These lie over all others. */
const AGENTS = ["body", "body_out", "facing", "target", "shot"];

export class Painter {
  /**
   * @param {HTMLCanvasElement} canvas
   * @param {import("./scene.js").Scene} scene
   * @param {import("./view.js").View} view
   */
  constructor(canvas, scene, view) {
    this.canvas = canvas;
    this.context = contextOf(canvas);
    this.ground = document.createElement("canvas");
    this.isGroundOld = true;
    this.scene = scene;
    this.view = view;
    this.marks = new Marks(scene, view);
  }

  paint() {
    if (this.scene.level === null || this.canvas.width < 2) return;
    this.marks.isCrowded = this.scene.isCrowded();
    if (this.isGroundOld) this.paintGround();
    const {context, marks} = this;
    const {moment, ghost} = this.scene.marks;
    const ratio = window.devicePixelRatio;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(this.ground, 0, 0);
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (marks.isCrowded) marks.paintSeenTogether(context);
    const isAgent = (/** @type {import("./frame.js").Mark} */ mark) => AGENTS.includes(this.scene.meaning(mark));
    for (const mark of moment) if (!isAgent(mark)) marks.paint(context, mark);
    for (const mark of ghost) marks.paintGhost(context, mark);
    for (const mark of moment) if (isAgent(mark)) marks.paint(context, mark);
    this.paintMarked();
    this.paintLabels();
    this.paintScale();
  }

  paintGround() {
    const ratio = window.devicePixelRatio;
    this.ground.width = this.canvas.width;
    this.ground.height = this.canvas.height;
    const context = contextOf(this.ground);
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const {width, height} = this.view.extent;
    context.fillStyle = this.scene.level.palette.paper;
    context.fillRect(0, 0, width, height);
    this.paintGrid(context);
    for (const mark of this.scene.marks.level) this.marks.paint(context, mark);
    for (const mark of this.scene.marks.overlay) this.marks.paintOverlay(context, mark);
    this.isGroundOld = false;
  }

  /** A line each metre, or each ten. @param {CanvasRenderingContext2D} context */
  paintGrid(context) {
    const {width, height} = this.view.extent;
    const step = this.view.scale < 8 ? 10 : 1;
    const low = this.view.toPlan({x: 0, y: height});
    const high = this.view.toPlan({x: width, y: 0});
    context.beginPath();
    for (let x = Math.ceil(low.x / step) * step; x <= high.x; x += step) {
      const at = Math.round(this.view.toPixel(x, 0).x) + 0.5;
      context.moveTo(at, 0);
      context.lineTo(at, height);
    }
    for (let y = Math.ceil(low.y / step) * step; y <= high.y; y += step) {
      const at = Math.round(this.view.toPixel(0, y).y) + 0.5;
      context.moveTo(0, at);
      context.lineTo(width, at);
    }
    this.marks.stroke(context, this.scene.level.palette.ink, 1, [], 0.07);
  }

  /** The pair that is asked about, and a place that something is about. */
  paintMarked() {
    const {context, view} = this;
    const {place, pair} = this.scene.marked;
    const {ink, stopped} = this.scene.level.palette;
    pair.forEach((id, i) => {
      const at = this.scene.placeOf(id);
      if (at === null) return;
      const pixel = view.toPixel(at.x, at.y);
      context.beginPath();
      context.arc(pixel.x, pixel.y, 0.45 * view.scale + 12, 0, 2 * Math.PI);
      this.marks.stroke(context, ink, 1.4, i === 0 ? [] : [5, 4]);
    });
    if (place === null) return;
    const at = view.toPixel(place.x, place.y);
    context.beginPath();
    for (const [dx, dy] of [[1, 0], [-1, 0], [0, 1], [0, -1]]) {
      context.moveTo(at.x + 6 * dx, at.y + 6 * dy);
      context.lineTo(at.x + 22 * dx, at.y + 22 * dy);
    }
    this.marks.stroke(context, stopped, 3);
  }

  paintLabels() {
    if (this.scene.hidden.has("names")) return;
    const room = new LabelRoom(this.context, this.scene.level.palette);
    for (const body of this.scene.bodies()) {
      const box = this.marks.boxOf(body);
      room.take(box.x - box.wide, box.y - box.tall, 2 * box.wide, 2 * box.tall);
    }
    for (const mark of this.scene.marks.moment) this.paintLabel(room, mark, 4);
    for (const mark of this.scene.marks.level) this.paintLabel(room, mark, 0);
  }

  /** @param {LabelRoom} room @param {import("./frame.js").Mark} mark @param {number} beside  0: in the middle. */
  paintLabel(room, mark, beside) {
    const meaning = this.scene.meaning(mark);
    if (mark.form !== "text" || this.scene.isHidden(meaning)) return;
    const isOfAgent = meaning === "body" || meaning === "body_out";
    const isInFocus = this.scene.isInFocus(mark);
    if (beside > 0 && this.marks.isCrowded && !isInFocus) return;
    const lines = mark.text.split("\n");
    const shown = isOfAgent && this.scene.hidden.has("numbers") ? lines.slice(0, 1) : lines;
    const away = beside > 0 ? Math.max(6, mark.radius * this.view.scale) + beside : 0;
    room.write(shown, this.view.toPixel(mark.points[0], mark.points[1]), away, isOfAgent && isInFocus);
  }

  paintScale() {
    const {context, view} = this;
    const {width, height} = view.extent;
    const metres = [1, 2, 5, 10, 20, 50].find((length) => length * view.scale >= 60) ?? 100;
    const [x, y] = [width - metres * view.scale - 14, height - 14];
    context.beginPath();
    context.moveTo(x, y - 5);
    context.lineTo(x, y);
    context.lineTo(width - 14, y);
    context.lineTo(width - 14, y - 5);
    this.marks.stroke(context, this.scene.level.palette.ink, 1.6);
    context.fillStyle = this.scene.level.palette.ink;
    context.textAlign = "center";
    context.fillText(`${metres} m`, (x + width - 14) / 2, y - 8);
    context.textAlign = "left";
  }
}

/** @param {HTMLCanvasElement} canvas */
function contextOf(canvas) {
  return /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
}
