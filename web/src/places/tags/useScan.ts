import { transfer, wrap } from 'comlink'
import { useEffect, useEffectEvent, useRef, useState, type RefObject } from 'react'
import type { Reading } from '../../workers/scan.worker.ts'

/** How it is with the camera: waited for, looking, or why there is none. */
export type Scan = 'asking' | 'looking' | 'insecure' | 'refused' | 'missing' | 'taken'

/** Pictures are made smaller than this: a tag held at arm's length is read all the same, in a fraction of the time. */
const MOST_PIXELS = 800
/** Between two pictures, ms. */
const PAUSE_MS = 80

const why = (error: unknown): Scan => {
  const name = error instanceof DOMException ? error.name : ''
  return name === 'NotAllowedError' ? 'refused' : name === 'NotFoundError' ? 'missing' : 'taken'
}

/**
 * What the camera reads while this is open. The camera that looks away from the screen is preferred; it is let go as this closes.
 *
 * @param onText called with each code's text, again and again while it is in sight
 */
export function useScan(onText: (text: string) => void): { scan: Scan; video: RefObject<HTMLVideoElement | null> } {
  const [scan, setScan] = useState<Scan>('asking')
  const video = useRef<HTMLVideoElement>(null)
  const read = useEffectEvent(onText)
  useEffect(() => {
    let ended = false
    let stream: MediaStream | undefined
    let timer: ReturnType<typeof setTimeout> | undefined
    const worker = new Worker(new URL('../../workers/scan.worker.ts', import.meta.url), { type: 'module' })
    const reading = wrap<Reading>(worker)
    const canvas = document.createElement('canvas')
    const look = (): void => {
      const { current: shown } = video
      const pencil = canvas.getContext('2d', { willReadFrequently: true })
      if (!shown || !pencil || shown.videoWidth === 0) {
        timer = setTimeout(look, PAUSE_MS)
        return
      }
      const scale = Math.min(1, MOST_PIXELS / Math.max(shown.videoWidth, shown.videoHeight))
      canvas.width = Math.round(shown.videoWidth * scale)
      canvas.height = Math.round(shown.videoHeight * scale)
      pencil.drawImage(shown, 0, 0, canvas.width, canvas.height)
      const { data, width, height } = pencil.getImageData(0, 0, canvas.width, canvas.height)
      void reading.read(transfer({ data, width, height }, [data.buffer])).then((text) => {
        if (ended) return
        if (text !== null) read(text)
        timer = setTimeout(look, PAUSE_MS)
      })
    }
    const start = async (): Promise<void> => {
      // Browsers have no camera for addresses without TLS.
      if (!window.isSecureContext) {
        setScan('insecure')
        return
      }
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
      } catch (error) {
        if (!ended) setScan(why(error))
        return
      }
      if (ended) stop()
      else if (video.current) {
        video.current.srcObject = stream
        setScan('looking')
        look()
      }
    }
    const stop = (): void => stream?.getTracks().forEach((track) => track.stop())
    void start()
    return () => {
      ended = true
      clearTimeout(timer)
      worker.terminate()
      stop()
    }
  }, [])
  return { scan, video }
}
