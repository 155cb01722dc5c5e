import { MOST_COLUMNS } from './openTable'
import type { FileProblem } from './recognise'

/** Why a file is refused, as a sentence that says what to do. Nothing of a refused file is kept. */
export const FILE_PROBLEM_TEXT: Record<FileProblem, string> = {
  'empty-file': 'The file is empty.',
  'binary-file': 'This is no table: it holds bytes that no text has. Export the list as CSV or as a workbook.',
  'not-a-workbook': 'This is an archive without a workbook in it. Unpack it and bring in the files it holds.',
  'locked-workbook':
    'The workbook is protected with a password. Open it in a spreadsheet, save it without one, and bring that in.',
  'damaged-file':
    'The file is damaged or was not copied whole: it cannot be opened. Ask for it again, or save it anew from a spreadsheet.',
  'inflates-too-far':
    'The file inflates far beyond what a list can be, as harmful archives do. Reading was stopped. If it is a real list, save it as CSV.',
  'too-large-for-format':
    'A file of this format can only be read whole, and this one is too large for that. Save it as .xlsx or CSV.',
  'too-many-columns': `The table has more than ${MOST_COLUMNS.toLocaleString('en')} columns. Delete those that are not needed, often empty ones at the right, and try again.`,
  'compressed-file': 'This is a compressed file. Unpack it and bring in the file it holds.',
  'web-page': 'This is a web page, whatever its name says. Open it in a spreadsheet and save it as .xlsx or CSV.',
  document: 'This is a document, not a table. Copy its table into a spreadsheet, or export the list as CSV.',
  'no-table': 'There are no rows in this file.',
  'no-sheet': 'There is no such sheet in this workbook, or none with cells.',
  'broken-json':
    'The JSON breaks off or is not well formed, so it cannot be told where an entry ends. Ask for the file again.',
} // prettier-ignore
