/** All events as a list; a click goes to the moment. */

import {make} from "./dom.js";

const MOST = 400;

export class Events {
  /** @param {import("./talk.js").Talk} talk */
  constructor(talk) {
    this.talk = talk;
    this.rate = 60;
    /** @type {import("./timeline.js").GameEvent[]} */
    this.events = [];
    this.filter = make("select", {id: "event-filter", onchange: () => this.draw()});
    this.list = make("ol", {className: "list"});
    this.count = make("p", {className: "soft"});
    this.panel = make("div", {}, [
      make("p", {className: "row"}, [make("label", {htmlFor: "event-filter"}, ["Of"]), this.filter]),
      this.count, this.list]);
    talk.on("level", (level) => {
      this.rate = level.ticks_per_second;
      this.events = [];
      const chosen = this.filter.value;
      this.filter.replaceChildren(make("option", {value: ""}, ["everybody"]),
        ...level.agents.map((/** @type {any} */ agent) => make("option", {value: agent.id}, [agent.id])));
      this.filter.value = chosen;
      this.draw();
    });
    talk.on("events", (message) => {
      this.events.length = message.from;
      this.events.push(...message.list);
      this.draw();
    });
    this.isOld = false;
    this.panel.addEventListener("shown", () => this.fill());
  }

  draw() {
    if (this.isOld) return;
    this.isOld = true;
    setTimeout(() => { this.isOld = false; this.fill(); }, 150);
  }

  fill() {
    if (this.panel.offsetParent === null) return;  // nobody sees it; it is filled once it is shown
    const id = this.filter.value;
    const mine = this.events.filter((event) => id === "" || event.agent === id || event.other === id);
    this.count.textContent = mine.length > MOST ? `the last ${MOST} of ${mine.length}` : `${mine.length} events`;
    this.list.replaceChildren(...mine.slice(-MOST).reverse().map((event) =>
      make("li", {}, [make("button", {type: "button", onclick: () => this.talk.say({do: "go_to", tick: event.tick})},
        [make("time", {}, [(event.tick / this.rate).toFixed(3)]), event.text])])));
  }
}
