/** Small helpers to make elements. */

/**
 * @template {keyof HTMLElementTagNameMap} K
 * @param {K} tag
 * @param {Record<string, any>} [properties]  Attributes have a dash or begin with "aria", "role".
 * @param {(Node | string)[]} [children]
 * @returns {HTMLElementTagNameMap[K]}
 */
export function make(tag, properties = {}, children = []) {
  const element = document.createElement(tag);
  for (const [name, value] of Object.entries(properties)) {
    if (name.includes("-") || name === "role" || name === "for") {
      element.setAttribute(name, String(value));
    } else {
      /** @type {any} */ (element)[name] = value;
    }
  }
  element.append(...children);
  return element;
}

/**
 * @param {string} tag
 * @param {Record<string, string | number>} [attributes]
 * @param {(Node | string)[]} [children]
 */
export function makeSvg(tag, attributes = {}, children = []) {
  const element = document.createElementNS("http://www.w3.org/2000/svg", tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value));
  element.append(...children);
  return element;
}

/**
 * @param {string} id
 * @returns {HTMLElement}
 */
export function byId(id) {
  const element = document.getElementById(id);
  if (element === null) throw new Error(`no element ${id}`);
  return element;
}

/** @param {number} value */
export function seconds(value) {
  return `${value.toFixed(3)} s`;
}

/**
 * Fills a select, and keeps what was chosen if that is still there.
 * @param {HTMLSelectElement} select
 * @param {string[]} names
 * @param {string} [chosen]
 */
export function fill(select, names, chosen = select.value) {
  select.replaceChildren(...names.map((name) => make("option", {value: name}, [name || "nobody"])));
  select.value = names.includes(chosen) ? chosen : names[0] ?? "";
}
