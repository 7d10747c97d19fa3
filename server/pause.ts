/** Others are answered before what is done next: for long pieces of work that wait for nothing. */
export const pause = (): Promise<void> => new Promise((next) => setImmediate(next))
