import { describe, expect, it } from '@jest/globals'
import { isGuessable } from '../../src/people/passwords'

const ABOUT = ['Maren Oldershaw', 'maren@causeway.example']

describe('passwords that are guessed first', () => {
  it.each([
    'password12',
    'PASSWORD12',
    'password!!!!',
    '!!!dragon99',
    'qwertyuiop',
    'letmeinletmein',
    'football2026',
    '1234567890',
    '0000000000',
    'abababababab',
    'maren-oldershaw',
    'Oldershaw2026!',
    'causeway1234',
  ])('%s', (password) => expect(isGuessable(password, ABOUT)).toBe(true))
})

describe('passwords of one’s own', () => {
  it.each([
    'a long password',
    'four words of mine',
    'correct horse battery',
    'xK9$mQ2vL7',
    'ünwahrscheinliche wörter',
    'maren likes the old lighthouse',
    '3f9a1c0b77de',
  ])('%s', (password) => expect(isGuessable(password, ABOUT)).toBe(false))
})
