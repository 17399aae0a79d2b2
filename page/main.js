/** Puts the page together. */

import {Clock} from "./clock.js";
import {byId} from "./dom.js";
import {Hand} from "./hand.js";
import {layersPanel} from "./layers.js";
import {Notes} from "./notes.js";
import {Replay} from "./replay.js";
import {Stage} from "./stage.js";
import {Tabs} from "./tabs.js";
import {Talk} from "./talk.js";
import {Timeline} from "./timeline.js";
import {Values} from "./values.js";
import {Why} from "./why.js";
import {Events} from "./events.js";
import {Checks} from "./checks.js";
import {Takes} from "./takes.js";

const data = document.getElementById("replay");
const talk = data === null ? new Talk() : new Replay(data);
document.body.classList.toggle("replay", !talk.isLive);
const stage = new Stage(talk);
const clock = new Clock(talk);
const hand = new Hand(talk, stage, clock);
new Timeline(talk);
const tabs = new Tabs();
new Notes(talk, tabs);
tabs.add("why", "Why", new Why(talk, stage, tabs).panel);
tabs.add("values", "Values", new Values(talk, stage).panel);
tabs.add("checks", "Checks", new Checks(talk, stage).panel);
tabs.add("events", "Events", new Events(talk).panel);
if (talk.isLive) tabs.add("takes", "Takes", new Takes(talk, hand).panel);
tabs.add("layers", "Layers", layersPanel(talk, stage));
talk.on("level", (level) => {
  byId("name").textContent = level.name;
  document.title = `${level.name} \u00b7 Gaze`;
});
// Whoever clicks a button goes on to play: the space bar is to fire then, not to click again.
document.addEventListener("click", (event) => {
  const button = /** @type {HTMLElement} */ (event.target).closest("header button, #view button");
  if (event.detail > 0 && button !== null) byId("picture").focus();
});
talk.open();
