/** Room for labels: each is put where it lies on nothing else, or left out. */

const LINE = 14;  // pixels

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
   * @param {boolean} mustBe  It is written even where there is no room.
   */
  write(lines, at, beside, mustBe) {
    const wide = Math.max(...lines.map((line) => this.context.measureText(line).width));
    const tall = lines.length * LINE;
    const places = beside === 0
      ? [[at.x - wide / 2, at.y - tall / 2]]
      : [[at.x - wide / 2, at.y + beside], [at.x - wide / 2, at.y - beside - tall],
         [at.x + beside + 3, at.y - tall / 2], [at.x - beside - 3 - wide, at.y - tall / 2]];
    const free = places.find(([x, y]) => this.isFree(x, y, wide, tall));
    if (free === undefined && !mustBe) return;
    const most = this.context.canvas.width / window.devicePixelRatio - wide - 4;
    const [x, y] = [Math.max(4, Math.min(most, (free ?? places[0])[0])), (free ?? places[0])[1]];
    this.take(x, y, wide, tall);
    this.context.lineJoin = "round";
    this.context.strokeStyle = this.palette.paper;
    this.context.lineWidth = 4;
    this.context.fillStyle = this.palette.ink;
    lines.forEach((line, i) => {
      const left = x + (wide - this.context.measureText(line).width) / 2;
      this.context.strokeText(line, left, y + LINE * (i + 1) - 3);
      this.context.fillText(line, left, y + LINE * (i + 1) - 3);
    });
  }
}
