/** Takes: plays that are saved as tracks beside the level. */

import {fill, make} from "./dom.js";

export class Takes {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./hand.js").Hand} hand
   */
  constructor(talk, hand) {
    this.name = make("input", {type: "text", id: "take-name", maxLength: 60, placeholder: "evening-3"});
    this.list = make("select", {id: "take-list"});
    const save = make("button", {type: "button", id: "save-take", onclick: () =>
      talk.say({do: "save_take", name: this.name.value, agent: hand.select.value})}, ["Save"]);
    const load = make("button", {type: "button", id: "load-take", onclick: () =>
      talk.say({do: "load_take", name: this.list.value, agent: hand.select.value})}, ["Load"]);
    this.told = make("p", {role: "status"});
    this.panel = make("div", {}, [
      make("p", {}, ["A take is what the agent you are has done in this play, as a track beside the level: ",
        "a line for each step, to be played, judged and compared like any track."]),
      make("p", {className: "row"}, [make("label", {htmlFor: "take-name"}, ["Save as"]), this.name, save]),
      make("p", {className: "row"}, [make("label", {htmlFor: "take-list"}, ["Load"]), this.list, load]),
      this.told]);
    talk.on("takes", ({list}) => {
      fill(this.list, list);
      load.disabled = list.length === 0;
      this.told.textContent = list.length === 0 ? "none is beside the level yet" : "";
    });
  }
}
