/**
 * The level and all in it, on a canvas: moved, zoomed and followed; who or what is under the
 * pointer.
 *
 * @typedef {import("./frame.js").Mark} Mark
 * @typedef {import("./frame.js").Frame} Frame
 * @typedef {import("./look.js").Palette} Palette
 * @typedef {{x: number, y: number}} Point
 */

import {byId, make} from "./dom.js";
import {LAYERS, STROKES, materialPattern} from "./look.js";
import {paintBody, paintNose} from "./bodies.js";
import {LabelRoom} from "./labels.js";

const LEAST_BODY = 6;  // pixels
/** Among more agents than this, dashes, and names, trails and whole fields of those in the background are left out. */
const CROWD = 60;
const SEEN = ["seen_calm", "seen_alert"];

export class Stage {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.canvas = /** @type {HTMLCanvasElement} */ (byId("picture"));
    this.context = /** @type {CanvasRenderingContext2D} */ (this.canvas.getContext("2d"));
    /** What stands still is drawn once for each view. */
    this.ground = document.createElement("canvas");
    this.isGroundOld = true;
    this.isOld = false;
    /** @type {any} */
    this.level = null;
    /** @type {{level: Mark[], moment: Mark[], ghost: Mark[], overlay: Mark[]}} */
    this.marks = {level: [], moment: [], ghost: [], overlay: []};
    /** @type {Set<string>} */
    this.hidden = new Set();
    this.extent = {width: 1, height: 1};
    this.view = {scale: 40, x: 0, y: 0};
    this.isFitted = false;
    this.followed = "";
    this.frames = 0;
    /** @type {Map<number, CanvasPattern | null>} */
    this.patterns = new Map();
    /** Pair and place that other parts have marked. @type {{pair: string[], place: Point | null}} */
    this.marked = {pair: [], place: null};

