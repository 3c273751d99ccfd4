import { describe, expect, it } from 'vitest'
import { linkPage, linksAt } from '.'

const link = (title: string, at: string, url = `https://yard.example/${title}`) => ({
  title,
  url,
  at: `2026-11-${at}T09:00:00.000Z`,
})

describe('a brand’s page of current links', () => {
  it('shows what has gone out by now, the newest first, and each page once by its newest post', () => {
    const links = [
      link('a', '01', 'https://yard.example/a?utm_content=1'),
      link('b', '03'),
      link('a', '05', 'https://yard.example/a?utm_content=2'),
      link('c', '20'),
    ]
    expect(linksAt(links, '2026-11-10T00:00:00.000Z').map((l) => l.url)).toEqual([
      'https://yard.example/a?utm_content=2',
      'https://yard.example/b',
    ])
    expect(linksAt(links, '2026-11-20T09:00:00.000Z')[0]?.title).toBe('c')
  })

  it('is one file of links whose titles cannot become markup', () => {
    const page = linkPage('Oak & <Sons>', [
      link('Rot <script>"in" oak', '01', 'https://yard.example/?a=1&b="2"'),
    ])
    expect(page).toContain('<h1>Oak &amp; &lt;Sons&gt;</h1>')
    expect(page).toContain('<a href="https://yard.example/?a=1&amp;b=&quot;2&quot;">Rot &lt;script&gt;')
    expect(page).toContain('1 November 2026')
    expect(page).not.toMatch(/<script|src=/)
    expect(linkPage('Empty', [])).toContain('There are no links yet.')
  })
})
