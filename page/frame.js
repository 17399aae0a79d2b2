/**
 * Reads frames: shapes as bytes. docs/page-protocol.md has their form.
 *
 * @typedef {object} Mark
 * @property {"line" | "area" | "circle" | "text"} form
 * @property {number} meaning  Its number among the names in the message "level".
 * @property {number | null} number  Of an agent its team, of a solid its material.
 * @property {number | null} who
 * @property {number | null} solid
 * @property {number} share
 * @property {number} radius  Metres.
 * @property {Float64Array} points  x and y by turns, metres.
 * @property {string} text
 *
 * @typedef {object} Frame
 * @property {"level" | "moment" | "ghost" | "overlay"} of
 * @property {number} tick
 * @property {Mark[]} marks
 */

/** @type {Mark["form"][]} */
const FORMS = ["line", "area", "circle", "text"];
/** @type {Record<number, Frame["of"]>} */
const OF = {1: "level", 2: "moment", 3: "ghost", 4: "overlay"};
const UTF8 = new TextDecoder();

class Reader {
  /** @param {ArrayBuffer} buffer */
  constructor(buffer) {
    this.bytes = new Uint8Array(buffer);
    this.at = 0;
    this.x = 0;
    this.y = 0;
  }
  byte() {
    if (this.at >= this.bytes.length) throw new Error("a frame that ends too soon");
    return this.bytes[this.at++];
  }
  number() {
    let value = 0;
    let factor = 1;
    for (;;) {
      const byte = this.byte();
      value += (byte & 0x7f) * factor;
      if (byte < 0x80) return value;
      factor *= 128;
    }
  }
  signedNumber() {
    const value = this.number();
    return value % 2 === 0 ? value / 2 : -(value + 1) / 2;
  }
  /** A number that is one more than what it stands for; 0 is nothing. */
  maybe() {
    const value = this.number();
    return value === 0 ? null : value - 1;
  }
  /** @param {number} count */
  points(count) {
    const points = new Float64Array(2 * count);
    for (let i = 0; i < count; ++i) {
      this.x += this.signedNumber();
      this.y += this.signedNumber();
      points[2 * i] = this.x / 1000;
      points[2 * i + 1] = this.y / 1000;
    }
    return points;
  }
  text() {
    const length = this.number();
    const text = UTF8.decode(this.bytes.subarray(this.at, this.at + length));
    this.at += length;
    return text;
  }
}

/**
 * @param {Reader} from
 * @returns {Mark}
 */
function readMark(from) {
  const form = FORMS[from.byte() & 3];
  const meaning = from.byte();
  const number = from.maybe();
  const who = from.maybe();
  const solid = from.maybe();
  const share = from.byte() / 255;
  const radius = from.number() / 1000;
  from.signedNumber();  // the height; the page draws the plan
  const points = from.points(from.number());
  const text = form === "text" ? from.text() : "";
  return {form, meaning, number, who, solid, share, radius, points, text};
}

/**
 * @param {ArrayBuffer} buffer
 * @returns {Frame}
 */
export function readFrame(buffer) {
  const from = new Reader(buffer);
  const of = OF[from.byte()];
  if (of === undefined) throw new Error("a frame of nothing known");
  const tick = from.number();
  const count = from.number();
  /** @type {Mark[]} */
  const marks = [];
  for (let i = 0; i < count; ++i) marks.push(readMark(from));
  return {of, tick, marks};
}
