import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Schemas } from '@/api/client'

/** A circuit that was taken along. */
export interface Along {
  id: string
  tag: string
  title: string
  /** When, as the service's clock had it. */
  at: string
  package: Schemas['FieldPackage']
}

interface Kept extends DBSchema {
  circuits: { key: string; value: Along }
  /** Jobs as the service last showed them, newer than those of the packages. */
  jobs: { key: string; value: Schemas['FieldJob'] }
  /** Answers of the service that change seldom, by address. */
  answers: { key: string; value: { circuit: string; body: unknown } }
  about: { key: string; value: unknown }
  /** Entries on their way: this is on the disk when it says so, which the browser's plain storage is only some seconds later. */
  outbox: { key: string; value: { entry: { id?: string } } }
  /** By id: those that wait to be sent, and those of the circuits that were taken along. */
  pictures: { key: string; value: { circuit: string; type: string; bytes: ArrayBuffer } }
}

let opened: Promise<IDBPDatabase<Kept>> | undefined

/** The browser's database; a write that it acknowledges is on the device's disk. */
export const store = () =>
  (opened ??= openDB<Kept>('fehler', 3, {
    upgrade(db, before) {
      if (before < 1) {
        db.createObjectStore('circuits', { keyPath: 'id' })
        db.createObjectStore('jobs', { keyPath: 'id' })
        db.createObjectStore('answers')
        db.createObjectStore('about')
      }
      if (before < 2) db.createObjectStore('outbox', { keyPath: 'entry.id' })
      db.createObjectStore('pictures')
    },
  }))

/** Asks the browser not to throw away what was taken along when it runs short of space. */
export const persist = () => navigator.storage?.persist?.().catch(() => false)
