import { readCode, type Picture } from './readCode.ts'

// A picture takes some hundredths of a second on a tablet: off the main thread, so that what the camera sees moves smoothly.
self.onmessage = ({ data }: MessageEvent<Picture>) => {
  self.postMessage(readCode(data))
}
