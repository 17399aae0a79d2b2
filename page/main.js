/** Puts the page together. */

import {Clock} from "./clock.js";
import {byId} from "./dom.js";
import {Hand} from "./hand.js";
import {layersPanel} from "./layers.js";
import {Notes} from "./notes.js";
import {Stage} from "./stage.js";
import {Tabs} from "./tabs.js";
import {Talk} from "./talk.js";
import {Timeline} from "./timeline.js";
import {Values} from "./values.js";
import {Why} from "./why.js";
import {Events} from "./events.js";
import {Checks} from "./checks.js";
import {Takes} from "./takes.js";

const talk = new Talk();
const stage = new Stage(talk);
const clock = new Clock(talk);
const hand = new Hand(talk, stage, clock);
new Timeline(talk);
new Notes(talk);
const tabs = new Tabs();
const why = new Why(talk, stage, tabs);
tabs.add("why", "Why", why.panel);
tabs.add("values", "Values", new Values(talk, stage).panel);
tabs.add("checks", "Checks", new Checks(talk, stage).panel);
tabs.add("events", "Events", new Events(talk).panel);
tabs.add("takes", "Takes", new Takes(talk, hand).panel);
tabs.add("layers", "Layers", layersPanel(talk, stage));
talk.on("level", (level) => {
  byId("name").textContent = level.name;
  document.title = `${level.name} \u00b7 Gaze`;
});
talk.open();
