import { remember } from '../remember'
import { fold } from '../table'

/** What somebody does in a company. */
export const FUNCTIONS = [
  'management',
  'sales',
  'marketing',
  'purchasing',
  'finance',
  'operations',
  'it',
  'people',
  'engineering',
  'legal',
  'service',
  'logistics',
] as const
export type JobFunction = (typeof FUNCTIONS)[number]

/** How high somebody stands, the highest first. */
export const LEVELS = ['owner', 'executive', 'head', 'manager', 'specialist', 'assistant'] as const
export type JobLevel = (typeof LEVELS)[number]

export interface ReadTitle {
  readonly functions: readonly JobFunction[]
  readonly level: JobLevel | null
}

/**
 * Stems of words for functions, in English, German, French, Spanish, Italian, Dutch and Portuguese, folded (small letters
 * without marks). A stem stands anywhere in a word where it is marked with a star: German joins its words.
 */
const FUNCTION_STEMS: Readonly<Record<JobFunction, string>> = {
  management:
    'ceo coo managing general geschaftsf* geschaeftsf* inhaber* owner president gerant gerente proprietaire propriet* propriet dueno titolare amministrator* bestuur* algemeen directeur-generaal dg director-general presidente fondat* founder* grunder* gruender* fundador* oprichter zaakvoerder directrice-generale gerante betriebsleit* betriebsinhaber*',
  sales:
    'sales vertrieb* verkauf* verkoop* commercial* commerciaux ventes vente ventas vendite vendas account business-development key-account akquise aussendienst* vendedor* vendeu* venditor* verkoper* cso cro',
  marketing:
    'marketing* brand growth communicat* kommunikation* werbung* werbe* reclame publicite publicidad pubblicita publicidade digital* cmo seo content social-media crm kampagn* campagn*',
  purchasing:
    'purchas* procure* procurement buyer* buying sourcing einkauf* einkaeuf* beschaff* achat* acheteu* compras comprador* acquist* buyer inkoop* inkoper* aprovisionam* approvision* aprovisiona* suprimentos cpo supply',
  finance:
    'financ* finanz* kaufman* accounting accountant* controll* buchhalt* comptab* contab* boekhoud* treasur* cfo rechnungswesen* tesor* administratif* administracion* amministrazione steuer* tax audit* revis* facturac* debiteuren*',
  operations:
    'operation* betrieb* produktion* production produccion produzione producao exploitation operaciones operacoes plant werk* factory quality qualitat* qualitaets* calidad qualita qualite facility facilit* haustechnik* operationeel productie* coo',
  it: 'it edv informati* software cto cio developer* entwickl* developpeu* desarroll* svilupp* ontwikkel* system* systeem* data cloud devops ict programm* administrator netzwerk* network* tecnolog* technolog*',
  people:
    'hr human personal* personnel rrhh recruit* talent* people ressources-humaines recursos-humanos risorse-umane personeel* chro ausbild* formation formacion formazione opleiding*',
  engineering:
    'engineer* ingenieur* ingenier* ingegner* engenh* technik* technisch* technique* tecnic* konstrukt* architect* architekt* arquitect* architett* research forschung* r&d design* entwurf*',
  legal:
    'legal* jurist* juridi* recht* counsel lawyer* anwalt* avocat* abogad* avvocat* advogad* advocaat* notar* compliance datenschutz*',
  service:
    'service* support customer* kund* client* cliente* atencion assistenza klant* reception* rezeption* empfang* front-office gast* guest* hospitality accueil recepcion* concierge',
  logistics:
    'logist* lager* warehouse* transport* spedit* versand* shipping almacen* magazz* magazijn* entrepot* fleet fuhrpark* dispo* expedit* distribucion* distributie*',
}

