/** Runs a stand-in as a program of its own until it is told to stop, and tells who started it where it listens. */
export async function runStandIn(standIn: {
  listen: (port: number) => Promise<string>
  close: () => Promise<void>
}): Promise<void> {
  const address = await standIn.listen(Number(process.env['PORT'] ?? 0))
  process.send?.({ listening: Number(address.split(':')[1]) })
  const stop = (): void => void standIn.close().then(() => process.exit(0))
  process.on('SIGTERM', stop)
  process.on('disconnect', stop)
}
