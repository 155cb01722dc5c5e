import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { buildRequest, type Call, whyNoTemplate } from '../../src/connect'

const CALL: Call = {
  method: 'POST',
  path: '/v1/{{ country }}/people?profile={{ profile }}',
  headers: { 'x-about': 'asked for {{ name }}' },
  body: '{"name": {{ name }}, "numbers": {{ numbers }}{% if company != "" %}, "company": {{ company }}{% endif %}}',
}

describe('a request', () => {
  it('is filled in, what is not known as empty', () => {
    expect(buildRequest(CALL, { name: 'Maren', country: 'GB', numbers: ['+447911204481'] })).toEqual({
      method: 'POST',
      path: '/v1/GB/people?profile=',
      headers: { 'x-about': 'asked for Maren' },
      body: '{"name": "Maren", "numbers": ["+447911204481"]}',
    })
  })

  it('holds every value as it is, whatever stands in it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', minLength: 1 }), fc.array(fc.string()), (text, numbers) => {
        const { path, headers, body } = buildRequest(CALL, { name: text, company: text, country: text, numbers })
        expect(JSON.parse(body ?? '')).toEqual({ name: text, numbers, company: text })
        expect(path.split('/')).toHaveLength(4)
        expect(new URL(path, 'https://service.example').origin).toBe('https://service.example')
        expect(headers['x-about']).not.toMatch(/[\r\n\0]/)
      }),
    )
  })

  it('names no property that every object has', () => {
    expect(buildRequest({ method: 'GET', path: '/{{ constructor }}{{ name.constructor }}' }, {}).path).toBe('/')
  })
})

describe('a template', () => {
  it.each([
    ['path', '/v1/find'],
    ['path', '/v1/{{ receipt }}'],
    ['body', '{"person": {"name": {{ name }}}}'],
    ['body', '{"e": [{{ email }}], "all": {{ emails }}}'],
  ] as const)('for a %s may be %s', (place, text) => expect(whyNoTemplate(place, text)).toBeNull())

  it.each([
    ['body', '{"name": "{{ name }}"}', /no JSON/],
    ['body', '{"name": {{ name }}', /no JSON/],
    ['body', '{"a": 1{% unless company == "" %}}{% endunless %}', /no JSON/],
    ['path', '/{{ name', /not closed/],
    ['path', '/{% for i in (1..9) %}x{% endfor %}', /for/],
    ['body', '{{ name | nonsense }}', /nonsense/],
    ['path', `/${'x'.repeat(5000)}`, /limit/i],
  ] as const)('for a %s may not be %s', (place, text, why) => expect(whyNoTemplate(place, text)).toMatch(why))
})
