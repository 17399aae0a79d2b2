/** Room for labels: each is put where it lies on nothing else, or left out. */

const LINE = 14;  // pixels

/** How wide lines are, of the one font that is used. @type {Map<string, number>} */
const WIDTHS = new Map();

/** @param {CanvasRenderingContext2D} context @param {string} line */
function widthOf(context, line) {
  let width = WIDTHS.get(line);
  if (width === undefined) {
    if (WIDTHS.size > 5000) WIDTHS.clear();
    width = context.measureText(line).width;
    WIDTHS.set(line, width);
  }
  return width;
}

export class LabelRoom {
  /**
   * @param {CanvasRenderingContext2D} context
   * @param {import("./look.js").Palette} palette
   */
  constructor(context, palette) {
    this.context = context;
    this.palette = palette;
    /** @type {number[][]} */
    this.taken = [];
    context.font = '12px "DejaVu Sans", sans-serif';
    context.textBaseline = "alphabetic";
  }

  /** @param {number} x @param {number} y @param {number} wide @param {number} tall */
  take(x, y, wide, tall) {
    this.taken.push([x, y, wide, tall]);
  }

  /** @param {number} x @param {number} y @param {number} wide @param {number} tall */
  isFree(x, y, wide, tall) {
    return this.taken.every(([ox, oy, owide, otall]) =>
      x + wide <= ox || ox + owide <= x || y + tall <= oy || oy + otall <= y);
  }

  /**
   * @param {string[]} lines
   * @param {{x: number, y: number}} at
   * @param {number} beside  So far from there; 0: in the middle.
   * @param {boolean} mustBe  Without room for all lines the first is written, whatever it lies on.
   */
  write(lines, at, beside, mustBe) {
    const place = this.find(lines, at, beside);
    if (place !== null) return this.put(lines, place);
    if (!mustBe) return;
    const first = lines.slice(0, 1);
    this.put(first, this.find(first, at, beside) ?? this.places(first, at, beside)[0]);
  }

  /** @param {string[]} lines @param {{x: number, y: number}} at @param {number} beside */
  find(lines, at, beside) {
    return this.places(lines, at, beside).find(([x, y, wide, tall]) => this.isFree(x, y, wide, tall)) ?? null;
  }

  /**
   * Left, top, width and height of where it may be, the best first.
   * @param {string[]} lines @param {{x: number, y: number}} at @param {number} beside
   */
  places(lines, at, beside) {
    const wide = Math.max(...lines.map((line) => widthOf(this.context, line)));
    const tall = lines.length * LINE;
    const most = this.context.canvas.width / window.devicePixelRatio - wide - 4;
    const inside = (/** @type {number} */ x) => Math.max(4, Math.min(most, x));
    const [left, top] = [at.x - wide / 2, at.y - tall / 2];
    const places = beside === 0 ? [[left, top]]
      : [[left, at.y + beside], [left, at.y - beside - tall], [at.x + beside + 3, top], [at.x - beside - 3 - wide, top]];
    return places.map(([x, y]) => [inside(x), y, wide, tall]);
  }

  /** @param {string[]} lines @param {number[]} place */
  put(lines, [x, y, wide, tall]) {
    this.take(x, y, wide, tall);
    this.context.lineJoin = "round";
    this.context.strokeStyle = this.palette.paper;
    this.context.lineWidth = 4;
    this.context.fillStyle = this.palette.ink;
    lines.forEach((line, i) => {
      const left = x + (wide - widthOf(this.context, line)) / 2;
      this.context.strokeText(line, left, y + LINE * (i + 1) - 3);
      this.context.fillText(line, left, y + LINE * (i + 1) - 3);
    });
  }
}
