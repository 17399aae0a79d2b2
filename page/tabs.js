/** Panels under tabs: arrows move between the tabs, as ARIA has it. */

import {byId, make} from "./dom.js";

export class Tabs {
  constructor() {
    /** @type {{tab: HTMLElement, panel: HTMLElement}[]} */
    this.all = [];
  }

  /** @param {string} id @param {string} label @param {HTMLElement} content */
  add(id, label, content) {
    const tab = make("button", {type: "button", role: "tab", id: `tab-${id}`, "aria-controls": `panel-${id}`}, [label]);
    const panel = make("div", {role: "tabpanel", id: `panel-${id}`, "aria-labelledby": `tab-${id}`, tabIndex: 0}, [content]);
    tab.addEventListener("click", () => this.show(id));
    tab.addEventListener("keydown", (event) => this.move(event));
    byId("tabs").append(tab);
    byId("panels").append(panel);
    this.all.push({tab, panel});
    if (this.all.length === 1) this.show(id); else this.show(this.shown);
  }

  shown = "";
  /** Called whenever another panel is shown. */
  onShow = () => {};

  /** @param {string} id */
  show(id) {
    this.shown = id;
    this.onShow();
    for (const {tab, panel} of this.all) {
      const isShown = tab.id === `tab-${id}`;
      tab.setAttribute("aria-selected", String(isShown));
      tab.tabIndex = isShown ? 0 : -1;
      panel.hidden = !isShown;
      if (isShown) panel.firstElementChild?.dispatchEvent(new Event("shown"));
    }
  }

  /** @param {KeyboardEvent} event */
  move(event) {
    const at = this.all.findIndex(({tab}) => tab === event.target);
    /** @type {Record<string, number>} */
    const to = {ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: this.all.length - 1};
    const next = to[event.key];
    if (next === undefined) return;
    event.preventDefault();
    const {tab} = this.all[(next + this.all.length) % this.all.length];
    tab.focus();
    this.show(tab.id.slice("tab-".length));
  }
}
