/** Which layers are drawn. */

import {make} from "./dom.js";
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
      if (box.checked) stage.hidden.delete(layer.name); else stage.hidden.add(layer.name);
      stage.isGroundOld = true;
      stage.draw();
      if (layer.name === "trails") talk.say({do: "layers", trails: box.checked});
    });
    panel.append(make("p", {className: "row"}, [box, make("label", {htmlFor: box.id}, [layer.label])]));
  }
  return panel;
}
