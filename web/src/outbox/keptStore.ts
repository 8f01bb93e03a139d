import { promisifyRequest, type UseStore } from 'idb-keyval'

/**
 * A store on the device whose writes are on the disk when they are said to be: what was typed three seconds before the battery ran out is there.
 *
 * @throws where the browser keeps nothing: in a private window, or with its storage full
 */
export async function keptStore(name: string, store: string): Promise<UseStore> {
  const request = indexedDB.open(name)
  request.onupgradeneeded = () => request.result.createObjectStore(store)
  const database = await promisifyRequest(request)
  return (mode, job) =>
    Promise.resolve(job(database.transaction(store, mode, { durability: 'strict' }).objectStore(store)))
}
