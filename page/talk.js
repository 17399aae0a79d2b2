/**
 * What the page hears and says. Parts of the page listen for messages by their name; frames come
 * as "level frame", "moment frame" and "ghost frame".
 *
 * @typedef {Record<string, any>} Message
 * @typedef {(message: any) => void} Listener
 */

import {readFrame} from "./frame.js";

export class Talk {
  constructor() {
    /** @type {Map<string, Listener[]>} */
    this.listeners = new Map();
    /** @type {WebSocket | null} */
    this.socket = null;
    /** False where there is nobody to talk to: in a replay. */
    this.isLive = true;
  }

  /**
   * @param {string} name
   * @param {Listener} listener
   */
  on(name, listener) {
    const known = this.listeners.get(name) ?? [];
    known.push(listener);
    this.listeners.set(name, known);
  }

  /**
   * @param {string} name
   * @param {any} message
   */
  tell(name, message) {
    for (const listener of this.listeners.get(name) ?? []) listener(message);
  }

  /** @param {Message} message */
  say(message) {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }

  /** Talks to the server that this page came from, and tries again whenever it has gone. */
  open() {
    const address = new URL("talk", document.baseURI);
    address.protocol = "ws:";
    const socket = new WebSocket(address);
    socket.binaryType = "arraybuffer";
    this.socket = socket;
    socket.onopen = () => this.tell("link", {isOpen: true});
    socket.onmessage = (event) => this.hear(event.data);
    socket.onclose = () => {
      this.tell("link", {isOpen: false});
      setTimeout(() => this.open(), 1000);
    };
  }

  /** @param {string | ArrayBuffer} data */
  hear(data) {
    if (typeof data === "string") {
      const message = JSON.parse(data);
      this.tell(message.tell, message);
      return;
    }
    const frame = readFrame(data);
    this.tell(`${frame.of} frame`, frame);
  }
}
