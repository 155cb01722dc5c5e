/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import { DocumentText } from '../../src/documents/DocumentText'
import { rendered } from './rendered'

const withProblems = (n: number) =>
  rendered(
    <DocumentText
      label="The declaration"
      text="{}"
      isReadOnly={false}
      onChange={() => {}}
      draft={{
        status: 'wrong',
        problems: Array.from({ length: n }, (_, at) => ({ place: `fields.${at}`, message: 'is missing' })),
      }}
    />,
    {},
  )

describe('what is to be mended in a document', () => {
  it('is told with its place, and what is not shown is counted', () => {
    withProblems(11)
    expect(screen.getByText('11 things to mend')).toBeTruthy()
    const lines = within(screen.getByRole('status')).getAllByRole('listitem')
    expect(lines.map(({ textContent }) => textContent).slice(-2)).toEqual(['fields.7is missing', 'and 3 more'])
  })

  it('is told whole where there is room for it', () => {
    withProblems(8)
    expect(screen.queryByText(/more$/)).toBeNull()
  })
})
