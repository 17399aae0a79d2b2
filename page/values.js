/**
 * Values of kinds and agents: with unit, range, default and the place where each was set. A changed
 * value is tried on the same play.
 *
 * @typedef {object} Value
 * @property {string} path
 * @property {string} key
 * @property {number} value
 * @property {string} [meaning]
 * @property {string} [unit]
 * @property {number} [low]
 * @property {number} [high]
 * @property {boolean} [above_low]
 * @property {boolean} [is_truth]
 * @property {boolean} [is_whole]
 * @property {string} [left_out]
 * @property {string} [set_at]
 * @property {boolean} [is_tried]
 */

import {make} from "./dom.js";

export class Values {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./stage.js").Stage} stage
   */
  constructor(talk, stage) {
    this.talk = talk;
    /** @type {any} */
    this.message = null;
    this.owner = make("select", {id: "value-owner", onchange: () => this.draw()});
    this.search = make("input", {type: "search", id: "value-search", placeholder: "sight, speed, damage ...", oninput: () => this.draw()});
    this.all = make("input", {type: "checkbox", id: "value-all", onchange: () => this.draw()});
    this.keepButton = make("button", {type: "button", id: "keep", onclick: () => talk.say({do: "keep"})}, ["Keep"]);
    this.dropButton = make("button", {type: "button", id: "drop", onclick: () => talk.say({do: "drop_values"})}, ["Drop"]);
    this.undoButton = make("button", {type: "button", id: "undo", onclick: () => talk.say({do: "undo"})}, ["Undo"]);
    this.tried = make("p", {id: "tried", role: "status"});
    this.changes = make("div", {id: "changes"});
    talk.on("changes", (message) => this.takeChanges(message));
    this.list = make("div", {id: "value-list"});
    this.panel = make("div", {}, [
      make("p", {className: "row"}, [make("label", {htmlFor: "value-owner"}, ["Of"]), this.owner]),
      make("p", {className: "row"}, [make("label", {htmlFor: "value-search"}, ["With"]), this.search,
        make("label", {}, [this.all, "defaults too"])]),
      make("p", {className: "row"}, [this.keepButton, this.dropButton, this.undoButton]),
      this.tried, this.changes, this.list]);
    /** @type {{id: string, kind: string}[]} */
    this.agents = [];
    talk.on("level", (level) => { this.agents = level.agents; });
    talk.on("values", (message) => this.take(message));
    stage.canvas.addEventListener("click", () => {
      const id = stage.scene.marked.pair[0];
      const agent = this.agents.find((one) => one.id === id);
      if (agent !== undefined) this.choose(agent);
    });
  }

  /** @param {any} message */
  takeChanges(message) {
    this.changes.hidden = !message.has_ghost;
    const lines = message.list.length > 0 ? message.list : ["all events are as before"];
    this.changes.replaceChildren(
      make("h2", {}, ["Against the play before (dotted)"]),
      make("ul", {className: "changes", tabIndex: 0}, lines.map((/** @type {string} */ line) => make("li", {}, [line]))),
      make("button", {type: "button", onclick: () => this.talk.say({do: "drop_ghost"})}, ["Forget the play before"]));
  }

  /** @param {any} agent */
  choose(agent) {
    const own = `agent.${agent.id}`;
    const options = [...this.owner.options].map((option) => option.value);
    const next = options.includes(own) ? own : `kind.${agent.kind}`;
    if (!options.includes(next) || this.owner.value === next) return;
    this.owner.value = next;
    this.draw();
  }

