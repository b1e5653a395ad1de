/**
 * The outbox: entries not yet acknowledged by the server, kept in IndexedDB so that a reload loses nothing.
 * @typedef {{id: string, at: string, kind: string, place?: string|null, body?: object, strikes?: string|null}} Draft
 * @typedef {{acknowledged: string[], refused: {id: string, field: string, message: string}[], fragments?: Record<string, string>}} Reply
 */

const RETRY_MS = [500, 1000, 2000, 5000, 10000];
const BATCH = 200;

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
  chip.textContent = waiting ? `${waiting} ${offline ? "waiting for the server, kept on this device" : "saving"}` : "saved";
  chip.classList.toggle("font-bold", offline);
}

export class Outbox {
  /**
   * @param {string} inspection
   * @param {{context: () => object, onReply: (reply: Reply) => void, onState: (waiting: number, offline: boolean) => void,
   *   onRefused: (refused: {draft: Draft, field: string, message: string}[]) => void}} hooks
   */
  constructor(inspection, hooks) {
    this.inspection = inspection;
    this.hooks = hooks;
    this.database = openDatabase();
    this.failures = 0;
    this.batch = BATCH;
    this.sending = null;
    this.again = false;
    this.adding = 0;
    this.known = 0;
    addEventListener("online", () => this.send());
  }

  /** @returns {Promise<{order: number, inspection: string, draft: Draft}[]>} */
  async waiting() {
    const rows = await transact(await this.database, "readonly", (store) => store.getAll());
    return rows.filter((row) => row.inspection === this.inspection);
  }

  /** Keep entries, then send them. Resolves once they are kept on this device. @param {Draft[]} drafts */
  async add(drafts) {
    this.adding += drafts.length;
    // Said before the device has kept it: "saved" must never stand beside something that is not.
    this.say(this.known);
    try {
      await transact(await this.database, "readwrite", (store) => {
        for (const draft of drafts) store.add({ inspection: this.inspection, draft });
      });
    } finally {
      this.adding -= drafts.length;
    }
    this.send();
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
      let reply;
      try {
        reply = await this.post(rows.slice(0, this.batch).map((row) => row.draft));
      } catch {
        this.failures += 1;
        this.say(rows.length);
        this.timer = setTimeout(() => this.send(), RETRY_MS[Math.min(this.failures, RETRY_MS.length) - 1]);
        return;
      }
      this.failures = 0;
      await this.settle(rows, reply);
    }
    this.say(0);
  }

  /** @param {Draft[]} drafts @returns {Promise<Reply>} */
  async post(drafts) {
    const response = await fetch(`/inspections/${this.inspection}/entries`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify({ entries: drafts, ...this.hooks.context() }),
    });
    if (response.ok) return response.json();
    if (response.status === 422) {
      const said = await response.json();
      const message = said.message || "the server does not understand this entry";
      // One entry that cannot be read must not take its neighbours with it: send them one by one.
      const alone = drafts.length === 1;
      this.batch = alone ? BATCH : 1;
      return { acknowledged: [], refused: alone ? [{ id: drafts[0].id, field: said.field || "", message }] : [] };
    }
    throw new Error(`server answered ${response.status}`);
  }

  /** Drop what the server answered for; hand refused entries back. */
  async settle(rows, reply) {
    const answered = new Set([...reply.acknowledged, ...reply.refused.map((one) => one.id)]);
    await transact(await this.database, "readwrite", (store) => {
      for (const row of rows) if (answered.has(row.draft.id)) store.delete(row.order);
    });
    const refused = reply.refused.map((one) => ({
      ...one,
      draft: rows.find((row) => row.draft.id === one.id).draft,
    }));
    this.hooks.onReply(reply);
    if (refused.length) this.hooks.onRefused(refused);
  }
}

/** A draft with a fresh id and the present time. @param {string} kind @param {object} body @returns {Draft} */
export function draft(kind, body, envelope = {}) {
  return { id: crypto.randomUUID(), at: new Date().toISOString(), kind, body, ...envelope };
}
