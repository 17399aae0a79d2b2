/**
 * The hand: keys and pointer become what the agent that is played is to do. Messages are sent when
 * something changes; the server keeps the agent at it until then.
 */

import {byId, fill, make} from "./dom.js";

/** @type {Record<string, [number, number]>} */
const WAYS = {
  ArrowUp: [0, 1], KeyW: [0, 1], ArrowDown: [0, -1], KeyS: [0, -1],
  ArrowLeft: [-1, 0], KeyA: [-1, 0], ArrowRight: [1, 0], KeyD: [1, 0],
};

/** Keys, what they do, and whether that takes somebody to play. @type {[string, string, boolean][]} */
const KEYS = [
  ["W A S D, arrows", "go", true], ["pointer", "aim", true], ["Space, button", "fire", true],
  ["Shift", "quietly", true], ["H", "hop", true], ["T", "take", true], ["G", "throw", true],
  ["X", "put down", true], ["L", "let go", true], ["P", "play, pause", false], [", .", "step", false],
  ["\u2212 +", "slower, faster", false], ["R", "from the start", false], ["F", "fit", false],
  ["C", "follow", false], ["Alt and pull", "move the picture", false],
];

export class Hand {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./stage.js").Stage} stage
   * @param {import("./clock.js").Clock} clock
   */
  constructor(talk, stage, clock) {
    this.talk = talk;
    this.stage = stage;
    this.clock = clock;
    /** @type {Set<string>} */
    this.held = new Set();
    /** @type {{x: number, y: number} | null} */
    this.aim = null;
    this.isButtonDown = false;
    this.sent = "";
    /** @type {string[]} */
    this.steered = [];
    this.isUpright = false;
    this.select = make("select", {id: "player", onchange: () => this.choose(this.select.value)});
    this.letGoButton = make("button", {type: "button", onclick: () => this.letGo()}, ["Let go"]);
    byId("hand").classList.add("only-live");
    byId("hand").append(make("label", {htmlFor: "player"}, ["You are"]), this.select, this.letGoButton);
    byId("keys").append(...KEYS.map(([keys, what, isLive]) => make("span", {className: isLive ? "only-live" : ""}, [make("kbd", {}, [keys]), ` ${what}`])));
    talk.on("level", (level) => this.takeLevel(level));
    talk.on("state", (state) => this.takeState(state));
    this.listen();
  }

  /** @param {any} level */
  takeLevel(level) {
    this.isUpright = level.plane === "upright";
    const names = level.agents.filter((/** @type {any} */ agent) => agent.can_be_steered)
      .map((/** @type {any} */ agent) => agent.id);
    fill(this.select, names.length > 0 ? names : [""], this.select.value || level.player);
    this.select.disabled = names.length === 0;
    this.stage.scene.player = this.select.value;
    this.sent = "";
  }

  /** @param {any} state */
  takeState(state) {
    this.steered = state.steered;
    const isSteered = state.steered.includes(this.select.value);
    this.letGoButton.disabled = !isSteered;
    this.letGoButton.title = isSteered ? "Its script goes on" : "Keys take it over";
    this.isAtEnd = state.tick === state.end;
    const wasPlaying = this.isPlaying;
    this.isPlaying = state.is_playing;
    if (this.isPlaying === wasPlaying) return;
    this.sent = "";
    // What is held already counts from the beginning.
    if (this.held.size > 0 || this.isButtonDown) this.steer();
  }

  isAtEnd = true;
  isPlaying = false;

  /** @param {string} agent */
  choose(agent) {
    this.sent = "";
    this.held.clear();
    this.stage.scene.player = agent;
    if (this.stage.followed !== "") this.stage.follow(agent);
    byId("picture").focus();
  }

  letGo() {
    this.talk.say({do: "let_go", agent: this.select.value});
    this.sent = "";
  }

