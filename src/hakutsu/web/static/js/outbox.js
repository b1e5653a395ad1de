/**
 * The outbox: entries not yet acknowledged by the server, kept in IndexedDB so that a reload loses nothing. One that the
 * server will not take steps aside with its reason, and those behind it go on.
 * @typedef {{id: string, at: string, kind: string, place?: string|null, body?: Record<string, unknown>, strikes?: string|null}} Draft
 * @typedef {{id: string, field: string, message: string}} Refusal
 * @typedef {Refusal & {draft: Draft}} Refused
 * @typedef {{acknowledged: string[], refused: Refusal[]}} Reply
 * @typedef {{field: string, message: string}} Reason
 * @typedef {{order: number, inspection: string, draft: Draft, aside?: Reason}} Row
 * @typedef {{
 *   context: () => Record<string, string>,
 *   onReply: (reply: Reply) => void,
 *   onParts: (parts: Record<string, string>, context: Record<string, string>) => unknown,
 *   onState: (waiting: number, offline: boolean) => void,
 *   onRefused: (refused: Refused[]) => void,
 *   onMissed?: (context: Record<string, string>) => void,
 * }} Hooks `context` says which parts of the page follow, by its view; `onMissed`: those asked for with it will not come
 */

import { showAside } from "./aside.js";
import { ask, Refused as NotTaken } from "./server.js";

const RETRY_MS = [500, 1000, 2000, 5000, 10000];
const BATCH = 200;
const TEMPORARY = new Set([408, 425, 429, 502, 503, 504, 507]);
const LASTING = 3; // so often may one entry alone meet a fault of the server before it steps aside

/** @returns {Promise<IDBDatabase>} */
function openDatabase() {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open("hakutsu", 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore("waiting", { keyPath: "order", autoIncrement: true });
    };
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });
}

/**
 * @param {IDBDatabase} database
 * @param {IDBTransactionMode} mode
 * @param {(store: IDBObjectStore) => IDBRequest|void} work
 * @returns {Promise<any>}
 */
function transact(database, mode, work) {
  return new Promise((resolve, reject) => {
    const transaction = database.transaction("waiting", mode, { durability: "strict" });
    const request = work(transaction.objectStore("waiting"));
    transaction.oncomplete = () => resolve(request ? request.result : undefined);
    transaction.onerror = () => reject(transaction.error);
    transaction.onabort = () => reject(transaction.error);
  });
}

/** Says in the page's head whether everything is stored. @param {number} waiting @param {boolean} offline */
export function showSaved(waiting, offline) {
  const chip = document.querySelector("#saved");
  if (!chip) return;
  const rest = document.querySelector("#aside-open") ? "the rest is saved" : "saved";
  chip.textContent = waiting ? `${waiting} ${offline ? "waiting for the server, kept on this device" : "saving"}` : rest;
  chip.classList.toggle("font-bold", offline);
}

export class Outbox {
  /** @param {string} inspection @param {Hooks} hooks */
  constructor(inspection, hooks) {
    this.inspection = inspection;
    this.hooks = hooks;
    this.database = openDatabase();
    this.failures = 0;
    this.batch = BATCH;
    /** @type {Promise<void> | null} */
    this.sending = null;
    this.timer = 0;
    this.again = false;
    this.adding = 0;
    this.known = 0;
    /** Ends asking for parts that newer ones replace. */
    this.following = new AbortController();
    /** How often the server failed at one entry sent alone. @type {Map<string, number>} */
    this.faults = new Map();
    addEventListener("online", () => this.send());
    this.showAside();
  }

  /** @returns {Promise<Row[]>} */
  async rows() {
    const rows = await transact(await this.database, "readonly", (store) => store.getAll());
    return rows.filter((/** @type {Row} */ row) => row.inspection === this.inspection);
  }

  /** What is still to be sent, in order. */
  async waiting() {
    return (await this.rows()).filter((row) => !row.aside);
  }

  /** What the server would not take. */
  async aside() {
    return (await this.rows()).filter((row) => row.aside);
  }

  async showAside() {
    showAside(await this.aside(), this);
    this.say(this.known);
  }

  /** Keep entries, then send them. Resolves once they are kept on this device. @param {Draft[]} drafts */
  async add(drafts) {
    this.adding += drafts.length;
    // Said before the device has kept it: "saved" must never stand beside something that is not.
    this.say(this.known);
    try {
      await transact(await this.database, "readwrite", (store) => {
        for (const one of drafts) store.add({ inspection: this.inspection, draft: one });
      });
    } finally {
      this.adding -= drafts.length;
    }
    this.send();
  }

  /** Send an entry that stepped aside once more, mended. @param {number} order @param {Draft} mended */
  async retry(order, mended) {
    const row = { order, inspection: this.inspection, draft: mended };
    await transact(await this.database, "readwrite", (store) => store.put(row));
    await this.showAside();
    this.send();
  }

