/** The made-up world's countries: how people are called, where they live, and which numbers nobody was given. */
export interface Place {
  readonly country: string
  /** How a list writes the country. */
  readonly spellings: readonly string[]
  readonly trunk: string
  readonly code: string
  /** National numbers without trunk prefix; each `n` is a free digit. */
  readonly mobiles: readonly string[]
  readonly fixed: readonly string[]
  readonly cities: readonly (readonly [city: string, postalCode: string])[]
  readonly given: readonly string[]
  readonly family: readonly string[]
  readonly carriers: readonly string[]
  readonly timeZone: string
  readonly weight: number
}

const words = (text: string): string[] => text.split(' ')

export const PLACES: readonly Place[] = [
  {
    country: 'GB',
    spellings: ['United Kingdom', 'UK', 'GB', 'England', 'Great Britain'],
    trunk: '0',
    code: '44',
    mobiles: ['79112nnnnn'],
    fixed: ['1665555nnn', '1904555nnn', '1865555nnn'],
    cities: [
      ['Bamburgh', 'NE69 7BP'],
      ['York', 'YO1 7HH'],
      ['Oxford', 'OX1 2JD'],
      ['Whitby', 'YO21 3PU'],
    ],
    given: words('Maren Priya Tom Alice Oliver Freya Callum Isla Rhys Bronwen Nia Hamish Edith Jonah Tess'),
    family: words(
      "Oldershaw Hallowell Kestle Thornbury Ashdown Penrose Whitlock O'Hara McKellan Trevanion Garside Winterbourne Haddow",
    ),
    carriers: ['Larkwave', 'Northcall', 'Tern Mobile'],
    timeZone: 'Europe/London',
    weight: 26,
  },
  {
    country: 'IE',
    spellings: ['Ireland', 'IE', 'Éire'],
    trunk: '0',
    code: '353',
    mobiles: ['85555nnnn'],
    fixed: ['1555nnnn'],
    cities: [
      ['Galway', 'H91 E2K3'],
      ['Kinsale', 'P17 X582'],
    ],
    given: words('Aoife Cian Niamh Fionn Saoirse Eoin'),
    family: words("O'Malley Brannigan Kilbride Tierney MacGowan"),
    carriers: ['Emeril', 'Shannonet'],
    timeZone: 'Europe/Dublin',
    weight: 8,
  },
  {
    country: 'DE',
    spellings: ['Deutschland', 'Germany', 'DE', 'BRD'],
    trunk: '0',
    code: '49',
    mobiles: ['171555nnnn', '1765550nnnn'],
    fixed: ['431555nnnn', '89555nnnnn'],
    cities: [
      ['Kiel', '24103'],
      ['München', '80331'],
      ['Görlitz', '02826'],
    ],
    given: words('Jens Ilse Jürgen Anke Björn Heike Lukas Marlene Sören Käthe'),
    family: words('Krug Krüger Weißbach Hübner Sommerfeld Tiedemann Vogelsang Petersen Müller Brandstätter'),
    carriers: ['Rheinfunk', 'Nordnetz'],
    timeZone: 'Europe/Berlin',
    weight: 18,
  },
  {
    country: 'AT',
    spellings: ['Österreich', 'Austria', 'AT'],
    trunk: '0',
    code: '43',
    mobiles: ['664555nnnn'],
    fixed: ['662555nnn'],
    cities: [
      ['Bad Ischl', '4820'],
      ['Salzburg', '5020'],
    ],
    given: words('Ilse Leopold Resi Xaver Magdalena'),
    family: words('Brandhofer Gruber Steinlechner Moosbrugger'),
    carriers: ['Alpenruf'],
    timeZone: 'Europe/Vienna',
    weight: 8,
  },
  {
    country: 'CH',
    spellings: ['Schweiz', 'Suisse', 'Switzerland', 'CH'],
    trunk: '0',
    code: '41',
    mobiles: ['79555nnnn'],
    fixed: ['44555nnnn'],
    cities: [
      ['Zürich', '8001'],
      ['Vevey', '1800'],
    ],
    given: words('Urs Reto Beatrix Noémie Luca'),
    family: words('Zurbriggen Aebischer Rochat Bänziger'),
    carriers: ['Gipfelnet'],
    timeZone: 'Europe/Zurich',
    weight: 7,
  },
  {
    country: 'FR',
    spellings: ['France', 'FR', 'Frankreich'],
    trunk: '0',
    code: '33',
    mobiles: ['61255nnnn', '71255nnnn'],
    fixed: ['24155nnnn', '46755nnnn'],
    cities: [
      ['Angers', '49000'],
      ['Bourg-en-Bresse', '01000'],
      ['Sète', '34200'],
    ],
    given: words('Étienne Amélie Loïc Océane Hélène Benoît Maëlle'),
    family: words('Vaubert Lachaume Delacroix-Petit Montreuil Garnier Saulnier'),
    carriers: ['Ondelle', 'Mistralis'],
    timeZone: 'Europe/Paris',
    weight: 14,
  },
  {
    country: 'NL',
    spellings: ['Nederland', 'Netherlands', 'NL', 'Holland'],
    trunk: '0',
    code: '31',
    mobiles: ['612555nnn'],
    fixed: ['20555nnnn'],
    cities: [
      ['Delft', '2611 CX'],
      ['Zwolle', '8011 PK'],
    ],
    given: words('Sanne Joost Femke Maarten Lotte'),
    family: ['van der Veen', 'de Wit', 'Hoekstra', 'ten Brink', 'Blommaert'],
    carriers: ['Poldertel'],
    timeZone: 'Europe/Amsterdam',
    weight: 7,
  },
  {
    country: 'US',
    spellings: ['United States', 'USA', 'US', 'U.S.A.'],
    trunk: '',
    code: '1',
    mobiles: ['415555nnnn', '503555nnnn'],
    fixed: ['415555nnnn', '207555nnnn'],
    cities: [
      ['Portland', '04101'],
      ['Bend', '97701'],
      ['Ojai', '93023'],
    ],
    given: words('Wesley Harper Delia Marcus Juniper Abel Ramona Otis'),
    family: words('Whitaker Delacorte Ramsay Holloway Pennington Bright Castellan'),
    carriers: ['Prairie Wireless', 'Cobalt Mobile'],
    timeZone: 'America/Los_Angeles',
    weight: 8,
  },
  {
    country: 'CA',
    spellings: ['Canada', 'CA'],
    trunk: '',
    code: '1',
    mobiles: ['604555nnnn'],
    fixed: ['418555nnnn'],
    cities: [
      ['Tofino', 'V0R 2Z0'],
      ['Lévis', 'G6V 3P7'],
    ],
    given: words('Rosalie Gavin Mireille Desmond'),
    family: words('Lachapelle Thorsby Beaudry MacLeish'),
    carriers: ['Maplecom'],
    timeZone: 'America/Vancouver',
    weight: 4,
  },
] // prettier-ignore

