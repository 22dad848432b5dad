// What waits on this device for a connection, in IndexedDB: pages and their worker share it.
"use strict";

const waiting = {
  open() {
    return new Promise((done, fail) => {
      const asked = indexedDB.open("jolvek", 1);
      asked.onupgradeneeded = () => {
        asked.result.createObjectStore("outbox", {
          keyPath: "op"
        });
        asked.result.createObjectStore("meta");
      };
      asked.onsuccess = () => done(asked.result);
      asked.onerror = () => fail(asked.error);
    });
  },
  async run(name, mode, act) {
    const db = await waiting.open();
    try {
      return await new Promise((done, fail) => {
        const change = db.transaction(name, mode);
        const asked = act(change.objectStore(name));
        change.oncomplete = () => done(asked.result);
        change.onabort = change.onerror = () => fail(change.error);
      });
    } finally {
      db.close();
    }
  },
  put: (entry) => waiting.run("outbox", "readwrite", (box) => box.put(entry)),
  drop: (op) => waiting.run("outbox", "readwrite", (box) => box.delete(op)),
  async all() {
    const found = await waiting.run("outbox", "readonly", (box) => box.getAll());
    return found.sort((a, b) => a.at.localeCompare(b.at));
  },
  reader: () => waiting.run("meta", "readonly", (box) => box.get("reader")),
  setReader: (name) => waiting.run("meta", "readwrite", (box) => box.put(name, "reader")),
  newOp: () => Array.from(crypto.getRandomValues(new Uint8Array(12)), (x) =>
    x.toString(16).padStart(2, "0")).join("")
};
