// Styles are modules of whoever draws with them: what a module names is used, what is used is there.
import { readdirSync, readFileSync } from 'node:fs'
import { basename, dirname, join, relative } from 'node:path'
import { expect, test } from 'vitest'

const root = join(import.meta.dirname, '..')
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).sort()
const modules = files.filter((f) => f.endsWith('.module.css'))
const sources = files
  .filter((f) => f.endsWith('.tsx') && !f.endsWith('.test.tsx'))
  .map((f) => ({ file: f, text: readFileSync(join(root, f), 'utf8') }))

/** named are the classes a module gives names to; what it only refers to, in :global(), is none. */
function named(module: string): Set<string> {
  const selectors = readFileSync(join(root, module), 'utf8')
    .replace(/\/\*.*?\*\//gs, '')
    .replace(/:global\([^)]*\)/g, '')
    .replace(/\{[^{}]*\}/g, '{}')
  return new Set([...selectors.matchAll(/\.([a-zA-Z][\w-]*)/g)].map((m) => m[1]!))
}

/** used are the classes somebody takes from a module; any: by a name that is only known when it runs. */
function used(module: string): { names: Set<string>; any: boolean } {
  const names = new Set<string>()
  let any = false
  for (const { file, text } of sources) {
    for (const [, as, from] of text.matchAll(/^import (\w+) from '([^']+\.module\.css)'$/gm)) {
      if (relative(root, join(root, dirname(file), from!)) !== module) continue
      for (const m of text.matchAll(new RegExp(`\\b${as}\\.(\\w+)`, 'g'))) names.add(m[1]!)
      for (const m of text.matchAll(new RegExp(`\\b${as}\\['([\\w-]+)'\\]`, 'g'))) names.add(m[1]!)
      any ||= new RegExp(`\\b${as}\\[[^']`).test(text)
    }
  }
  return { names, any }
}

test.each(modules)('%s names what is used of it, and no more', (module) => {
  const there = named(module)
  const asked = used(module)
  expect([...asked.names].filter((n) => !there.has(n))).toEqual([])
  if (!asked.any) expect([...there].filter((n) => !asked.names.has(n))).toEqual([])
})

test('nothing is looked for by its class: a module may rename it', () => {
  const by = sources.filter(({ text }) => /(?:querySelector\w*|closest)(?:<[^>]*>)?\([^)]*['"`\s]\w*\.[a-z]/.test(text))
  expect(by.map((s) => s.file)).toEqual([])
})

test('two modules of one name would give two things one class', () => {
  const names = modules.map((m) => basename(m))
  expect(names.filter((n, i) => names.indexOf(n) !== i)).toEqual([])
})
