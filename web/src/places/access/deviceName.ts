/** What the shop calls a device; what a browser calls itself is long: which one it is and on what stands in its first brackets. */
export const deviceName = (name: string): string =>
  /^Mozilla\/.*?\((?:X11; )?([^)]*)\)/.exec(name)?.[1] ?? name.slice(0, 60)
