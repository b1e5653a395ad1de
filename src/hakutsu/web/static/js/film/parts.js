/** The order of the page's parts: what was asked for earlier never replaces what was asked for later. */

export class Parts {
  asked = 0;
  shown = 0;
  /** What was asked for and is still to come: while something newer is on its way, older parts are not drawn. @type {Set<number>} */
  coming = new Set();
  /** When parts were asked for, by what they were asked with. @type {WeakMap<object, number>} */
  by = new WeakMap();

  /** Parts are asked for; gives their number. @param {object} [context] what they are asked with */
  ask(context) {
    this.coming.add(++this.asked);
    if (context) this.by.set(context, this.asked);
    return this.asked;
  }

  /** They came, or are not going to. @param {object | number} what their number, or what they were asked with */
  ended(what) {
    const order = this.numberOf(what);
    this.coming.delete(order);
    return order;
  }

  /** Whether parts may be drawn; if so, nothing older is from now on. @param {number} order */
  draws(order) {
    if (order <= this.shown || [...this.coming].some((one) => one > order)) return false;
    this.shown = order;
    return true;
  }

  /** @param {object | number} what */
  numberOf(what) {
    return typeof what === "number" ? what : (this.by.get(what) ?? 0);
  }
}
