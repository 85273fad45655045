import type { Catalogue } from '../api/client'

type Word = Catalogue['words'][number]

/** meant finds the common words in what was typed: the movements they may mean and what has to be asked back. */
export function meant(words: Word[], typed: string): Word[] {
  const text = ` ${typed.toLowerCase().replaceAll(/[-_]/g, ' ').trim()} `
  if (text.trim().length < 3) return []
  return words.filter((w) => w.words.some((x) => text.includes(` ${x.replaceAll('-', ' ')} `)))
}

/** plainText says whether every typed word stands in a text. */
export function plainText(text: string, typed: string): boolean {
  const own = text.toLowerCase().replaceAll(/[-_]/g, ' ')
  return typed
    .toLowerCase()
    .split(/[\s_-]+/)
    .filter(Boolean)
    .every((w) => own.includes(w))
}
