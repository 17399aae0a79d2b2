/** Bodies: their shape says the team, as in Gaze's pictures. */

/**
 * @param {CanvasRenderingContext2D} context
 * @param {{x: number, y: number, wide: number, tall: number}} box  Half sizes.
 * @param {number | null} team
 * @param {string} colour
 * @param {string} paper
 * @param {boolean} isAlive
 */
export function paintBody(context, box, team, colour, paper, isAlive) {
  const {x, y, wide, tall} = box;
  context.beginPath();
  if (tall > 1.5 * wide || (team !== null && team % 4 === 2)) {
    context.rect(x - wide, y - tall, 2 * wide, 2 * tall);
  } else if (team === null || team % 4 === 0) {
    context.arc(x, y, wide, 0, 7);
  } else {
    context.moveTo(x - 1.25 * wide, y);
    context.lineTo(x, y - 1.25 * tall);
    context.lineTo(x + 1.25 * wide, y);
    context.lineTo(x, y + 1.25 * tall);
    context.closePath();
  }
  context.fillStyle = isAlive ? colour : paper;
  context.fill();
  context.strokeStyle = isAlive ? paper : colour;
  context.lineWidth = 1.5;
  context.stroke();
  if (isAlive) return;
  context.beginPath();
  context.moveTo(x - wide, y - tall);
  context.lineTo(x + wide, y + tall);
  context.moveTo(x - wide, y + tall);
  context.lineTo(x + wide, y - tall);
  context.lineWidth = 2;
  context.stroke();
}

/**
 * @param {CanvasRenderingContext2D} context
 * @param {{x: number, y: number}} middle
 * @param {{x: number, y: number}} facing  Of length 1.
 * @param {number} reach
 * @param {import("./look.js").Palette} palette
 */
export function paintNose(context, middle, facing, reach, palette) {
  const side = {x: -facing.y * reach * 0.55, y: facing.x * reach * 0.55};
  const base = {x: middle.x + facing.x * reach * 0.1, y: middle.y + facing.y * reach * 0.1};
  context.beginPath();
  context.moveTo(base.x + side.x, base.y + side.y);
  context.lineTo(middle.x + facing.x * (reach + 7), middle.y + facing.y * (reach + 7));
  context.lineTo(base.x - side.x, base.y - side.y);
  context.closePath();
  context.fillStyle = palette.paper;
  context.fill();
  context.strokeStyle = palette.ink;
  context.lineWidth = 1.2;
  context.stroke();
}
