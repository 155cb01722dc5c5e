/** Short and familiar forms of given names, a line each, folded. Written down from common knowledge of the languages. */
const FORMS = `
alexander alex sandy sascha sacha
alexandra alex sandra sasha
andrew andy drew
andreas andi andy
antonio toni tonio
anthony tony
barbara barb babs
benjamin ben benny benji
caroline carol carrie caro
catherine cathy kate katie cat
charles charlie chuck chas
christina chris tina christa
christine chris tina
christopher chris kit
christoph chris
christian chris
daniel dan danny
david dave davy
deborah deb debbie
dorothea doro dora thea
edward ed eddie ted ned
elizabeth liz lizzie beth betty eliza lisa
elisabeth lisa lisi sissi elli
emily em emmy
ferdinand ferdi
francesca franca cesca
francis frank fran
francisco paco pancho
franziska franzi
frederick fred freddie
friedrich fritz fred
gabriele gabi
georg schorsch
george geordie
gerhard gerd
gregory greg
guillaume gui
hannah hanna
heinrich heinz heiner
henry harry hank
isabella isa bella
jacob jake
jakob jaki
james jim jimmy jamie
jacqueline jackie
jean jeannot
jennifer jen jenny
jessica jess jessie
johannes hannes hans johann jo
john johnny jack jon
jonathan jon jonny
jose pepe
josef sepp jupp
joseph joe joey
joshua josh
judith judy
julia jule
katharina kathi kathrin katja
katherine kate kathy katie kat
kenneth ken kenny
kimberly kim
lawrence larry laurie
leonard leo len lenny
louis lou
margaret maggie peggy meg margie
margarete grete gretel
maria mia mitzi
martin marty
matthew matt
matthias matze hias
maximilian max maxi
michael mike mick micky michi
michel miche
nicholas nick nicky
nikolaus niko klaus
oliver olli ollie
pamela pam
patricia pat patty tricia
patrick pat paddy
peter pete
philip phil pip
philippe phil
raymond ray
rebecca becky becca
richard dick rick ricky rich
robert bob bobby rob robbie bert
ronald ron ronnie
rudolf rudi
samantha sam
samuel sam sammy
sebastian seb basti bastian
sigrid siggi
stefan steff
stephanie steph steffi
stephen steve
steven steve
susan sue susie
susanne susi
theodor theo
theodore ted theo
theresa terry tess tessa
therese resi
thomas tom tommy
timothy tim timmy
ulrich uli
ursula uschi ulla
valentina vale tina
victoria vicky tori
vincenzo enzo
walter walt wally
wilhelm willi willy
william bill billy will willy liam
wolfgang wolf wolfi
zachary zach
`

const formsOf = new Map<string, Set<number>>()
for (const [line, text] of FORMS.trim().split('\n').entries())
  for (const form of text.split(' ')) formsOf.set(form, (formsOf.get(form) ?? new Set()).add(line))

/** True where two given names, folded, are forms of one. */
export function areForms(a: string, b: string): boolean {
  const [mine, theirs] = [formsOf.get(a), formsOf.get(b)]
  if (!mine || !theirs) return false
  for (const line of mine) if (theirs.has(line)) return true
  return false
}

/** True for a word, folded, that is known as a given name. */
export const isGivenName = (word: string): boolean => formsOf.has(word)
