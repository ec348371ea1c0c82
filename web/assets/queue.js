// queue.js: records wait on the phone, in the order they were made, until the farm has acknowledged them.

const base = 'dew-count'
const waiting = 'waiting'

function done(request) {
  return new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result)
    request.onerror = () => reject(request.error)
  })
}

// finished resolves once the phone has written the transaction to its store: only then a record is safe.
function finished(transaction) {
  return new Promise((resolve, reject) => {
    transaction.oncomplete = () => resolve()
    transaction.onabort = () => reject(transaction.error)
    transaction.onerror = () => reject(transaction.error)
  })
}

// newID returns an id that no other phone makes: 128 random bits.
export function newID() {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

export async function openQueue(factory = indexedDB) {
  const opening = factory.open(base, 1)
  opening.onupgradeneeded = () => {
    opening.result.createObjectStore(waiting, { keyPath: 'number', autoIncrement: true }).createIndex('id', 'id', { unique: true })
  }
  const db = await done(opening)
  const change = (work) => {
    const transaction = db.transaction(waiting, 'readwrite', { durability: 'strict' })
    work(transaction.objectStore(waiting))
    return finished(transaction)
  }
  return {
    // add keeps a record; one with the same id, from a second press, is the same record.
    async add(record) {
      try {
        await change((store) => store.add({ id: record.fields.id, ...record }))
      } catch (fault) {
        if (fault?.name !== 'ConstraintError') throw fault
      }
    },
    all: () => done(db.transaction(waiting).objectStore(waiting).getAll()),
    remove: (number) => change((store) => store.delete(number)),
    refuse: (record, advice) => change((store) => store.put({ ...record, refused: advice })),
    retry: (record) => change((store) => store.put({ ...record, refused: undefined })),
  }
}
