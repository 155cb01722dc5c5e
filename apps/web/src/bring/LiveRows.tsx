import { Glyph } from '../kit/Glyph'
import { phone } from '../words/format'
import { PROBLEM } from '../words/sentences'
import type { ShownRow } from './headWorker'

/** The first rows as the contacts they would become, read anew with every change. */
export function LiveRows({ rows }: { rows: readonly ShownRow[] }) {
  if (rows.length === 0) return null
  return (
    <section aria-label="The first rows as contacts" className="pt-3">
      <h2 className="pb-1 text-[15px]">The first rows, as they would be read</h2>
      <table className="w-full table-fixed text-[13px]">
        <thead className="text-left text-soft">
          <tr className="border-b border-edge">
            <th className="w-12 py-0.5">Row</th>
            <th className="w-[22%]">Name</th>
            <th className="w-[20%]">Company</th>
            <th>Numbers</th>
            <th className="w-[26%]">E-mail</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, contact }) => (
            <tr key={row} className="border-b border-line align-top">
              <td className="num py-1 text-soft">{row}</td>
              <td className="truncate py-1 pr-2">
                <bdi>{contact.values.fullName}</bdi>
              </td>
              <td className="truncate py-1 pr-2">
                <bdi>{contact.values.company}</bdi>
              </td>
              <td className="py-1 pr-2">
                {contact.numbers.map((number) => (
                  <span key={number.e164} className="num flex items-center gap-1">
                    <Glyph type={number.valid ? number.lineType : 'unknown'} />
                    {phone(number.e164)}
                  </span>
                ))}
                {contact.numbers.length === 0
                  ? contact.readings.flatMap(({ column, reading }) =>
                      reading.problem ? (
                        <span key={column} className="block text-straw-ink">
                          {PROBLEM[reading.problem]}
                        </span>
                      ) : (
                        []
                      ),
                    )
                  : null}
              </td>
              <td className="truncate py-1">{contact.emails.map(({ address }) => address).join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
