/**
 * A play that stands in the page itself: to look at, to scrub and to ask about, without a server.
 *
 * @typedef {{agent: string, other: string, packed: string}} PackedAnswers
 * @typedef {[number, any]} Answer  A tick, and what is true from then on.
 */

import {readFrame} from "./frame.js";
import {Talk} from "./talk.js";

/** @param {string} base64 */
async function unpacked(base64) {
  const bytes = Uint8Array.from(atob(base64), (digit) => digit.charCodeAt(0));
  const stream = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("deflate-raw"));
  return new Response(stream).arrayBuffer();
}

/**
 * The last of a list that is at a tick or before it.
 * @template T
 * @param {T[]} list
 * @param {(item: T) => number} tickOf
 * @param {number} tick
 */
function lastAt(list, tickOf, tick) {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (tickOf(list[middle]) <= tick) low = middle + 1; else high = middle;
  }
  return low - 1;
}

export class Replay extends Talk {
  /** @param {HTMLElement} data */
  constructor(data) {
    super();
    this.isLive = false;
    this.data = JSON.parse(data.textContent ?? "");
    this.level = this.data.messages[0];
    /** @type {{of: string, tick: number, bytes: ArrayBuffer}[]} */
    this.moments = [];
    /** @type {{of: string, tick: number, bytes: ArrayBuffer}[]} */
    this.grounds = [];
    /** @type {Map<string, Answer[]>} */
    this.answers = new Map();
    this.pair = {agent: "", other: ""};
    this.at = 0;
    this.pace = 1;
    this.isPlaying = false;
    this.shown = {moment: -1, ground: -1, answer: -2};
  }

  async open() {
    const bytes = await unpacked(this.data.play.frames);
    const view = new DataView(bytes);
    for (let at = 0; at < bytes.byteLength;) {
      const size = view.getUint32(at, true);
      const frame = bytes.slice(at + 4, at + 4 + size);
      const {of, tick} = headOf(frame);
      (of === "level" ? this.grounds : this.moments).push({of, tick, bytes: frame});
      at += 4 + size;
    }
    for (const message of this.data.messages) this.tell(message.tell, message);
    this.show();
  }

  get end() {
    return this.data.play.end;
  }

  /** @param {any} message */
  say(message) {
    /** @type {Record<string, () => void>} */
    const doings = {
      play: () => this.play(),
      pause: () => { this.isPlaying = false; },
      pace: () => { this.pace = message.pace; },
      step: () => { this.isPlaying = false; this.at += message.ticks; },
      go_to: () => { this.at = message.tick; },
      restart: () => { this.at = 0; },
      ask: () => { this.pair = {agent: message.agent, other: message.other}; this.shown.answer = -2; this.ask(); },
      layers: () => {},
    };
    if (doings[message.do] === undefined) {
      this.tell("refused", {why: "This is a replay, to look at. To play, run: gaze play"});
      return;
    }
    doings[message.do]();
    this.show();
  }

  play() {
    if (this.at >= this.end) this.at = 0;
    this.isPlaying = true;
    let last = performance.now();
    const tick = (/** @type {number} */ now) => {
      if (!this.isPlaying) return;
      this.at += Math.max(0, now - last) / 1000 * this.pace * this.level.ticks_per_second;
      last = now;
      if (this.at >= this.end) this.isPlaying = false;
      this.show();
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  show() {
    this.at = Math.min(this.end, Math.max(0, this.at));
    const tick = Math.round(this.at);
    const rate = this.level.ticks_per_second;
    this.tell("state", {
      tell: "state", tick, end: this.end, seconds: tick / rate, length: this.level.length,
      is_playing: this.isPlaying, is_over: false, pace: this.pace, steered: [],
    });
    const ground = lastAt(this.grounds, (frame) => frame.tick, tick);
    const moment = lastAt(this.moments, (frame) => frame.tick, tick);
    if (ground !== this.shown.ground && ground >= 0) this.tell("level frame", readFrame(this.grounds[ground].bytes));
    if (moment !== this.shown.moment && moment >= 0) this.tell("moment frame", readFrame(this.moments[moment].bytes));
    this.shown = {...this.shown, ground, moment};
    this.answer(tick);
  }

  async ask() {
    const {agent, other} = this.pair;
    const key = JSON.stringify([agent, other]);
    if (!this.answers.has(key)) {
      const packed = this.data.play.answers.find((/** @type {PackedAnswers} */ one) => one.agent === agent && one.other === other);
      const text = packed === undefined ? "[]" : new TextDecoder().decode(await unpacked(packed.packed));
      this.answers.set(key, JSON.parse(text));
    }
    this.shown.answer = -2;
    this.answer(Math.round(this.at));
    this.tellHistory(this.answers.get(key) ?? []);
  }

  /** @param {number} tick */
  answer(tick) {
    const {agent, other} = this.pair;
    const list = this.answers.get(JSON.stringify([agent, other]));
    if (list === undefined) return;
    const at = lastAt(list, ([since]) => since, tick);
    if (at === this.shown.answer) return;
    this.shown.answer = at;
    this.tell("why", at < 0 ? {agent, other, tick, isUnknown: true} : {...list[at][1], agent, other, tick: list[at][0]});
  }

  /** The plot, from the answers. @param {Answer[]} list */
  tellHistory(list) {
    const seen = list.filter(([, answer]) => answer.why?.evidence !== undefined);
    /** @type {(name: string) => (answer: Answer) => number} */
    const test = (name) => ([, answer]) => {
      const one = answer.why.tests.find((/** @type {any} */ each) => each.test === name);
      return one?.value ?? (one?.visible ?? 0) * 100;
    };
    /** @param {string} name */
    const limit = (name) => seen[0]?.[1].why.tests.find((/** @type {any} */ each) => each.test === name)?.limit;
    this.tell("history", {
      ticks: seen.map(([tick]) => tick), distance: seen.map(test("range")), angle: seen.map(test("field of view")),
      visible: seen.map(test("line of sight")),
      evidence: seen.map(([, answer]) => answer.why.evidence.gathered * 100),
      limits: {distance: limit("range"), angle: limit("field of view")},
    });
  }
}

/** Which sort of frame it is, and of when, without reading it all. @param {ArrayBuffer} frame */
function headOf(frame) {
  const bytes = new Uint8Array(frame, 0, Math.min(12, frame.byteLength));
  let tick = 0;
  for (let i = 1, factor = 1; i < bytes.length; ++i, factor *= 128) {
    tick += (bytes[i] & 0x7f) * factor;
    if (bytes[i] < 0x80) break;
  }
  return {of: bytes[0] === 1 ? "level" : "moment", tick};
}
