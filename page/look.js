/**
 * How shapes look, by what they mean: the inks, dashes and patterns of Gaze's pictures. No meaning
 * rests on colour alone.
 *
 * @typedef {object} Palette
 * @property {string} paper
 * @property {string} plate
 * @property {string} ink
 * @property {string} calm
 * @property {string} alert
 * @property {string} stopped
 * @property {string} shot
 * @property {string[]} materials
 * @property {string[]} teams
 *
 * @typedef {object} Stroke
 * @property {keyof Palette} colour
 * @property {number} width  Pixels.
 * @property {number[]} [dash]
 * @property {number} [opacity]
 * @property {number} [fill]  Opacity of a filling in the same colour.
 */

/** @type {Record<string, Stroke>} */
export const STROKES = {
  ground: {colour: "ink", width: 2},
  bounds: {colour: "ink", width: 1.6, dash: [14, 4, 2, 4, 2, 4]},
  seen_calm: {colour: "calm", width: 1.1, dash: [7, 3], fill: 0.15},
  seen_alert: {colour: "alert", width: 1.6, fill: 0.24},
  field: {colour: "ink", width: 1, dash: [1.5, 4], opacity: 0.45},
  walkway_rim: {colour: "ink", width: 1.2, opacity: 0.6},
  walkway_up: {colour: "ink", width: 1.2, dash: [4, 3], opacity: 0.6},
  solid_gone: {colour: "ink", width: 1, dash: [2, 4], opacity: 0.6},
  blast: {colour: "shot", width: 1.2, dash: [3, 3]},
  blast_clear: {colour: "shot", width: 1.6, fill: 0.2},
  nearness: {colour: "calm", width: 1.4, dash: [2, 4]},
  noise: {colour: "shot", width: 1.6, dash: [10, 4], opacity: 0.7},
  feeler_reach: {colour: "calm", width: 3, opacity: 0.25},
  feeler: {colour: "calm", width: 1.4},
  feeler_finds: {colour: "alert", width: 2.4},
  sight_clear: {colour: "alert", width: 2.2},
  sight_outside: {colour: "ink", width: 1.2, dash: [8, 3, 2, 3]},
  sight_stopped: {colour: "stopped", width: 1.6, dash: [6, 3]},
  sight_beyond: {colour: "stopped", width: 1.2, dash: [1, 4], opacity: 0.6},
  beam: {colour: "alert", width: 3},
  target: {colour: "alert", width: 2},
  hit: {colour: "shot", width: 1.6},
};

/** What can be switched on and off together, and what belongs to it. */
export const LAYERS = [
  {name: "seen", label: "Seen areas", meanings: ["seen_calm", "seen_alert", "field"]},
  {name: "sight", label: "Lines of sight",
   meanings: ["sight_clear", "sight_outside", "sight_stopped", "sight_beyond"]},
  {name: "feelers", label: "Feelers and rings",
   meanings: ["feeler_reach", "feeler", "feeler_finds", "nearness"]},
  {name: "noises", label: "Noises", meanings: ["noise"]},
  {name: "paths", label: "Ways ahead", meanings: ["way"]},
  {name: "trails", label: "Trails", meanings: ["trail"]},
  {name: "zones", label: "Zones", meanings: ["zone"]},
  {name: "harm", label: "Shots, beams, blasts",
   meanings: ["blast", "blast_clear", "beam", "shot", "hit"]},
  {name: "names", label: "Names", meanings: []},
  {name: "numbers", label: "Mode and health", meanings: []},
];

/**
 * A pattern of lines for a material, so that materials are told apart without colour.
 * @param {CanvasRenderingContext2D} context
 * @param {string} colour
 * @param {number} material
 * @param {boolean} stopsSight
 */
export function materialPattern(context, colour, material, stopsSight) {
  const size = 14;
  const tile = new OffscreenCanvas(size, size);
  const ink = /** @type {OffscreenCanvasRenderingContext2D} */ (tile.getContext("2d"));
  ink.globalAlpha = stopsSight ? 0.55 : 0.12;
  ink.fillStyle = colour;
  ink.fillRect(0, 0, size, size);
  ink.globalAlpha = 1;
  ink.strokeStyle = colour;
  ink.beginPath();
  const style = material % 6;
  for (let at = -size; at <= 2 * size; at += 7) {
    if (style === 0 || style === 3) { ink.moveTo(at, size); ink.lineTo(at + size, 0); }
    if (style === 1 || style === 3) { ink.moveTo(at, 0); ink.lineTo(at + size, size); }
    if (style === 4) { ink.moveTo(at + 0.5, 0); ink.lineTo(at + 0.5, size); }
    if (style === 5) { ink.moveTo(0, at + 0.5); ink.lineTo(size, at + 0.5); }
  }
  ink.stroke();
  if (style === 2) {
    ink.fillStyle = colour;
    for (const x of [3.5, 10.5]) for (const y of [3.5, 10.5]) {
      ink.beginPath();
      ink.arc(x, y, 1.2, 0, 7);
      ink.fill();
    }
  }
  return context.createPattern(tile, "repeat");
}
