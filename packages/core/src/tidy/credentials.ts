/** Degrees, memberships and honours behind a name, without full stops. */
const CREDENTIALS = new Set(
  `phd dphil edd thd dba psyd pharmd drsc csc md mbchb mbbs bds dds dmd dvm vmd frcs frcp mrcs mrcp mrcgp
   mba emba mpa mpp mph msc bsc ba ma meng beng mres mphil mfa bfa bcom bba bed pgce pgdip llb llm jd
   cpa fca aca acca fcca cfa cima acma cgma cia cma cfp chfc clu pmp cissp cisa cism csm cspo shrm-cp shrm-scp
   mrics frics riba arb ceng ieng fiet miet fice mciob fciob mrtpi mcips fcips mcim fcim frsa cilt
   rn lpn lcsw msw lpc lmft dpt esq obe mbe cbe kbe qc kc dipl dipl-ing dipl-kfm hons
   mag mgr dott ing`.split(/\s+/),
)
// Short ones are words or names too, unless they stand in capitals.
const SHORT = new Set([
  'ma',
  'ba',
  'md',
  'rn',
  'jd',
  'bed',
  'aca',
  'dipl',
  'qc',
  'kc',
  'arb',
  'mag',
  'mgr',
  'ing',
  'dott',
  'cia',
  'cma',
  'fice',
  'clu',
])

/** The part of a generation that belongs to the surname. */
const SUFFIX = /^(?:jr|sr|jnr|snr|junior|senior|ii|iii|iv)\.?$/i

export function isCredential(word: string): boolean {
  const bare = word.replace(/[.()]/g, '')
  const key = bare.toLowerCase()
  return CREDENTIALS.has(key) && (!SHORT.has(key) || bare === bare.toUpperCase())
}

/** `Jr.`, `III`: told from a surname by how it is written. */
export const isSuffix = (word: string): boolean => SUFFIX.test(word)
