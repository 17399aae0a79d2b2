/**
 * Which part of the plan is shown, and where on the canvas.
 *
 * @typedef {{x: number, y: number}} Point
 */

const MARGIN = 0.8;  // metres around all that there is
const HEADROOM = 40;  // pixels, for the buttons
const [LEAST, MOST, MOST_FITTED] = [2, 400, 120];  // pixels a metre

export class View {
  /** Of the canvas, in pixels of the page. */
  extent = {width: 1, height: 1};
  /** Pixels a metre. */
  scale = 40;
  /** The place in the middle. @type {Point} */
  middle = {x: 0, y: 0};

  /** @param {number} x @param {number} y */
  toPixel(x, y) {
    const {width, height} = this.extent;
    return {x: width / 2 + (x - this.middle.x) * this.scale, y: height / 2 - (y - this.middle.y) * this.scale};
  }

  /** @param {Point} pixel */
  toPlan(pixel) {
    const {width, height} = this.extent;
    return {x: this.middle.x + (pixel.x - width / 2) / this.scale, y: this.middle.y - (pixel.y - height / 2) / this.scale};
  }

  /** Shows all between two corners. @param {Point} low @param {Point} high */
  fit(low, high) {
    const {width, height} = this.extent;
    const wide = high.x - low.x + 2 * MARGIN;
    const tall = high.y - low.y + 2 * MARGIN;
    this.scale = Math.min(width / wide, (height - HEADROOM) / tall, MOST_FITTED);
    this.middle = {x: (low.x + high.x) / 2, y: (low.y + high.y) / 2};
  }

  /** What lies at a pixel stays there. @param {number} factor @param {Point} [about] */
  zoom(factor, about = {x: this.extent.width / 2, y: this.extent.height / 2}) {
    const before = this.toPlan(about);
    this.scale = Math.min(MOST, Math.max(LEAST, this.scale * factor));
    const after = this.toPlan(about);
    this.move(before.x - after.x, before.y - after.y);
  }

  /** @param {number} x  Metres. @param {number} y */
  move(x, y) {
    this.middle = {x: this.middle.x + x, y: this.middle.y + y};
  }
}
