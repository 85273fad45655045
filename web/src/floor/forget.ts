/** forgetFloor drops what this device keeps of the floor for an account that signs out: all but what waits to be sent. */
export async function forgetFloor(account: string): Promise<void> {
  if (!globalThis.indexedDB || !account) return
  await without('musculus-floor', ['keys', 'said'], (store) => {
    if (store.name === 'keys') store.delete(account)
    else for (const key of [`around ${account}`, 'account']) store.delete(key)
  })
  await without('musculus-floor-ready', ['ready', 'done'], (store) => {
    const each = store.index('owner').openCursor(IDBKeyRange.only(account))
    each.onsuccess = () => {
      each.result?.delete()
      each.result?.continue()
    }
  })
}

/** without runs drop on some stores of a database, where it is there: it makes none. */
function without(database: string, stores: string[], drop: (store: IDBObjectStore) => void): Promise<void> {
  return new Promise((resolve) => {
    const asked = indexedDB.open(database)
    asked.onupgradeneeded = () => asked.transaction?.abort() // it was never used here
    asked.onerror = () => resolve()
    asked.onsuccess = () => {
      const db = asked.result
      const end = () => {
        db.close()
        resolve()
      }
      if (!stores.every((s) => db.objectStoreNames.contains(s))) return end()
      const tx = db.transaction(stores, 'readwrite')
      stores.forEach((s) => drop(tx.objectStore(s)))
      tx.oncomplete = tx.onerror = tx.onabort = end
    }
  })
}