const LEVEL_STEMS: Readonly<Record<JobLevel, string>> = {
  owner:
    'owner* inhaber* eigentum* proprietaire* propriet* dueno* duena titolare eigenaar* founder* grunder* gruender* fondat* fundador* oprichter* cofounder* co-founder* mitgrunder* partner gesellschafter* associe socio zaakvoerder*',
  executive:
    'ceo coo cfo cto cio cmo cpo chro cso cro chief managing geschaftsf* geschaeftsf* vorstand* president* pdg directeur-general directrice-generale director-general amministratore-delegato gerant gerante gerente administrateur vp vice vice-president evp svp bestuurder* consejero* general-manager',
  head: 'head director* diretor* direct* direkt* leiter* leitung* leitend* lead chef* responsable responsabile* responsavel hoofd jefe* jefa capo verantwoordelijke bereichsl* abteilungsl* -leiter -leiterin leidinggevende supervisor superior obmann betriebsleit*',
  manager:
    'manager* gestionnaire gestor* coordinat* koordinat* coordinad* coordonnat* coordinador* teamleit* teamlead* gruppenleit* beauftragt* encargad* referent* referente',
  specialist:
    'specialist* spezialist* especialista* analyst* analista* consultant* berater* conseiller* consulent* consultor* expert* engineer* ingenieur* developer* entwickl* buyer* einkaeufer* einkaufer* acheteu* comprador* controller* sachbearbeit* fachkraft* techniker* tecnic* officer executive',
  assistant:
    'assist* sekret* secret* azubi* auszubild* trainee* intern internship praktik* stagiair* becari* tirocin* werkstudent* apprenti* aprendiz* junior aushilf* hilfskraft* student*',
}

type Matcher = (words: readonly string[]) => boolean

function matcherOf(stems: string): Matcher {
  const all = stems.split(/\s+/)
  const exact = new Set(all.filter((stem) => !stem.endsWith('*')))
  const starts = all.filter((stem) => stem.endsWith('*')).map((stem) => stem.slice(0, -1))
  return (words) =>
    words.some(
      (word) =>
        exact.has(word) || starts.some((stem) => word.startsWith(stem) || (stem.length > 5 && word.includes(stem))),
    )
}

const FUNCTION_MATCHERS = FUNCTIONS.map((name) => [name, matcherOf(FUNCTION_STEMS[name])] as const)
/** German joins the rank to what it is of: `Einkaufsleiterin`, `Vertriebsleitung`, `Küchenchef`. */
const JOINED_HEAD = /(?:leit(?:er|erin|ung)|chef(?:in)?|direktor(?:in)?)$/
const LEVEL_MATCHERS = LEVELS.map((name) => [name, matcherOf(LEVEL_STEMS[name])] as const)
/** Whoever helps one of rank has none: `Assistant to the CEO`, `Assistenz der Geschäftsführung`. */
const HELPS = matcherOf('assist* sekret* secret* stagiair* praktik* trainee* azubi* werkstudent*')
/** A deputy stands below whom they stand for. */
const DEPUTY = matcherOf('deputy stellv* stv adjoint* vice-director subdirector* vicedirett* plaatsvervangend*')

/** What a job title says of function and level, in seven languages. A title nobody knows says nothing. */
export const readTitle: (title: string) => ReadTitle = remember(read)

function read(title: string): ReadTitle {
  const words = wordsOf(title)
  if (words.length === 0) return { functions: [], level: null }
  const functions = FUNCTION_MATCHERS.flatMap(([name, isMeant]) => (isMeant(words) ? name : []))
  return { functions, level: levelOf(words) }
}

function levelOf(words: readonly string[]): JobLevel | null {
  if (HELPS(words)) return 'assistant'
  const found = LEVEL_MATCHERS.find(([, isMeant]) => isMeant(words))?.[0]
  const level = found === undefined || rank(found) > rank('head') ? headOr(words, found ?? null) : found
  return level === 'executive' && DEPUTY(words) ? 'head' : level
}

const headOr = (words: readonly string[], level: JobLevel | null): JobLevel | null =>
  words.some((word) => JOINED_HEAD.test(word)) ? 'head' : level

const rank = (level: JobLevel): number => LEVELS.indexOf(level)

/** Single words, and each with the next: some ranks are two words. */
function wordsOf(title: string): readonly string[] {
  const words = fold(title)
    .split(/[^\p{L}\p{N}&]+/u)
    .filter(Boolean)
  return [...words, ...words.slice(1).map((word, at) => `${words[at]}-${word}`)]
}
