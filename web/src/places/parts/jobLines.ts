import type { JobLine, WantedPart } from '@pelrin/core'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'

/** What a chain and its joint come to, each with its name, price and how many of it are here. */
export const jobLines = (wanted: readonly WantedPart[], chain: JudgedChain, { part: joint }: JudgedJoint): JobLine[] =>
  wanted.map((line) => {
    const model = line.partId === chain.part.id || joint.model === 're-press' ? chain.part : joint.model
    return {
      ...line,
      name: `${model.maker} ${model.name}`,
      price: model.price,
      here: Math.min(line.quantity, model.stock),
      onOrder: 0,
    }
  })