    talk.on("level", (level) => this.takeLevel(level));
    for (const of of /** @type {const} */ (["level", "moment", "ghost", "overlay"])) {
      talk.on(`${of} frame`, (frame) => this.takeFrame(of, frame));
    }
    /** What is laid over the level. */
    this.overlay = "";
    talk.on("overlay", (message) => { this.overlay = message.what; this.patterns.clear(); });
    talk.on("changes", (message) => {
      if (!message.has_ghost) this.marks.ghost = [];
      this.draw();
    });
    new ResizeObserver(() => this.resize()).observe(this.canvas);
    this.addButtons();
    this.addPointer();
  }

  /** @param {any} level */
  takeLevel(level) {
    const isOther = this.level?.file !== level.file;
    this.level = level;
    this.ids = new Map(level.agents.map((/** @type {any} */ agent) => [agent.number, agent.id]));
    this.patterns.clear();
    this.marks.ghost = [];
    if (isOther) this.isFitted = false;
    for (const [name, colour] of Object.entries(level.palette)) {
      if (typeof colour === "string") document.documentElement.style.setProperty(`--${name}`, colour);
    }
    this.isGroundOld = true;
    this.draw();
  }

  /**
   * @param {"level" | "moment" | "ghost" | "overlay"} of
   * @param {Frame} frame
   */
  takeFrame(of, frame) {
    this.marks[of] = frame.marks;
    if (of === "level" || of === "overlay") this.isGroundOld = true;
    if (of === "moment" && !this.isFitted) this.fit();
    if (of === "moment" && this.followed !== "") this.centreOn(this.followed);
    this.draw();
  }

  // The view.

  resize() {
    const ratio = window.devicePixelRatio;
    const box = this.canvas.getBoundingClientRect();
    this.canvas.width = Math.max(1, Math.round(box.width * ratio));
    this.canvas.height = Math.max(1, Math.round(box.height * ratio));
    this.extent = {width: this.canvas.width / ratio, height: this.canvas.height / ratio};
    this.isGroundOld = true;
    if (!this.wasMoved) this.isFitted = false;
    if (this.marks.level.length > 0 && !this.isFitted) this.fit();
    this.draw();
  }

  /** All that stands still and everybody, with some room around. */
  fit() {
    let [low, high] = [{x: Infinity, y: Infinity}, {x: -Infinity, y: -Infinity}];
    for (const mark of [...this.marks.level, ...this.marks.moment]) {
      const meaning = this.meaning(mark);
      const isBody = meaning === "body" || meaning === "body_out";
      const counts = mark.form !== "text" && meaning !== "ground" &&
          (isBody || this.marks.level.includes(mark));
      if (!counts) continue;
      for (let i = 0; i < mark.points.length; i += 2) {
        low = {x: Math.min(low.x, mark.points[i]), y: Math.min(low.y, mark.points[i + 1])};
        high = {x: Math.max(high.x, mark.points[i]), y: Math.max(high.y, mark.points[i + 1])};
      }
    }
    if (low.x > high.x) return;
    const margin = 0.8;
    const {width, height} = this.size();
    const wide = high.x - low.x + 2 * margin;
    const tall = high.y - low.y + 2 * margin;
    this.view = {
      scale: Math.min(width / wide, (height - 40) / tall, 120),
      x: (low.x + high.x) / 2, y: (low.y + high.y) / 2,
    };
    this.isFitted = true;
    this.wasMoved = false;
    this.isGroundOld = true;
    this.draw();
  }

  /** @param {number} factor  @param {Point} [about]  Pixels. */
  zoom(factor, about) {
    const {width, height} = this.size();
    const at = about ?? {x: width / 2, y: height / 2};
    const before = this.toPlan(at);
    this.view.scale = Math.min(400, Math.max(2, this.view.scale * factor));
    const after = this.toPlan(at);
    this.move(before.x - after.x, before.y - after.y);
  }

  /** @param {number} x  Metres. @param {number} y */
  move(x, y) {
    this.view.x += x;
    this.view.y += y;
    this.wasMoved = true;
    this.isGroundOld = true;
    this.draw();
  }

  /** @param {string} id */
  centreOn(id) {
    const place = this.placeOf(id);
    if (place === null) return;
    this.view.x = place.x;
    this.view.y = place.y;
    this.wasMoved = true;
    this.isGroundOld = true;
    this.draw();
  }

  /** Of the canvas, in pixels of the page. */
  size() {
    return this.extent;
  }

  /** @param {Point} pixel */
  toPlan(pixel) {
    const {width, height} = this.size();
    return {x: this.view.x + (pixel.x - width / 2) / this.view.scale,
            y: this.view.y - (pixel.y - height / 2) / this.view.scale};
  }

  /** @param {number} x @param {number} y */
  toPixel(x, y) {
    const {width, height} = this.extent;
    return {x: width / 2 + (x - this.view.x) * this.view.scale,
            y: height / 2 - (y - this.view.y) * this.view.scale};
  }

  // Who is where.

  /** @param {Mark} mark */
  meaning(mark) {
    return this.level === null ? "" : this.level.meanings[mark.meaning];
  }

  /** @param {number | null} number */
  idOf(number) {
    return this.ids.get(number ?? -1) ?? "";
  }

  /** @param {Mark} mark @returns {Point} */
  middleOf(mark) {
    let [x, y] = [0, 0];
    const count = mark.points.length / 2;
    for (let i = 0; i < mark.points.length; i += 2) {
      x += mark.points[i] / count;
      y += mark.points[i + 1] / count;
    }
    return {x, y};
  }

  bodies() {
    return this.marks.moment.filter((mark) => {
      const meaning = this.meaning(mark);
      return mark.form !== "text" && (meaning === "body" || meaning === "body_out");
    });
  }

  /** @param {string} id @returns {Point | null} */
  placeOf(id) {
    const body = this.bodies().find((mark) => this.idOf(mark.who) === id);
    return body === undefined ? null : this.middleOf(body);
  }

  /** Who is at a place, or near it. @param {Point} plan */
  agentAt(plan) {
    let nearest = "";
    let least = Math.max(0.5, 14 / this.view.scale);
    for (const body of this.bodies()) {
      const middle = this.middleOf(body);
      const distance = Math.hypot(middle.x - plan.x, middle.y - plan.y);
      if (distance < least) [nearest, least] = [this.idOf(body.who), distance];
    }
    return nearest;
  }

  // Buttons and the pointer.

  addButtons() {
    const button = (/** @type {string} */ text, /** @type {string} */ label, /** @type {() => void} */ act) =>
      make("button", {type: "button", title: label, onclick: act}, [text]);
    this.followButton = make("button", {type: "button", "aria-pressed": "false",
                                        onclick: () => this.follow(this.followed === "" ? this.player : "")},
                             ["Follow"]);
    byId("view").append(button("Nearer", "Zoom in", () => this.zoom(1.3)),
                        button("Farther", "Zoom out", () => this.zoom(1 / 1.3)),
                        button("Fit", "Show the whole level", () => { this.follow(""); this.fit(); }),
                        this.followButton);
  }

  /** Ids by number. @type {Map<number, string>} */
  ids = new Map();
  player = "";
  wasMoved = false;
  isCrowded = false;

  /** @param {string} id */
  follow(id) {
    this.followed = id;
    this.followButton?.setAttribute("aria-pressed", String(id !== ""));
    if (id !== "") this.centreOn(id);
  }

  addPointer() {
    /** @type {Point | null} */
    let grabbed = null;
    const at = (/** @type {PointerEvent | WheelEvent} */ event) => {
      const box = this.canvas.getBoundingClientRect();
      return {x: event.clientX - box.left, y: event.clientY - box.top};
    };
    this.canvas.addEventListener("wheel", (event) => {
      event.preventDefault();
      this.zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15, at(event));
    }, {passive: false});
    // The middle or the right button, or the left one with Alt, moves the picture.
    this.canvas.addEventListener("pointerdown", (event) => {
      if (event.button === 0 && !event.altKey) return;
      grabbed = at(event);
      this.follow("");
      this.canvas.setPointerCapture(event.pointerId);
    });
    this.canvas.addEventListener("pointermove", (event) => {
      if (grabbed === null) return;
      const now = at(event);
      this.move((grabbed.x - now.x) / this.view.scale, (now.y - grabbed.y) / this.view.scale);
      grabbed = now;
    });
    this.canvas.addEventListener("pointerup", () => { grabbed = null; });
    this.canvas.addEventListener("contextmenu", (event) => event.preventDefault());
  }

  // Drawing.

  draw() {
    if (this.isOld) return;
    this.isOld = true;
    requestAnimationFrame(() => {
      this.isOld = false;
      this.paint();
    });
  }

  paint() {
    if (this.level === null || this.canvas.width < 2) return;
    ++this.frames;
    this.isCrowded = this.bodies().length > CROWD;
    if (this.isGroundOld) this.paintGround();
    const ratio = window.devicePixelRatio;
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.drawImage(this.ground, 0, 0);
    this.context.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (this.isCrowded) this.paintSeenTogether();
    for (const mark of this.marks.moment) if (!this.isAgent(mark)) this.paintMark(this.context, mark);
    for (const mark of this.marks.ghost) this.paintGhost(mark);
    for (const mark of this.marks.moment) if (this.isAgent(mark)) this.paintMark(this.context, mark);
    this.paintMarked();
    this.paintLabels();
    this.paintScale();
  }

  /** What many see is filled as one area: where it overlaps does not show, and it takes a third of the time. */
  paintSeenTogether() {
    for (const meaning of SEEN) {
      if (this.isHidden(meaning)) continue;
      const look = STROKES[meaning];
      const path = new Path2D();
      for (const mark of this.marks.moment) {
        if (this.meaning(mark) !== meaning || mark.form === "text") continue;
        for (let i = 0; i < mark.points.length; i += 2) {
          const at = this.toPixel(mark.points[i], mark.points[i + 1]);
          if (i === 0) path.moveTo(at.x, at.y); else path.lineTo(at.x, at.y);
        }
        path.closePath();
      }
      const colour = /** @type {string} */ (this.level.palette[look.colour]);
      this.context.fillStyle = this.context.strokeStyle = colour;
      this.context.lineWidth = 1;
      this.context.globalAlpha = look.fill ?? 0;
      this.context.fill(path);
      this.context.globalAlpha = 0.8;
      this.context.stroke(path);
      this.context.globalAlpha = 1;
    }
  }

  /** @param {Mark} mark */
  isAgent(mark) {
    return ["body", "body_out", "facing", "target", "shot"].includes(this.meaning(mark));
  }

  paintGround() {
    const ratio = window.devicePixelRatio;
    this.ground.width = this.canvas.width;
    this.ground.height = this.canvas.height;
    const context = /** @type {CanvasRenderingContext2D} */ (this.ground.getContext("2d"));
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const {width, height} = this.size();
    context.fillStyle = this.level.palette.paper;
    context.fillRect(0, 0, width, height);
    this.paintGrid(context, width, height);
    for (const mark of this.marks.level) this.paintMark(context, mark);
    for (const mark of this.marks.overlay) this.paintOverlay(context, mark);
    this.isGroundOld = false;
  }

  /** A line each metre, or each ten. @param {CanvasRenderingContext2D} context @param {number} width @param {number} height */
  paintGrid(context, width, height) {
    const step = this.view.scale < 8 ? 10 : 1;
    const low = this.toPlan({x: 0, y: height});
    const high = this.toPlan({x: width, y: 0});
    context.globalAlpha = 0.07;
    context.strokeStyle = this.level.palette.ink;
    context.lineWidth = 1;
    context.setLineDash([]);
    context.beginPath();
    for (let x = Math.ceil(low.x / step) * step; x <= high.x; x += step) {
      const at = Math.round(this.toPixel(x, 0).x) + 0.5;
      context.moveTo(at, 0);
      context.lineTo(at, height);
    }
    for (let y = Math.ceil(low.y / step) * step; y <= high.y; y += step) {
      const at = Math.round(this.toPixel(0, y).y) + 0.5;
      context.moveTo(0, at);
      context.lineTo(width, at);
    }
    context.stroke();
    context.globalAlpha = 1;
  }

  /** @param {string} meaning */
  isHidden(meaning) {
    return LAYERS.some((layer) => this.hidden.has(layer.name) && layer.meanings.includes(meaning));
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  trace(context, mark) {
    context.beginPath();
    if (mark.form === "circle") {
      const middle = this.toPixel(mark.points[0], mark.points[1]);
      context.arc(middle.x, middle.y, mark.radius * this.view.scale, 0, 2 * Math.PI);
      return;
    }
    for (let i = 0; i < mark.points.length; i += 2) {
      const at = this.toPixel(mark.points[i], mark.points[i + 1]);
      if (i === 0) context.moveTo(at.x, at.y); else context.lineTo(at.x, at.y);
    }
    if (mark.form === "area") context.closePath();
  }

  /** @param {number | null} team @returns {string} */
  teamColour(team) {
    const {teams, ink} = this.level.palette;
    return team === null ? ink : teams[team % teams.length];
  }

  /** @param {number | null} material */
  materialColour(material) {
    const {materials} = this.level.palette;
    return materials[(material ?? 0) % materials.length];
  }

  /** @param {number} material */
  patternOf(material) {
    if (!this.patterns.has(material)) {
      this.patterns.set(material, materialPattern(this.context, this.materialColour(material), material,
                                                  this.level.materials[material]?.stops_sight ?? true));
    }
    return this.patterns.get(material) ?? null;
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintMark(context, mark) {
    const meaning = this.meaning(mark);
    if (mark.form === "text" || this.isHidden(meaning)) return;
    if (this.isCrowded && (SEEN.includes(meaning) || (this.isBackground(meaning) && !this.isInFocus(mark)))) return;
    context.setLineDash([]);
    context.globalAlpha = 1;
    if (meaning === "body" || meaning === "body_out") return this.paintAgent(context, mark);
    if (meaning === "facing") return this.paintFacing(context, mark);
    if (meaning === "shot") return this.paintShot(context, mark);
    this.trace(context, mark);
    if (meaning === "solid") {
      context.fillStyle = this.patternOf(mark.number ?? 0) ?? this.materialColour(mark.number);
      return context.fill();
    }
    if (meaning === "solid_rim") return this.stroke(context, this.materialColour(mark.number), 1.6);
    if (meaning === "walkway" || meaning === "zone") {
      context.globalAlpha = meaning === "zone" ? 0.05 + 0.25 * mark.share : 0.5;
      context.fillStyle = meaning === "zone" ? this.level.palette.ink : this.level.palette.plate;
      context.fill();
      context.globalAlpha = 1;
      if (meaning === "zone") this.stroke(context, this.level.palette.ink, 1, [3, 5]);
      return;
    }
    if (meaning === "trail") return this.stroke(context, this.teamColour(mark.number), 1.8, [3, 3], 0.75);
    if (meaning === "way") return this.paintWay(context, mark);
    const look = STROKES[meaning];
    if (look === undefined) return;
    const colour = /** @type {string} */ (this.level.palette[look.colour]);
    if (look.fill !== undefined) {
      context.globalAlpha = look.fill;
      context.fillStyle = colour;
      context.fill();
    }
    this.stroke(context, colour, look.width, look.dash, look.opacity);
    if (meaning === "sight_stopped") this.paintCross(context, mark, colour);
    if (meaning === "feeler" || meaning === "feeler_finds") this.paintDot(context, mark, colour);
  }

  /** @param {CanvasRenderingContext2D} context @param {string} colour @param {number} width @param {number[]} [dash] @param {number} [opacity] */
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
    return this.toPixel(mark.points[last], mark.points[last + 1]);
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
  paintCross(context, mark, colour) {
    const at = this.lastPixel(mark);
    context.beginPath();
    for (const side of [-1, 1]) {
      context.moveTo(at.x - 5, at.y - 5 * side);
      context.lineTo(at.x + 5, at.y + 5 * side);
    }
    this.stroke(context, colour, 2.4);
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
  paintDot(context, mark, colour) {
    const at = this.lastPixel(mark);
    context.beginPath();
    context.arc(at.x, at.y, 3, 0, 7);
    context.fillStyle = colour;
    context.fill();
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintWay(context, mark) {
    const colour = this.teamColour(mark.number);
    this.stroke(context, colour, 1.2, [], 0.9);
    if (this.isCrowded) return;
    const at = this.lastPixel(mark);
    context.beginPath();
    context.arc(at.x, at.y, 4, 0, 7);
    context.fillStyle = this.level.palette.paper;
    context.fill();
    this.stroke(context, colour, 1.6);
  }

  /** @param {Mark} mark */
  boxOf(mark) {
    const middle = this.middleOf(mark);
    let [wide, tall] = [mark.radius, mark.radius];
    if (mark.form === "area") {
      wide = Math.abs(mark.points[0] - middle.x);
      tall = Math.abs(mark.points[1] - middle.y);
    }
    const at = this.toPixel(middle.x, middle.y);
    return {x: at.x, y: at.y, wide: Math.max(LEAST_BODY, wide * this.view.scale),
            tall: Math.max(LEAST_BODY, tall * this.view.scale)};
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintAgent(context, mark) {
    const isAlive = this.meaning(mark) === "body";
    paintBody(context, this.boxOf(mark), mark.number, this.teamColour(mark.number),
              this.level.palette.paper, isAlive);
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintFacing(context, mark) {
    const [x1, y1, x2, y2] = mark.points;
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length === 0) return;
    const reach = Math.max(LEAST_BODY, (length - 0.2) * this.view.scale);
    paintNose(context, this.toPixel(x1, y1), {x: (x2 - x1) / length, y: -(y2 - y1) / length}, reach,
              this.level.palette);
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintShot(context, mark) {
    const [x, y, fromX, fromY] = mark.points;
    const at = this.toPixel(x, y);
    const from = this.toPixel(fromX, fromY);
    context.beginPath();
    context.moveTo(from.x, from.y);
    context.lineTo(at.x, at.y);
    this.stroke(context, this.level.palette.shot, 2, [], 0.6);
    context.beginPath();
    context.arc(at.x, at.y, Math.max(3, mark.radius * this.view.scale), 0, 7);
    context.fillStyle = this.level.palette.shot;
    context.fill();
  }

  /** @param {Mark} mark */
  paintGhost(mark) {
    const box = this.boxOf(mark);
    this.context.beginPath();
    this.context.arc(box.x, box.y, box.wide, 0, 7);
    this.stroke(this.context, this.teamColour(mark.number), 1.8, [2, 3]);
  }

  /** Each island and each attack has a pattern of its own. @param {CanvasRenderingContext2D} context @param {Mark} mark */
  paintOverlay(context, mark) {
    this.trace(context, mark);
    const number = mark.number ?? 0;
    const colour = this.materialColour(number + 1);
    const key = 1000 + number;
    if (!this.patterns.has(key)) this.patterns.set(key, materialPattern(this.context, colour, number + 1, this.overlay === "reach"));
    context.fillStyle = this.patterns.get(key) ?? colour;
    context.fill();
    if (this.overlay === "mesh") this.stroke(context, colour, 0.8, [], 0.7);
  }

  paintMarked() {
    const {place, pair} = this.marked;
    pair.forEach((id, i) => {
      const at = this.placeOf(id);
      if (at === null) return;
      const pixel = this.toPixel(at.x, at.y);
      this.context.beginPath();
      this.context.arc(pixel.x, pixel.y, 0.45 * this.view.scale + 12, 0, 7);
      this.stroke(this.context, this.level.palette.ink, 1.4, i === 0 ? [] : [5, 4]);
    });
    if (place === null) return;
    const at = this.toPixel(place.x, place.y);
    this.context.beginPath();
    for (const [dx, dy] of [[1, 0], [-1, 0], [0, 1], [0, -1]]) {
      this.context.moveTo(at.x + 6 * dx, at.y + 6 * dy);
      this.context.lineTo(at.x + 22 * dx, at.y + 22 * dy);
    }
    this.stroke(this.context, this.level.palette.stopped, 3);
  }

  paintLabels() {
    const room = new LabelRoom(this.context, this.level.palette);
    for (const body of this.bodies()) {
      const box = this.boxOf(body);
      room.take(box.x - box.wide, box.y - box.tall, 2 * box.wide, 2 * box.tall);
    }
    if (this.hidden.has("names")) return;
    for (const mark of this.marks.moment) {
      if (mark.form !== "text" || this.isHidden(this.meaning(mark))) continue;
      const isOfAgent = this.meaning(mark) === "body" || this.meaning(mark) === "body_out";
      if (this.isCrowded && !this.isInFocus(mark)) continue;
      const lines = mark.text.split("\n");
      const at = this.toPixel(mark.points[0], mark.points[1]);
      room.write(isOfAgent && this.hidden.has("numbers") ? lines.slice(0, 1) : lines, at,
                 Math.max(LEAST_BODY, mark.radius * this.view.scale) + 4, isOfAgent && this.isInFocus(mark));
    }
    for (const mark of this.marks.level) {
      if (mark.form !== "text" || this.isHidden(this.meaning(mark))) continue;
      room.write(mark.text.split("\n"), this.toPixel(mark.points[0], mark.points[1]), 0, false);
    }
  }

  /** What is left out of those in the background among many. @param {string} meaning */
  isBackground(meaning) {
    return meaning === "field" || meaning === "trail";
  }

  /** Somebody whose name is never left out. @param {Mark} mark */
  isInFocus(mark) {
    const id = this.idOf(mark.who);
    return id === this.player || this.marked.pair.includes(id);
  }

  paintScale() {
    const metres = [1, 2, 5, 10, 20, 50].find((length) => length * this.view.scale >= 60) ?? 100;
    const {width, height} = this.size();
    const [x, y] = [width - metres * this.view.scale - 14, height - 14];
    this.context.beginPath();
    this.context.moveTo(x, y - 5);
    this.context.lineTo(x, y);
    this.context.lineTo(width - 14, y);
    this.context.lineTo(width - 14, y - 5);
    this.stroke(this.context, this.level.palette.ink, 1.6);
    this.context.fillStyle = this.level.palette.ink;
    this.context.textAlign = "center";
    this.context.fillText(`${metres} m`, (x + width - 14) / 2, y - 8);
    this.context.textAlign = "left";
  }
}
