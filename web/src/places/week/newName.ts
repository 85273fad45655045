/** newName is a name no session here has: "Session 3" beside two others. */
export function newName(taken: string[]): string {
  let n = taken.length + 1
  while (taken.includes(`Session ${n}`)) n++
  return `Session ${n}`
}
