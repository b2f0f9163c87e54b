import { store } from './store'

/** Pictures on this device by id: photos that wait to be sent, and those of jobs that were taken along. */
const canStore = typeof indexedDB !== 'undefined'
const inMemory = new Map<string, Blob>()

/**
 * Keeps a picture; it is on the disk when this has answered.
 * @param circuit That was taken along with it; empty for one that waits to be sent.
 */
export async function keepPicture(id: string, blob: Blob, circuit = ''): Promise<void> {
  if (!canStore) {
    inMemory.set(id, blob)
    return
  }
  // As bytes: not every browser stores a blob. Read before: a transaction does not wait for anything else.
  const bytes = await blob.arrayBuffer()
  const disk = (await store()).transaction('pictures', 'readwrite', { durability: 'strict' })
  await disk.store.put({ circuit, type: blob.type, bytes }, id)
  await disk.done
}

export async function pictureOf(id: string): Promise<Blob | undefined> {
  if (!canStore) return inMemory.get(id)
  const kept = await (await store()).get('pictures', id)
  return kept && new Blob([kept.bytes], { type: kept.type })
}

/** The service has it. */
export async function sentPicture(id: string): Promise<void> {
  inMemory.delete(id)
  if (canStore && !(await (await store()).get('pictures', id))?.circuit) await (await store()).delete('pictures', id)
}

/** Fetches what is not here yet of a job that was taken along. One that the service does not give is looked for again the next time. */
export async function fetchPictures(circuit: string, ids: string[]): Promise<void> {
  for (const id of ids) {
    if (await pictureOf(id)) continue
    const answer = await globalThis.fetch(`/api/photos/${id}`).catch(() => undefined)
    if (answer?.ok) await keepPicture(id, await answer.blob(), circuit)
  }
}

/** Leaves the pictures of a circuit; those that wait to be sent are kept. */
export async function leavePictures(circuit: string): Promise<void> {
  const db = await store()
  for (const id of await db.getAllKeys('pictures'))
    if ((await db.get('pictures', id))?.circuit === circuit) await db.delete('pictures', id)
}
