/** forgetFloor drops what this device keeps of the floor for an account that signs out: all but what waits to be sent. */
export function forgetFloor(account: string): Promise<void> {
  return new Promise((resolve) => {
    if (!globalThis.indexedDB || !account) return resolve()
    const asked = indexedDB.open('musculus-floor')
    let fresh = false
    asked.onupgradeneeded = () => {
      fresh = true // it was never used here
      asked.transaction?.abort()
    }
    asked.onerror = () => resolve()
    asked.onsuccess = () => {
      const db = asked.result
      if (fresh || !['ready', 'keys', 'said'].every((s) => db.objectStoreNames.contains(s))) {
        db.close()
        return resolve()
      }
      const tx = db.transaction(['ready', 'keys', 'said'], 'readwrite')
      tx.objectStore('keys').delete(account)
      tx.objectStore('said').delete(`around ${account}`)
      tx.objectStore('said').delete('account')
      const each = tx.objectStore('ready').index('owner').openCursor(IDBKeyRange.only(account))
      each.onsuccess = () => {
        each.result?.delete()
        each.result?.continue()
      }
      tx.oncomplete =
        tx.onerror =
        tx.onabort =
          () => {
            db.close()
            resolve()
          }
    }
  })
}