  /** Give up entries that stepped aside, by their ids. @param {...string} ids */
  async drop(...ids) {
    const rows = (await this.aside()).filter((row) => ids.includes(row.draft.id));
    await transact(await this.database, "readwrite", (store) => {
      for (const row of rows) store.delete(row.order);
    });
    await this.showAside();
  }

  /** Tell the page how many entries are on their way. @param {number} waiting kept on this device */
  say(waiting) {
    this.known = waiting;
    this.hooks.onState(waiting + this.adding, this.failures > 0);
  }

  /** Send what waits, in order; only one sending runs at a time. */
  send() {
    if (this.sending) {
      this.again = true;
      return this.sending;
    }
    clearTimeout(this.timer);
    this.sending = this.sendAll().finally(() => {
      this.sending = null;
      if (this.again) {
        this.again = false;
        this.send();
      }
    });
    return this.sending;
  }

  async sendAll() {
    for (let rows = await this.waiting(); rows.length; rows = await this.waiting()) {
      this.say(rows.length);
      const batch = rows.slice(0, this.batch);
      try {
        const reply = await this.post(batch.map((row) => row.draft));
        this.failures = 0;
        this.batch = Math.min(BATCH, this.batch * 2);
        await this.settle(rows, reply);
        // Only the last of what waits brings the page's parts: nobody looks at those in between.
        if (batch.length === rows.length && !this.adding) this.follow();
      } catch (trouble) {
        if (await this.stepAside(batch, trouble)) continue;
        this.failures += 1;
        this.say(rows.length);
        this.timer = setTimeout(() => this.send(), RETRY_MS[Math.min(this.failures, RETRY_MS.length) - 1]);
        return;
      }
    }
    this.say(0);
  }

  /**
   * What to do about a batch that was not taken: true to go on at once, false to try again later. One entry that cannot be
   * taken must not take its neighbours with it: they are sent one by one, and that one steps aside.
   * @param {Row[]} batch @param {unknown} trouble
   */
  async stepAside(batch, trouble) {
    if (!(trouble instanceof NotTaken) || TEMPORARY.has(trouble.status)) return false;
    if (batch.length > 1) {
      this.batch = 1;
      return true;
    }
    const { id } = batch[0].draft;
    const times = (this.faults.get(id) ?? 0) + 1;
    this.faults.set(id, times);
    if (trouble.status >= 500 && times < LASTING) return false;
    this.faults.delete(id);
    const reason = { field: trouble.field, message: trouble.message };
    await this.putAside([{ ...batch[0], aside: reason }]);
    this.hooks.onRefused([{ id, ...reason, draft: batch[0].draft }]);
    return true;
  }

  /** @param {Row[]} rows */
  async putAside(rows) {
    await transact(await this.database, "readwrite", (store) => {
      for (const row of rows) store.put(row);
    });
    await this.showAside();
  }

  /** @param {Draft[]} drafts @returns {Promise<Reply>} */
  post(drafts) {
    return ask("POST", `/inspections/${this.inspection}/entries`, { entries: drafts });
  }

  /** Ask for the parts of the page that follow from what was stored; what is typed next waits for none of it. */
  async follow() {
    const context = this.hooks.context();
    if (!context.view) return;
    this.following.abort();
    this.following = new AbortController();
    const { signal } = this.following;
    document.documentElement.dataset.following = "yes";
    try {
      const parts = await ask("GET", `/inspections/${this.inspection}/fragments?${new URLSearchParams(context)}`, undefined, signal);
      if (signal.aborted) this.hooks.onMissed?.(context);
      else await this.hooks.onParts(parts, context);
    } catch {
      this.hooks.onMissed?.(context); // the parts shown stay until the next ones
    }
    if (!signal.aborted) delete document.documentElement.dataset.following;
  }

  /** Drop what the server has; what it refused steps aside. @param {Row[]} rows @param {Reply} reply */
  async settle(rows, reply) {
    const has = new Set(reply.acknowledged);
    const byId = new Map(rows.map((row) => [row.draft.id, row]));
    const refused = reply.refused.flatMap((one) => {
      const row = byId.get(one.id);
      return row ? [{ ...one, row }] : [];
    });
    await transact(await this.database, "readwrite", (store) => {
      for (const row of rows) if (has.has(row.draft.id)) store.delete(row.order);
      for (const { row, field, message } of refused) store.put({ ...row, aside: { field, message } });
    });
    this.hooks.onReply(reply);
    if (!refused.length) return;
    await this.showAside();
    this.hooks.onRefused(refused.map(({ row, ...one }) => ({ ...one, draft: row.draft })));
  }
}

/**
 * A draft with a fresh id and the present time.
 * @param {string} kind
 * @param {Record<string, unknown>} body
 * @param {Partial<Draft> & Record<string, unknown>} [envelope]
 * @returns {Draft}
 */
export function draft(kind, body, envelope = {}) {
  return { id: crypto.randomUUID(), at: new Date().toISOString(), kind, body, ...envelope };
}
