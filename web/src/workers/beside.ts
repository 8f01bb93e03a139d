import { wrap, type Remote } from 'comlink'

/**
 * What a worker exposes, as it is called from here: begun with the first call, since most pages never need it.
 *
 * @param make where the worker is; the bundler finds it by the call that makes it
 */
export function beside<Exposed>(make: () => Worker): () => Remote<Exposed> {
  let remote: Remote<Exposed> | null = null
  return () => (remote ??= wrap<Exposed>(make()))
}
