/** Findings, expectations and figures of the level; a click shows the place. */

import {make} from "./dom.js";

export class Checks {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./stage.js").Stage} stage
   */
  constructor(talk, stage) {
    this.talk = talk;
    this.stage = stage;
    this.figures = make("div", {id: "figures"});
    this.expectations = make("div", {id: "expectations"});
    this.findings = make("div", {id: "findings"});
    this.panel = make("div", {}, [
      make("h2", {}, ["Figures of this play"]), this.figures,
      make("h2", {}, ["Expectations of the level"]), this.expectations,
      make("h2", {}, ["Findings about the level"]), this.findings]);
    /** @type {any[]} */
    let figures = [];
    const show = () => { if (this.panel.offsetParent !== null) this.takeFigures(figures); };
    talk.on("figures", ({list}) => { figures = list; show(); });
    this.panel.addEventListener("shown", show);
    talk.on("checks", (message) => this.takeChecks(message));
  }

  /** @param {any[]} list */
  takeFigures(list) {
    this.figures.replaceChildren(make("table", {}, [make("tbody", {}, list.map((figure) => {
      const value = figure.tick === undefined ? figure.text
        : make("button", {type: "button", title: "Go there", onclick: () => this.talk.say({do: "go_to", tick: figure.tick})}, [figure.text]);
      return make("tr", {title: figure.what}, [make("th", {scope: "row"}, [figure.name]), make("td", {className: "number"}, [value])]);
    }))]));
  }

  /** @param {any} message */
  takeChecks(message) {
    this.expectations.replaceChildren(message.is_done
      ? make("ul", {className: "list"}, message.expectations.map((/** @type {any} */ one) => make("li", {}, [
          make("strong", {className: one.holds ? "" : "fails"}, [one.holds ? "holds: " : "fails: "]),
          one.text, ...one.reasons.map((/** @type {string} */ reason) => make("p", {className: "soft"}, [reason]))])))
      : make("p", {className: "soft"}, ["being played ..."]));
    if (message.is_done && message.expectations.length === 0) this.expectations.textContent = "none";
    this.findings.replaceChildren(make("ul", {className: "list"}, message.findings.map((/** @type {any} */ one) =>
      make("li", {}, [one.place
        ? make("button", {type: "button", onclick: () => this.show(one.place)}, [text(one)])
        : make("p", {}, [text(one)])]))));
    if (message.findings.length === 0) this.findings.textContent = message.is_done ? "none" : "being judged ...";
  }

  /** @param {number[]} place */
  show(place) {
    this.stage.scene.marked.place = {x: place[0], y: place[1]};
    this.stage.draw();
  }
}

/** @param {any} finding */
function text(finding) {
  return `${finding.severity}: ${finding.message} (${finding.line > 0 ? `line ${finding.line}, ` : ""}${finding.code})`;
}
