import { describe, expect, it } from '@jest/globals'
import { createTemplateEngine, TEMPLATE_FILTERS, TEMPLATE_TAGS } from '../../src/templateEngine'
import { createTemplate } from '../../src/tidy/template'

const rendered = (template: string, values: Record<string, string> = {}): string => {
  const made = createTemplate(template)
  if (made.status === 'refused') throw new Error(made.why)
  return made.render(values)
}
const whyNot = (template: string): string => {
  const made = createTemplate(template)
  return made.status === 'refused' ? made.why : ''
}

describe('a template', () => {
  it.each([
    ['{% if company %}{{ company | upcase }}{% else %}-{% endif %}', 'CAUSEWAY'],
    ['{% unless city %}no town{% endunless %}', 'no town'],
    ['{% case country %}{% when "GB" %}UK{% else %}abroad{% endcase %}', 'UK'],
    ['{% assign first = name | split: " " | first %}Dear {{ first }}', 'Dear Maren'],
    ['{% capture all %}{{ name }}, {{ company }}{% endcapture %}{{ all | downcase }}', 'maren oldershaw, causeway'],
    ['{{ name | slice: 0 }}.{% comment %} a note {% endcomment %}{% # another %}', 'M.'],
    ['{{ seats | plus: 2 | times: 3 }}', '30'],
    ['{{ born | date: "%Y" }}', '1980'],
    ['{{ note | default: "none" }} {% raw %}{{ }}{% endraw %}', 'none {{ }}'],
  ])('%s', (template, result) =>
    expect(
      rendered(template, {
        name: 'Maren Oldershaw',
        company: 'Causeway',
        country: 'GB',
        seats: '8',
        born: '1980-05-03',
      }),
    ).toBe(result),
  )

  it('says the same today as tomorrow', () => {
    expect(rendered('{{ "now" | date: "%s" }}')).toBe('now')
    expect(rendered('{{ "today" | date: "%s" }}')).toBe('today')
  })
})

describe('what a template may not do', () => {
  const inside = (line: string) => `{% liquid\n  ${line}\n%}`
  it.each([
    'render "package.json"',
    'include "package.json"',
    'layout "package.json"',
    'for i in (1..9)\n  echo i\n  endfor',
    'tablerow i in (1..9)\n  echo i\n  endtablerow',
    'cycle "a", "b"',
    'increment n',
  ])('is not done inside {%% liquid either: %s', (line) => {
    expect(whyNot(inside(line))).toMatch(/“liquid” cannot be used/)
    expect(whyNot(`{%- ${line.split('\n')[0]} -%}`)).toMatch(/cannot be/)
  })

  it.each(['constructor', 'toString', '__proto__', 'hasOwnProperty'])('is not reached by the name %s', (name) => {
    expect(whyNot(`{{ "x" | ${name} }}`)).toMatch(/cannot be/)
    expect(whyNot(`{% ${name} %}`)).toMatch(/cannot be/)
  })

  it('is every tag and filter of the library but those that were looked at', () => {
    const { tags, filters } = createTemplateEngine({ longest: 100 })
    expect(new Set(Object.keys(tags))).toEqual(TEMPLATE_TAGS)
    expect(new Set(Object.keys(filters))).toEqual(TEMPLATE_FILTERS)
  })

  it('is to read a file, also where a tag that does so comes back one day', async () => {
    const engine = createTemplateEngine({ longest: 100 })
    await expect(engine.parseFile('package.json')).rejects.toThrow()
    expect(() => engine.parseFileSync('package.json')).toThrow()
  })

  it.each([
    ['{% assign x = (1..1000000000) %}{{ x | size }}', {}],
    [`{% assign x = "${'ab'.repeat(50)}" %}${'{% assign x = x | append: x %}'.repeat(40)}{{ x }}`, {}],
    [`${'{{ cell | replace: "a", cell }}'.repeat(3)}`, { cell: 'a'.repeat(4000) }],
    ['{{ "2020-01-01" | date: "%999999999d" }}', {}],
  ])('is to grow without end: %#', (template, values) => {
    const started = process.memoryUsage().heapUsed
    expect(rendered(template, values)).toBe('')
    expect(process.memoryUsage().heapUsed - started).toBeLessThan(50 << 20)
  })

  it('is to show more of a cell than any result can hold', () =>
    expect(rendered('{{ cell }}'.repeat(90), { cell: 'x'.repeat(65_000) })).toHaveLength(1000))

  it('is to have more than a hundred tags and outputs', () => {
    expect(whyNot('{{ a }}'.repeat(101))).toMatch(/at most 100/)
    expect(whyNot('{{ a }}'.repeat(100))).toBe('')
  })
})
