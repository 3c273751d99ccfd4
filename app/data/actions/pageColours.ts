import { Fault, type Look } from '../../../core/model'
import type { UsedColour } from '../../../core/cards'
import { cards } from '../../workers'
import { addressOf, fetchText } from './sources'

/** So many style sheets of a page are read. */
const SHEETS = 6

/**
 * The colours of a page on the web, as a look could have them, out of its style sheets. Refuses (`bad-answer`) a page that names none
 * there. Nothing of the page is run or shown.
 */
export async function coloursOfAddress(address: string): Promise<Pick<Look, 'ground' | 'ink' | 'accent'>> {
  const { text, url } = await fetchText(addressOf(address), 'page')
  const page = new DOMParser().parseFromString(text, 'text/html')
  const named = [...page.querySelectorAll('link[rel~="stylesheet" i][href]')].slice(0, SHEETS)
  const linked = await Promise.all(
    // One that cannot be had leaves the others.
    named.map((link) => sheetText(new URL(link.getAttribute('href') ?? '', url).href).catch(() => '')),
  )
  const own = [...page.querySelectorAll('style')].map((s) => s.textContent)
  const inline = ['html', 'body'].map(
    (tag) => `${tag}{${page.querySelector(tag)?.getAttribute('style') ?? ''}}`,
  )
  const used = coloursIn([...linked, ...own, ...inline])
  const theme = page.querySelector('meta[name="theme-color" i]')?.getAttribute('content') ?? ''
  const found = await cards().pageColours(used, hex(theme))
  if (!found)
    throw new Fault(
      'bad-answer',
      'This page names no colours in its style sheets. Take them from a logo.',
      url,
    )
  return found
}

async function sheetText(url: string): Promise<string> {
  return (await fetchText(url, 'file')).text
}

const PROPERTIES = [
  'background-color',
  'color',
  'border-color',
  'border-bottom-color',
  'fill',
  'outline-color',
]

const AT_LARGE = /(?:^|,)\s*(?::root|html|body|\*)\s*(?:,|$)/

/** The colours that style sheets use by day; one may name those of another. */
function coloursIn(sheets: readonly string[]): UsedColour[] {
  const rules = sheets.flatMap((css) => {
    const sheet = new CSSStyleSheet()
    // What a sheet fetches of others is not followed.
    sheet.replaceSync(css)
    return rulesOf(sheet.cssRules)
  })
  const variables = new Map<string, string>()
  // Others hold only for a part of the page, or for the night.
  for (const { style } of rules.filter((r) => AT_LARGE.test(r.selectorText)))
    for (const name of style)
      if (name.startsWith('--')) variables.set(name, style.getPropertyValue(name).trim())
  const meant = (value: string, depth = 0): string =>
    depth > 4
      ? ''
      : value.replace(/var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)/g, (_, name: string, else_?: string) =>
          meant(variables.get(name) ?? else_ ?? '', depth + 1),
        )
  return rules.flatMap(({ selectorText, style }) => {
    // A shorthand with a variable in it is not told apart by the browser.
    const background = style.getPropertyValue('background-color') || style.getPropertyValue('background')
    const own = [...style].filter((name) => name.startsWith('--'))
    return [...PROPERTIES, ...own].flatMap((property): UsedColour[] => {
      const value = property === 'background-color' ? background : style.getPropertyValue(property)
      const colour = hex(meant(value))
      return colour === null ? [] : [{ selector: selectorText, property, colour }]
    })
  })
}

/** The rules that hold on a screen by day, also those within others. */
function rulesOf(list: CSSRuleList): CSSStyleRule[] {
  return [...list].flatMap((rule): CSSStyleRule[] => {
    if (rule instanceof CSSStyleRule) return [rule, ...rulesOf(rule.cssRules)]
    if (rule instanceof CSSMediaRule && /print|prefers-color-scheme:\s*dark/.test(rule.conditionText))
      return []
    return 'cssRules' in rule ? rulesOf(rule.cssRules as CSSRuleList) : []
  })
}

const context = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })

/** A colour however it is written as `#rrggbb`, as this browser understands it; null of what is none, or mostly see-through. */
function hex(value: string): string | null {
  if (
    !context ||
    value === '' ||
    !CSS.supports('color', value) ||
    /^(?:inherit|initial|unset|revert|currentcolor)$/i.test(value)
  )
    return null
  context.clearRect(0, 0, 1, 1)
  context.fillStyle = value
  context.fillRect(0, 0, 1, 1)
  const [r = 0, g = 0, b = 0, opacity = 0] = context.getImageData(0, 0, 1, 1).data
  if (opacity < 230) return null
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`
}
