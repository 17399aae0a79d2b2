/** Which layers are drawn. */

import {fill, make} from "./dom.js";
import {LAYERS} from "./look.js";

/**
 * @param {import("./talk.js").Talk} talk
 * @param {import("./stage.js").Stage} stage
 */
export function layersPanel(talk, stage) {
  const panel = make("div");
  for (const layer of LAYERS) {
    const box = make("input", {type: "checkbox", id: `layer-${layer.name}`, checked: true});
    box.addEventListener("change", () => {
      if (box.checked) stage.scene.hidden.delete(layer.name); else stage.scene.hidden.add(layer.name);
      stage.drawAll();
      if (layer.name === "trails") talk.say({do: "layers", trails: box.checked});
    });
    panel.append(make("p", {className: "row"}, [box, make("label", {htmlFor: box.id}, [layer.label])]));
  }
  if (talk.isLive) panel.append(overlays(talk, stage));
  return panel;
}

/** The pattern of one island or attack. @param {import("./stage.js").Stage} stage @param {number} number */
function swatch(stage, number) {
  const canvas = make("canvas", {width: 28, height: 14});
  const context = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
  context.fillStyle = stage.painter.marks.pattern(context, number + 1, stage.scene.overlay !== "mesh");
  context.fillRect(0, 0, 28, 14);
  return canvas;
}

/**
 * What is laid over the level for one agent.
 * @param {import("./talk.js").Talk} talk
 * @param {import("./stage.js").Stage} stage
 */
function overlays(talk, stage) {
  const what = make("select", {id: "overlay-what"}, [
    make("option", {value: ""}, ["nothing"]), make("option", {value: "mesh"}, ["where its body can be"]),
    make("option", {value: "reach"}, ["what its attacks reach"])]);
  const whose = make("select", {id: "overlay-agent"});
  const legend = make("ul", {className: "list", id: "overlay-names"});
  const say = () => talk.say({do: "overlay", what: what.value, agent: whose.value});
  what.addEventListener("change", say);
  whose.addEventListener("change", say);
  talk.on("level", (level) => {
    fill(whose, level.agents.map((/** @type {any} */ agent) => agent.id));
    if (what.value !== "") say();
  });
  talk.on("overlay", ({names}) => legend.replaceChildren(...names.map((/** @type {string} */ name, /** @type {number} */ i) =>
    make("li", {className: "row"}, [swatch(stage, i), name]))));
  return make("div", {}, [
    make("h2", {}, ["Laid over the level"]),
    make("p", {className: "row"}, [make("label", {htmlFor: "overlay-what"}, ["Show"]), what]),
    make("p", {className: "row"}, [make("label", {htmlFor: "overlay-agent"}, ["of"]), whose]), legend]);
}
