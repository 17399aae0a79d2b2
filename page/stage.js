/**
 * The level and all in it, on a canvas: takes frames, moves the picture, and tells who is where.
 *
 * @typedef {import("./view.js").Point} Point
 */

import {byId, make} from "./dom.js";
import {Painter} from "./painter.js";
import {Scene} from "./scene.js";
import {View} from "./view.js";

export class Stage {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.canvas = /** @type {HTMLCanvasElement} */ (byId("picture"));
    this.scene = new Scene();
    this.view = new View();
    this.painter = new Painter(this.canvas, this.scene, this.view);
    this.isOld = false;
    this.isFitted = false;
    /** By hand: then the picture stays as it is when the window changes. */
    this.wasMoved = false;
    this.followed = "";
    this.listen(talk);
    new ResizeObserver(() => this.resize()).observe(this.canvas);
    this.addButtons();
    this.addPointer();
  }

  /** @param {import("./talk.js").Talk} talk */
  listen(talk) {
    talk.on("level", (level) => this.takeLevel(level));
    for (const of of /** @type {const} */ (["level", "moment", "ghost", "overlay"])) {
      talk.on(`${of} frame`, (frame) => this.takeFrame(of, frame));
    }
    talk.on("overlay", (message) => { this.scene.overlay = message.what; });
    talk.on("changes", (message) => {
      if (!message.has_ghost) this.scene.marks.ghost = [];
      this.draw();
    });
  }

  /** @param {any} level */
  takeLevel(level) {
    if (this.scene.level?.file !== level.file) this.isFitted = false;
    this.scene.take(level);
    this.painter.marks.patterns.clear();
    for (const [name, colour] of Object.entries(level.palette)) {
      if (typeof colour === "string") document.documentElement.style.setProperty(`--${name}`, colour);
    }
    this.drawAll();
  }

  /**
   * @param {"level" | "moment" | "ghost" | "overlay"} of
   * @param {import("./frame.js").Frame} frame
   */
  takeFrame(of, frame) {
    this.scene.marks[of] = frame.marks;
    if (of === "level" || of === "overlay") this.painter.isGroundOld = true;
    if (of === "moment" && !this.isFitted) this.fit();
    if (of === "moment" && this.followed !== "") this.centreOn(this.followed);
    this.draw();
  }

  /** Soon. */
  draw() {
    if (this.isOld) return;
    this.isOld = true;
    requestAnimationFrame(() => {
      this.isOld = false;
      this.painter.paint();
    });
  }

  /** What stands still as well. */
  drawAll() {
    this.painter.isGroundOld = true;
    this.draw();
  }

  // The view.

  resize() {
    const ratio = window.devicePixelRatio;
    const box = this.canvas.getBoundingClientRect();
    this.canvas.width = Math.max(1, Math.round(box.width * ratio));
    this.canvas.height = Math.max(1, Math.round(box.height * ratio));
    this.view.extent = {width: this.canvas.width / ratio, height: this.canvas.height / ratio};
    if (!this.wasMoved) this.fit();
    this.drawAll();
  }

  /** All that stands still and everybody, with some room around. */
  fit() {
    const corners = this.scene.corners();
    if (corners === null) return;
    this.view.fit(corners.low, corners.high);
    this.isFitted = true;
    this.wasMoved = false;
    this.drawAll();
  }

  /** @param {number} factor  @param {Point} [about]  Pixels. */
  zoom(factor, about) {
    this.view.zoom(factor, about);
    this.wasMoved = true;
    this.drawAll();
  }

  /** @param {string} id */
  centreOn(id) {
    const place = this.scene.placeOf(id);
    if (place === null) return;
    this.view.middle = place;
    this.wasMoved = true;
    this.drawAll();
  }

  /** @param {string} id  Empty: nobody. */
  follow(id) {
    this.followed = id;
    this.followButton?.setAttribute("aria-pressed", String(id !== ""));
    if (id !== "") this.centreOn(id);
  }

  followOrNot() {
    this.follow(this.followed === "" ? this.scene.player : "");
  }

  fitAgain() {
    this.follow("");
    this.fit();
  }

  // Buttons and the pointer.

  addButtons() {
    const button = (/** @type {string} */ text, /** @type {string} */ label, /** @type {() => void} */ act) =>
      make("button", {type: "button", title: label, onclick: act}, [text]);
    this.followButton = make("button", {type: "button", "aria-pressed": "false", onclick: () => this.followOrNot()}, ["Follow"]);
    byId("view").append(button("Nearer", "Zoom in", () => this.zoom(1.3)),
                        button("Farther", "Zoom out", () => this.zoom(1 / 1.3)),
                        button("Fit", "Show the whole level", () => this.fitAgain()), this.followButton);
  }

  /** Of the canvas, in pixels. @param {MouseEvent} event @returns {Point} */
  pixelOf(event) {
    const box = this.canvas.getBoundingClientRect();
    return {x: event.clientX - box.left, y: event.clientY - box.top};
  }

  /** @param {MouseEvent} event */
  planOf(event) {
    return this.view.toPlan(this.pixelOf(event));
  }

  /** Who is under the pointer, or near it. @param {MouseEvent} event */
  agentUnder(event) {
    return this.scene.agentAt(this.planOf(event), Math.max(0.5, 14 / this.view.scale));
  }

  addPointer() {
    /** @type {Point | null} */
    let grabbed = null;
    this.canvas.addEventListener("wheel", (event) => {
      event.preventDefault();
      this.zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15, this.pixelOf(event));
    }, {passive: false});
    // The middle or the right button, or the left one with Alt, moves the picture.
    this.canvas.addEventListener("pointerdown", (event) => {
      if (event.button === 0 && !event.altKey) return;
      grabbed = this.planOf(event);
      this.follow("");
      this.canvas.setPointerCapture(event.pointerId);
    });
    this.canvas.addEventListener("pointermove", (event) => {
      if (grabbed === null) return;
      const now = this.planOf(event);
      this.view.move(grabbed.x - now.x, grabbed.y - now.y);
      this.wasMoved = true;
      this.drawAll();
    });
    this.canvas.addEventListener("pointerup", () => { grabbed = null; });
    this.canvas.addEventListener("contextmenu", (event) => event.preventDefault());
  }
}
