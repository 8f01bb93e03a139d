import type { DndContextProps } from '@dnd-kit/core'

/**
 * What is read out of something that can be dragged: how it is moved by keys, in our words. Dragging itself is for eyes and a hand, and
 * announces nothing.
 */
export const dragWords = (byKeys: string): NonNullable<DndContextProps['accessibility']> => ({
  screenReaderInstructions: { draggable: byKeys },
  announcements: {
    onDragStart: () => undefined,
    onDragOver: () => undefined,
    onDragEnd: () => undefined,
    onDragCancel: () => undefined,
  },
})
