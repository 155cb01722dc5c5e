import { type Piece, piecesOf } from './cellPieces'
import { digitsOf } from './characters'
import { isExtensionWord, LONGEST_EXTENSION, standsBeforeExtension, takeOffMarkedExtension } from './extensionWords'
import { clearerLabel, labelOf } from './labels'
import type { NumberLabel } from './types'

/** Digits of a cell that may be a number, or several, with what the words beside them say. */
export interface WrittenNumber {
  readonly text: string
  readonly label: NumberLabel | null
  /** The label stands before the digits: of several it is the first one's, else the last one's. */
  readonly leads: boolean
  readonly extension: string | null
}

/** What a cell holds beside signs: numbers, and words that are neither label nor extension. */
export interface WrittenCell {
  readonly numbers: readonly WrittenNumber[]
  readonly remark: string | null
  /** A word was taken off, be it a label or a remark. */
  readonly hasWords: boolean
}

const JOINING = new Set(
  'or oder ou and und et o u y e i bzw resp og och of en eller lub a és vagy veya ve или и sowie also'.split(' '),
)
/** Fewer digits than these between words are part of a remark: "after 5", "2nd floor". */
const LEAST_DIGITS = 6

type Draft = { -readonly [Key in keyof WrittenNumber]: WrittenNumber[Key] }

/** The parts of a cell while its pieces are read from left to right. */
class Reader {
  readonly numbers: Draft[] = []
  hasWords = false
  private hasRemark = false
  /** A label that waits for the number behind it. */
  private waiting: NumberLabel | null = null
  private awaitsExtension = false
  private readonly leads: boolean
  private readonly pieces: readonly Piece[]
  /** What is left of the cell: everything that was taken off is blank. */
  private left: string

  constructor(
    text: string,
    private readonly isWhole: (digits: string) => boolean,
  ) {
    this.left = text
    this.pieces = piecesOf(text)
    this.leads = this.pieces.find(({ kind }) => kind !== 'signs')?.kind === 'word'
  }

  read(): void {
    this.pieces.forEach((piece, at) => {
      if (piece.kind === 'word') this.readWord(piece, at)
      else if (piece.kind === 'digits' && !this.isGluedToWord(at)) this.readDigits(piece)
    })
  }

  get remark(): string | null {
    return this.hasRemark ? tidyRemark(this.left) : null
  }

  private readWord(piece: Piece, at: number): void {
    const behind = this.pieces[at + 1]?.text ?? ''
    const isExtension = this.beginsExtension(piece.text, at, behind)
    const last = this.numbers.at(-1)
    if (isExtension || (last && JOINING.has(piece.text.toLowerCase()))) {
      this.takeOff(piece.at, piece.text.length)
      return
    }
    this.hasWords = true
    const label = labelOf(piece.text, behind)
    if (label === null) this.hasRemark = true
    else {
      this.takeOff(piece.at, piece.text.length)
      if (last && (!this.leads || !this.hasNumberBehind(at))) last.label = clearerLabel(last.label, label)
      else this.waiting = clearerLabel(this.waiting, label)
    }
  }

  /** A word that an extension follows, or that stands between it and its digits. */
  private beginsExtension(word: string, at: number, behind: string): boolean {
    const last = this.numbers.at(-1)
    if (this.awaitsExtension) {
      if (standsBeforeExtension(word)) return true
      this.awaitsExtension = false
    }
    if (!last || last.extension !== null) return false
    const isBeforeDigits = /^[\s.:(=-]*\d/.test(behind) && isExtensionWord(word, /^\d/.test(behind))
    const next = this.pieces[at + 2]?.text ?? ''
    const isBeforeWord = /^[\s.:]*$/.test(behind) && standsBeforeExtension(next) && isExtensionWord(word, false)
    this.awaitsExtension = isBeforeDigits || isBeforeWord
    return this.awaitsExtension
  }

  private readDigits({ text, at }: Piece): void {
    const from = this.awaitsExtension ? this.readExtension(text, at) : 0
    this.awaitsExtension = false
    const number = numberIn(text.slice(from))
    if (digitsOf(number).length < LEAST_DIGITS) return
    const marked = takeOffMarkedExtension(number, this.isWhole)
    this.numbers.push({
      text: marked.text,
      label: this.waiting,
      leads: this.waiting !== null,
      extension: marked.extension,
    })
    this.waiting = null
    this.takeOff(at + from, text.length - from)
  }

  /** The first digits as an extension; gives back where the rest starts. A second whole number is no extension. */
  private readExtension(text: string, at: number): number {
    const match = /^\D*(\d+)/.exec(text)
    const last = this.numbers.at(-1)
    if (!match?.[1] || !last || match[1].length > LONGEST_EXTENSION || this.isWhole(numberIn(text))) return 0
    last.extension = match[1]
    this.takeOff(at, match[0].length)
    return match[0].length
  }

  private hasNumberBehind(at: number): boolean {
    return this.pieces
      .slice(at + 1)
      .some(({ kind, text }) => kind === 'digits' && digitsOf(text).length >= LEAST_DIGITS)
  }

  /** Digits right behind letters that are no label: an order, a customer, a tax number. */
  private isGluedToWord(at: number): boolean {
    const before = this.pieces[at - 1]
    const digits = this.pieces[at]?.text ?? ''
    if (before?.kind !== 'word' || !/^\d/.test(digits) || this.awaitsExtension) return false
    return labelOf(before.text, digits) === null && !isExtensionWord(before.text, true)
  }

  private takeOff(at: number, length: number): void {
    this.left = `${this.left.slice(0, at)}${' '.repeat(length)}${this.left.slice(at + length)}`
  }
}

/**
 * Takes the words of a cell apart from its digits: labels, extensions, remarks.
 * @param isWhole true for digits that are a whole number: an extension is none
 */
export function writtenNumbers(text: string, isWhole: (digits: string) => boolean): WrittenCell {
  const reader = new Reader(text, isWhole)
  reader.read()
  const { numbers, remark, hasWords } = reader
  // Without words few digits are all there is to judge.
  if (!hasWords && numbers.length === 0 && /\d/.test(text)) return { ...NO_WORDS, numbers: [bareNumber(text)] }
  return { numbers, remark, hasWords }
}

const NO_WORDS = { remark: null, hasWords: false }
const bareNumber = (text: string): WrittenNumber => ({ text, label: null, leads: false, extension: null })

/** Digits with the signs that belong to them: from the first plus, bracket or digit to the last digit. */
function numberIn(text: string): string {
  const start = text.search(/[+(]*[+(\d]/)
  const end = text.search(/\d[^\d]*$/)
  if (start === -1 || end === -1) return ''
  const number = text.slice(start, end + 1)
  if (text.slice(end + 1).trim() === '+' && !number.includes('+')) return `${number}+`
  return number.startsWith('(') && !number.includes(')') && text[end + 1] !== ')' ? number.slice(1) : number
}

/** The words as a person would keep them: without the signs that held them to the number. */
function tidyRemark(text: string): string | null {
  const tidy = text
    .replace(/\s+/g, ' ')
    .replace(/\(\s+\)|\[\s+\]/g, ' ')
    .replace(/^[\s,;:/|()[\]–-]+|[\s,;:/|([–-]+$/g, '')
    .replace(/^([^()]*)\)$/, '$1')
    .replace(/\s{2,}/g, ' ')
  return tidy === '' ? null : tidy
}
