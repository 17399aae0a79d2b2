/** Time: play, pause, single steps, pace, and from the beginning. */

import {byId, make, seconds} from "./dom.js";

const PACES = [0.1, 0.25, 0.5, 1, 2, 4];

export class Clock {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.talk = talk;
    this.state = {tick: 0, end: 0, seconds: 0, length: 0, is_playing: false, pace: 1, is_over: false};
    const button = (/** @type {string} */ text, /** @type {string} */ label, /** @type {() => void} */ act) =>
      make("button", {type: "button", title: label, onclick: act}, [text]);
    this.playButton = make("button", {type: "button", id: "play", onclick: () => this.toggle()}, ["Play"]);
    this.time = make("output", {id: "time"}, [""]);
    this.pace = make("output", {id: "pace"}, [""]);
    byId("clock").append(
      this.playButton,
      button("\u2039 Step", "One step back", () => this.step(-1)),
      button("Step \u203a", "One step on", () => this.step(1)),
      button("Slower", "Slower", () => this.changePace(-1)), this.pace,
      button("Faster", "Faster", () => this.changePace(1)),
      button("From the start", "Play from the start", () => talk.say({do: "restart"})),
      this.time);
    talk.on("state", (state) => this.take(state));
  }

  /** @param {any} state */
  take(state) {
    this.state = state;
    this.playButton.textContent = state.is_playing ? "Pause" : "Play";
    this.time.textContent = `${seconds(state.seconds)} of ${seconds(Math.max(state.length, 0))}`;
    this.pace.textContent = `${state.pace} \u00d7`;
  }

  toggle() {
    const {is_playing: wasPlaying} = this.state;
    // Whoever presses twice means both, also before the first has been answered.
    this.state = {...this.state, is_playing: !wasPlaying};
    this.talk.say({do: wasPlaying ? "pause" : "play"});
  }

  /** @param {number} ticks */
  step(ticks) {
    this.talk.say({do: "step", ticks});
  }

  /** @param {number} by */
  changePace(by) {
    const at = PACES.findIndex((pace) => pace >= this.state.pace);
    const next = Math.min(PACES.length - 1, Math.max(0, (at < 0 ? PACES.length - 1 : at) + by));
    this.talk.say({do: "pace", pace: PACES[next]});
  }
}
