/** What the page has to tell over the picture: the file's faults, what was refused, what changed. */

import {byId, make} from "./dom.js";

export class Notes {
  /**
   * @param {import("./talk.js").Talk} talk
   * @param {import("./tabs.js").Tabs} tabs
   */
  constructor(talk, tabs) {
    this.faults = make("div", {className: "note bad", role: "alert", hidden: true});
    this.refused = make("div", {className: "note bad", role: "alert", hidden: true});
    this.changes = make("div", {className: "note ghost", id: "changed", hidden: true});
    byId("notes").append(this.changes, this.refused, this.faults);
    tabs.onShow = () => this.showChanges(tabs);
    talk.on("faults", (message) => this.takeFaults(message.list));
    talk.on("refused", (message) => this.takeRefused(message.why));
    talk.on("changes", (message) => this.takeChanges(tabs, message));
    talk.on("link", ({isOpen}) => {
      byId("link").textContent = isOpen ? "" : "Gaze has gone; this page comes back when it does.";
    });
  }

  hasGhost = false;

  /** The panel of values lists them itself. @param {import("./tabs.js").Tabs} tabs */
  showChanges(tabs) {
    this.changes.hidden = !this.hasGhost || tabs.shown === "values";
  }

  /** @param {{place: string, message: string, line: string}[]} list */
  takeFaults(list) {
    this.faults.hidden = list.length === 0;
    this.faults.replaceChildren(
      make("h2", {}, ["The file cannot be played; the last good level goes on"]),
      make("ul", {tabIndex: 0}, list.map((fault) => make("li", {}, [
        `${fault.place}: ${fault.message}`, ...(fault.line ? [make("pre", {}, [fault.line])] : []),
      ]))));
  }

  /** @param {string} why */
  takeRefused(why) {
    this.refused.hidden = false;
    this.refused.textContent = why;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => { this.refused.hidden = true; }, 6000);
  }

  /** @type {ReturnType<typeof setTimeout> | undefined} */
  timer = undefined;

  /** @param {import("./tabs.js").Tabs} tabs @param {any} message */
  takeChanges(tabs, message) {
    this.hasGhost = message.has_ghost;
    this.showChanges(tabs);
    const count = message.list.length;
    const text = count === 0 ? "Nothing is otherwise than in the play before (dotted)."
      : `${count} ${count === 1 ? "thing is" : "things are"} otherwise than in the play before (dotted).`;
    this.changes.replaceChildren(make("p", {className: "row"}, [
      text, make("button", {type: "button", onclick: () => tabs.show("values")}, ["Show"])]));
  }
}