  listen() {
    const canvas = byId("picture");
    document.addEventListener("keydown", (event) => this.keyDown(event));
    document.addEventListener("keyup", (event) => this.keyUp(event));
    window.addEventListener("blur", () => { this.held.clear(); this.isButtonDown = false; this.steer(); });
    canvas.addEventListener("pointermove", (event) => {
      this.aim = this.stage.planOf(event);
      // A play that is looked at again is not changed by a pointer that happens to pass.
      if (this.isAtEnd && this.sent !== "") this.steer();
    });
    canvas.addEventListener("pointerleave", () => { this.aim = null; });
    canvas.addEventListener("pointerdown", (event) => {
      if (event.button !== 0 || event.altKey) return;
      this.isButtonDown = true;
      if (this.isPlaying) this.steer();
    });
    document.addEventListener("pointerup", () => {
      if (!this.isButtonDown) return;
      this.isButtonDown = false;
      if (this.isPlaying) this.steer();
    });
  }

  /** Keys count for the play unless something else wants them. @param {KeyboardEvent} event */
  isForPlay(event) {
    if (event.ctrlKey || event.altKey || event.metaKey) return false;
    const target = /** @type {HTMLElement} */ (event.target);
    if (target.closest("input:not([type=checkbox]), select, textarea")) return false;
    if (target.closest("input") && event.code === "Space") return false;
    // Elsewhere arrows scroll, or move between tabs.
    const isOnStage = target === document.body || target.closest("#stage, header") !== null;
    if (!isOnStage && event.code.startsWith("Arrow")) return false;
    const isButton = target.closest("button, summary, a") !== null;
    return !(isButton && (event.code === "Space" || event.code === "Enter"));
  }

  /** @param {KeyboardEvent} event */
  keyDown(event) {
    if (!this.isForPlay(event)) return;
    if (event.code in WAYS || ["Space", "ShiftLeft", "ShiftRight", "KeyH"].includes(event.code)) {
      if (event.target === document.body || event.code !== "Tab") {
        const scrolls = event.code.startsWith("Arrow") || event.code === "Space";
        if (scrolls) event.preventDefault();
      }
      if (this.held.has(event.code)) return;
      this.held.add(event.code);
      this.steer();
      return;
    }
    if (event.repeat && event.key !== "," && event.key !== ".") return;
    this.command(event.key);
  }

  /** @param {KeyboardEvent} event */
  keyUp(event) {
    if (this.held.delete(event.code)) this.steer();
  }

  /** @param {string} key */
  command(key) {
    /** @type {Record<string, () => void>} */
    const commands = {
      p: () => this.clock.toggle(),
      ",": () => this.clock.step(-1),
      ".": () => this.clock.step(1),
      "-": () => this.clock.changePace(-1),
      "+": () => this.clock.changePace(1),
      "=": () => this.clock.changePace(1),
      r: () => this.talk.say({do: "restart"}),
      f: () => this.stage.fitAgain(),
      c: () => this.stage.followOrNot(),
      t: () => this.byHand("take"),
      g: () => this.byHand("throw"),
      x: () => this.byHand("drop"),
      l: () => this.letGo(),
    };
    commands[key.toLowerCase()]?.();
  }

  /** @param {string} what */
  byHand(what) {
    const own = this.stage.scene.placeOf(this.select.value) ?? {x: 0, y: 0};
    const place = this.aim ?? {x: own.x + 2, y: own.y};
    this.talk.say({do: "hand", agent: this.select.value, what, place: [place.x, place.y]});
  }

  /** Says what is to be done now, if that is something else. */
  steer() {
    if (this.select.value === "" || !this.isPlaying) return;
    let [x, y] = [0, 0];
    for (const code of this.held) {
      x += WAYS[code]?.[0] ?? 0;
      y += WAYS[code]?.[1] ?? 0;
    }
    const length = Math.max(1, Math.hypot(x, y));
    const hops = this.held.has("KeyH") || (this.isUpright && y > 0);
    const round = (/** @type {number} */ value) => Math.round(value * 1000) / 1000;
    const message = {
      do: "steer", agent: this.select.value, way: [x / length, y / length],
      aim: this.aim === null ? null : [round(this.aim.x), round(this.aim.y)],
      fires: this.held.has("Space") || this.isButtonDown,
      quiet: this.held.has("ShiftLeft") || this.held.has("ShiftRight"), hops,
    };
    const text = JSON.stringify(message);
    if (text === this.sent) return;
    this.sent = text;
    this.talk.say(message);
  }
}