export const COMPANY_NAMES = words(
  'Causeway Driftwood Seerose Larkrise Saltgarden Heron Blackthorn Wiesengrund Belvedere Clearwater Fernhill Quayside Saules Tidewater Millrace Oakhanger Sonnenhof Moorland Alder Birchcroft Lindenhof Rosemount Kingfisher Hollowell Stillwater',
)
export const COMPANY_KINDS = [
  'Guest House',
  'Café',
  'Camping',
  'Gartencenter',
  'Nurseries',
  'Gasthof',
  'Garden Centre',
  'Terrasse',
  'Strandbad',
  'Lodge',
] as const
export const LEGAL_FORMS: Record<string, readonly string[]> = {
  GB: ['Ltd', 'LLP'],
  IE: ['Ltd'],
  DE: ['GmbH', 'e.K.'],
  AT: ['GmbH'],
  CH: ['AG'],
  FR: ['SARL', 'SAS'],
  NL: ['B.V.'],
  US: ['LLC', 'Inc.'],
  CA: ['Inc.'],
}
export const TITLES = [
  'Owner',
  'Manager',
  'Buyer',
  'Head Gardener',
  'Operations Lead',
  'Geschäftsführerin',
  'Gérant',
  'Inhaber',
  'Events',
] as const
export const FREE_MAIL_HOSTS = ['postbox.example', 'brightmail.example', 'hearth.example', 'kinpost.example'] as const
