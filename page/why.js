/**
 * Why: what one agent can tell of another at this moment, each number beside its limit, and what it
 * is about. Two clicks in the picture choose the two, or the lists do.
 */

import {fill, make, seconds} from "./dom.js";
import {Plot} from "./plot.js";

/** @type {Record<string, string>} */
const UNITS = {"field of view": "\u00b0", "vertical field of view": "\u00b0"};

export class Why {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./stage.js").Stage} stage
   * @param {import("./tabs.js").Tabs} tabs
   */
  constructor(talk, stage, tabs) {
    this.talk = talk;
    this.stage = stage;
    this.agent = make("select", {id: "why-agent", onchange: () => this.ask()});
    this.other = make("select", {id: "why-other", onchange: () => this.ask()});
    this.body = make("div", {id: "why-body", "aria-live": "off"});
    this.plot = new Plot(talk);
    this.panel = make("div", {}, [
      make("p", {className: "row"}, [
        make("label", {htmlFor: "why-agent"}, ["Why does"]), this.agent,
        make("label", {htmlFor: "why-other"}, ["perceive, or not,"]), this.other]),
      this.body, this.plot.panel]);
    talk.on("level", (level) => this.takeLevel(level));
    /** @type {any} */
    let last = null;
    const show = () => { if (last !== null && this.panel.offsetParent !== null) this.take(last); };
    talk.on("why", (message) => { last = message; show(); });
    this.panel.addEventListener("shown", show);
    /** The first of two clicks. */
    this.first = "";
    stage.canvas.addEventListener("click", (event) => this.click(event, tabs));
  }

  /** @param {any} level */
  takeLevel(level) {
    this.rate = level.ticks_per_second;
    const ids = level.agents.map((/** @type {any} */ agent) => agent.id);
    const player = level.agents.find((/** @type {any} */ agent) => agent.can_be_steered);
    const looker = level.agents.find((/** @type {any} */ agent) =>
      agent.has_sight && !agent.can_be_steered) ?? level.agents[0];
    const isFirst = this.agent.options.length === 0;
    fill(this.agent, ids, isFirst ? looker?.id : this.agent.value);
    fill(this.other, ["", ...ids], isFirst ? player?.id ?? "" : this.other.value);
    this.ask();
  }

  rate = 60;

  /** @param {MouseEvent} event @param {import("./tabs.js").Tabs} tabs */
  click(event, tabs) {
    const id = this.stage.agentUnder(event);
    if (id === "") return;
    if (this.first === "" || this.first === id) {
      this.first = id;
      this.agent.value = id;
      if (this.other.value === id) this.other.value = "";
    } else {
      this.agent.value = this.first;
      this.other.value = id;
      this.first = "";
    }
    tabs.show("why");
    this.ask();
  }

  ask() {
    this.stage.scene.marked.pair = [this.agent.value, this.other.value].filter((id) => id !== "");
    this.stage.draw();
    this.talk.say({do: "ask", agent: this.agent.value, other: this.other.value});
  }

  /** @param {any} message */
  take(message) {
    if (message.agent !== this.agent.value || message.other !== this.other.value) return;
    if (message.isUnknown) {
      this.body.replaceChildren(make("p", {className: "soft"}, ["Neither looks for the other: this replay has no answer."]));
      return;
    }
    const parts = [make("h2", {}, [`At ${seconds(message.tick / this.rate)}`]), this.state(message)];
    if (message.why !== undefined) {
      parts.push(this.tests(message.why), this.reasons(message));
    }
    this.body.replaceChildren(...parts);
  }

  /** @param {any} message */
  state(message) {
    const rows = [["mode", message.mode], ["health", `${Math.round(message.health * 100) / 100}`]];
    if (message.target !== undefined) rows.push(["acts on", message.target]);
    if (message.going !== undefined) rows.push(["moves", message.going]);
    return list(rows);
  }

  /** @param {any} why */
  tests(why) {
    const rows = why.tests.map((/** @type {any} */ test) => {
      const unit = UNITS[test.test] ?? " m";
      const isLine = test.visible !== undefined;
      const value = isLine ? `${Math.round(test.visible * 100)} %` : test.value === undefined ? test.side ?? "" : `${test.value.toFixed(2)}${unit}`;
      const limit = isLine ? `above ${Math.round(test.limit * 100)} %` : test.limit === undefined ? "" : `${test.limit.toFixed(2)}${unit}`;
      const by = test.blocked_by ?? test.finds ?? test.noise;
      return make("tr", {}, [
        make("th", {scope: "row"}, by === undefined ? [test.test] : [`${test.test} (${by})`]),
        make("td", {className: "number"}, [value]), make("td", {className: "number"}, [limit]),
        make("td", {className: test.pass ? "" : "fails"}, [test.pass ? "passes" : "fails"])]);
    });
    return make("table", {}, [
      make("caption", {className: "soft"}, [why.sees ? `${why.agent} sees ${why.other}` : `${why.agent} does not see ${why.other}`]),
      make("thead", {}, [make("tr", {}, ["test", "is", "limit", "so it"].map((text, i) =>
        make("th", {scope: "col", className: i === 1 || i === 2 ? "number" : ""}, [text])))]),
      make("tbody", {}, rows)]);
  }

  /** @param {any} message */
  reasons(message) {
    const why = message.why;
    const rows = [["because", why.reason]];
    for (const test of why.tests) if (test.text !== undefined) rows.push([test.test, test.text]);
    if (why.it_would_take) rows.push(["it would take", why.it_would_take.text]);
    if (why.would_end_it) rows.push(["would end it", why.would_end_it.text]);
    if (why.evidence) rows.push(["evidence", `${Math.round(why.evidence.gathered * 100)} %${why.sees ? `, gathers at ${Math.round(why.evidence.rate * 100)} % of its full rate` : ""}`]);
    const by = why.noticed_by ? ` by ${why.noticed_by === "told" ? "being told" : why.noticed_by}` : "";
    /** @type {Record<string, string>} */
    const words = {unaware: "is unaware of it", gathering: "begins to see it", noticed: `has noticed it${by}`, remembers: `remembers it${by}`};
    rows.push(["so far", words[message.awareness]]);
    if (message.last_place) rows.push(["last known at", `[${message.last_place.map((/** @type {number} */ n) => n.toFixed(2)).join(", ")}]`]);
    for (const attack of why.attacks) rows.push([attack.attack, attack.can ? "can be made" : attack.reason]);
    rows.push(["moves", why.way.reason]);
    return list(rows);
  }
}

/** @param {string[][]} rows */
function list(rows) {
  return make("dl", {}, rows.flatMap(([name, text]) => [make("dt", {}, [name]), make("dd", {}, [text])]));
}