  /** @param {any} message */
  take(message) {
    this.message = message;
    const chosen = this.owner.value;
    this.owner.replaceChildren(
      ...Object.keys(message.kinds).map((name) => make("option", {value: `kind.${name}`}, [`kind ${name}`])),
      ...this.agents.map(({id}) => make("option", {value: `agent.${id}`}, [`agent ${id} alone`])));
    if ([...this.owner.options].some((option) => option.value === chosen)) this.owner.value = chosen;
    const tried = message.tried.map((/** @type {any} */ one) => `${one.path} = ${one.value}`);
    this.tried.textContent = tried.length > 0 ? `Tried, not in the file: ${tried.join("; ")}` : "";
    this.keepButton.disabled = this.dropButton.disabled = tried.length === 0;
    this.undoButton.disabled = message.kept === 0;
    this.draw();
  }

  /** @returns {Value[]} */
  values() {
    const [sort, ...rest] = this.owner.value.split(".");
    const name = rest.join(".");
    if (this.message === null) return [];
    if (sort === "kind") return this.message.kinds[name] ?? [];
    const own = this.message.agents[name];
    if (own !== undefined) return own;
    // It has what its kind has, until it gets a value of its own.
    const kind = this.agents.find(({id}) => id === name)?.kind ?? "";
    return (this.message.kinds[kind] ?? []).map((/** @type {Value} */ value) =>
      ({...value, path: `agent.${name}.${value.key}`, is_tried: false}));
  }

  draw() {
    const wanted = this.search.value.trim().toLowerCase();
    const shown = this.values().filter((value) =>
      (this.all.checked || value.set_at !== undefined || value.is_tried || wanted !== "") &&
      (wanted === "" || `${value.key} ${value.meaning ?? ""}`.toLowerCase().includes(wanted)));
    const focused = document.activeElement?.id ?? "";
    this.list.replaceChildren(...shown.map((value) => this.row(value)));
    if (shown.length === 0) this.list.append(make("p", {className: "soft"}, ["nothing of that sort is set"]));
    if (focused.startsWith("v-")) document.getElementById(focused)?.focus();
  }

  /** @param {Value} value */
  row(value) {
    const id = `v-${value.path.replace(/[^A-Za-z0-9_-]/g, "_")}`;
    const attempt = (/** @type {string} */ text) => this.talk.say({do: "try", path: value.path, value: text});
    const input = value.is_truth
      ? make("input", {type: "checkbox", id, checked: value.value !== 0, onchange: () => attempt(String(input.checked))})
      : make("input", {type: "number", id, value: String(value.value), step: value.is_whole ? "1" : "any",
                       onchange: () => attempt(input.value)});
    if (value.low !== undefined && value.high !== undefined && !value.is_truth) {
      input.min = String(value.low);
      input.max = String(value.high);
      input.setAttribute("aria-describedby", `${id}-about`);
      input.addEventListener("keydown", (event) => this.nudge(event, value, input, attempt));
    }
    const about = [
      value.meaning ?? "",
      value.low === undefined || value.is_truth ? "" : `${value.above_low ? "above " : ""}${value.low} to ${value.high}`,
      value.left_out ? `default ${value.left_out}` : "",
      value.is_tried ? "tried" : value.set_at ? `set at ${value.set_at}` : "not set",
    ].filter((text) => text !== "");
    return make("div", {className: value.is_tried ? "value is-tried" : "value"}, [
      make("div", {className: "head"}, [make("label", {htmlFor: id}, [value.key]), input, value.unit ?? ""]),
      make("p", {id: `${id}-about`}, [about.join("; ")])]);
  }

  /** Up and down change a number by a twentieth of itself. @param {KeyboardEvent} event @param {Value} value @param {HTMLInputElement} input @param {(text: string) => void} attempt */
  nudge(event, value, input, attempt) {
    const way = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    if (way === 0) return;
    event.preventDefault();
    const size = Math.max(Math.abs(Number(input.value)), 0.1);
    const step = value.is_whole ? 1 : 10 ** Math.floor(Math.log10(size * 0.5)) ;
    const next = Math.min(value.high ?? Infinity, Math.max(value.low ?? -Infinity, Number(input.value) + way * step));
    input.value = String(Number(next.toFixed(6)));
    attempt(input.value);
  }
}
