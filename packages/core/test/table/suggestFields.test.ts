import { describe, expect, it } from '@jest/globals'
import { type Field, openText } from '../../src/table'

/**
 * Headings and layouts as they come, in six languages: `heading=field`, where `-` is a column that is no field of
 * ours and `~` in front of a field stands for cells that are blank throughout. Written from the trade's own words.
 */
const LAYOUTS: readonly (readonly [country: string, layout: string])[] = [
  ['GB', 'Name=full-name|Company=company|Phone=number|Email=email'],
  [
    'GB',
    'First Name=given-name|Last Name=family-name|Job Title=title|Organisation=company|Mobile=number|E-mail address=email|Country=country',
  ],
  [
    'US',
    'firstName=given-name|lastName=family-name|phoneNumber=number|emailAddress=email|zipCode=postal-code|state=region',
  ],
  [
    'US',
    'first_name=given-name|last_name=family-name|phone_1=number|phone_2=number|email_1=email|email_2=email|city=city|zip=postal-code',
  ],
  ['GB', 'Contact Name=full-name|Contact Number=number|Contact Email=email|Address=-|Town=city|Post Code=postal-code'],
  ['GB', 'Full name=full-name|Cell=number|Landline=number|Work email=email|Personal email=email|Website=web'],
  ['GB', 'Attendee=full-name|Business name=company|Position=title|Direct line=number|Mail=email|Badge no=-|Stand=-'],
  ['GB', 'Customer number=-|Customer name=full-name|Order number=-|Tel. no.=number|E-Mail=email|Date=-'],
  [
    'US',
    'ID=-|Lead Source=-|Owner=full-name|Account=-|Phone (work)=number|Phone (home)=number|Email=email|Created at=-',
  ],
  [
    'GB',
    'Salutation=-|Forename=given-name|Surname=family-name|Telephone=number|Fax=-|County=region|Postcode=postal-code|Notes=-',
  ],
  [
    'GB',
    'Profile URL=profile|First Name=given-name|Last Name=family-name|Headline=title|Current Company=company|Location=city',
  ],
  [
    'GB',
    'VENUE NAME=company|MANAGER=full-name|TELEPHONE=number|WEB=web|EMAIL=email|NUMBER OF ROOMS=-|POSTCODE=postal-code',
  ],
  [
    'DE',
    'Vorname=given-name|Nachname=family-name|Firma=company|Telefon=number|Handy=number|E-Mail=email|PLZ=postal-code|Ort=city|Land=country',
  ],
  [
    'DE',
    'Name=family-name|Vorname=given-name|Telefonnummer=number|E-Mail-Adresse=email|Straße=-|Hausnummer=-|PLZ=postal-code|Stadt=city',
  ],
  ['DE', 'Ansprechpartner=full-name|Unternehmen=company|Funktion=title|Rufnummer=number|Mobil=number|Webseite=web'],
  ['DE', 'Kundennummer=-|Firmenname=company|Kontaktperson=full-name|Tel.=number|Fax=-|Mail=email|Bundesland=region'],
  ['DE', 'Anrede=-|Titel=-|Vorname=given-name|Nachname=family-name|Festnetz=number|Mobilnummer=number|Geburtsdatum=-'],
  [
    'AT',
    'Betrieb=company|Inhaber=full-name|Telefon geschäftlich=number|Telefon privat=number|Homepage=web|Gemeinde=city|Branche=industry',
  ],
  [
    'CH',
    'Firma=company|Kontakt=full-name|Position=title|Telefon Zentrale=number|Durchwahl=number|E-Mail=email|Kanton=region|PLZ=postal-code',
  ],
  [
    'DE',
    'Lfd. Nr.=-|Campingplatz=company|Ansprechperson=full-name|Telefon-Nr.=number|Email=email|Stellplätze=-|Anschrift=-',
  ],
  ['DE', 'Teilnehmer=full-name|Firma=company|Handynummer=number|Mailadresse=email|Bemerkung=-|Einwilligung=-'],
  ['DE', 'Firmentelefon=number|Firmenname=company|Kontaktmail=email|Postleitzahl=postal-code|Wohnort=city'],
  [
    'FR',
    'Prénom=given-name|Nom=family-name|Société=company|Téléphone=number|Portable=number|Courriel=email|Ville=city|Code postal=postal-code|Pays=country',
  ],
  [
    'FR',
    "Nom=full-name|Nom de l'entreprise=company|Fonction=title|Téléphone fixe=number|Téléphone mobile=number|Adresse e-mail=email",
  ],
  [
    'FR',
    'Civilité=-|Nom de famille=family-name|Prénom=given-name|N° de téléphone=number|Adresse mail=email|Adresse=-|Commune=city|CP=postal-code',
  ],
  [
    'FR',
    "Raison sociale=company|Interlocuteur=full-name|Poste occupé=title|Ligne directe=number|Site web=web|Secteur d'activité=industry",
  ],
  [
    'FR',
    'Numéro client=-|Nom complet=full-name|Établissement=company|Tél.=number|Tél. portable=number|E-mail=email|Région=region',
  ],
  [
    'FR',
    'Gérant=full-name|Structure=company|Téléphone professionnel=number|Mél=email|Site internet=web|Département=region|SIRET=-',
  ],
  [
    'FR',
    'Contact=full-name|Entreprise=company|Numéro de portable=number|Adresse électronique=email|Remarques=-|Date de création=-',
  ],
  ['FR', "Nom du contact=full-name|Téléphone de l'entreprise=number|Emplacements=-|Localité=city|Code pays=country"],
  [
    'ES',
    'Nombre=given-name|Apellidos=family-name|Empresa=company|Teléfono=number|Móvil=number|Correo electrónico=email|Ciudad=city|Código postal=postal-code|País=country',
  ],
  ['ES', 'Nombre=full-name|Teléfono de contacto=number|Correo=email|Provincia=region|Observaciones=-'],
  [
    'ES',
    'Nombre y apellidos=full-name|Razón social=company|Cargo=title|Teléfono fijo=number|Teléfono móvil=number|Dirección=-|Población=city',
  ],
  [
    'ES',
    'Persona de contacto=full-name|Establecimiento=company|Puesto=title|Número de teléfono=number|Página web=web|Nº cliente=-',
  ],
  [
    'ES',
    'Nº=-|Titular=full-name|Nombre de la empresa=company|Tfno.=number|E-mail=email|Localidad=city|CP=postal-code|NIF=-',
  ],
  [
    'ES',
    'Fecha de alta=-|Primer apellido=family-name|Nombre de pila=given-name|Número de móvil=number|Dirección de correo electrónico=email|Municipio=city',
  ],
  [
    'ES',
    'Contacto=full-name|Compañía=company|Celular=number|Email=email|Sitio web=web|Comunidad autónoma=region|Sector=industry',
  ],
  [
    'IT',
    'Nome=given-name|Cognome=family-name|Azienda=company|Telefono=number|Cellulare=number|E-mail=email|Città=city|CAP=postal-code|Paese=country',
  ],
  ['IT', 'Nome=full-name|Numero di telefono=number|Indirizzo e-mail=email|Indirizzo=-|Comune=city|Provincia=region'],
  [
    'IT',
    'Ragione sociale=company|Referente=full-name|Ruolo=title|Telefono ufficio=number|Numero di cellulare=number|Sito web=web',
  ],
  [
    'IT',
    'Codice cliente=-|Nominativo=full-name|Struttura=company|Recapito telefonico=number|Posta elettronica=email|Regione=region',
  ],
  ['IT', 'Nome e cognome=full-name|Ditta=company|Mansione=title|Fisso=number|Cell.=number|PEC=email|Partita IVA=-'],
  [
    'IT',
    'Data di nascita=-|Cognome=family-name|Nome=given-name|Telefono fisso=number|Telefono cellulare=number|Indirizzo email=email|Località=city|Note=-',
  ],
  [
    'IT',
    "Nome dell'azienda=company|Persona di contatto=full-name|Num. cellulare=number|Sito internet=web|Settore=industry|Nazione=country",
  ],
  [
    'NL',
    'Voornaam=given-name|Achternaam=family-name|Bedrijf=company|Telefoon=number|Mobiel=number|E-mailadres=email|Plaats=city|Postcode=postal-code|Land=country',
  ],
  ['NL', 'Naam=full-name|Bedrijfsnaam=company|Functie=title|Telefoonnummer=number|Mobiel nummer=number|Website=web'],
  ['NL', 'Naam=family-name|Voornaam=given-name|GSM=number|Mail=email|Straat=-|Huisnummer=-|Woonplaats=city'],
  [
    'NL',
    'Klantnummer=-|Contactpersoon=full-name|Organisatie=company|Vast nummer=number|Mobiele telefoon=number|E-mail adres=email|Provincie=region',
  ],
  [
    'NL',
    'Aanhef=-|Roepnaam=given-name|Familienaam=family-name|06-nummer=number|E-mail=email|Geboortedatum=-|Opmerkingen=-',
  ],
  [
    'NL',
    'KvK-nummer=-|Naam bedrijf=company|Eigenaar=full-name|Tel. nummer=number|Webadres=web|Vestigingsplaats=city|Branche=industry',
  ],
  // Headings that tell nothing, or none at all: the cells decide.
  ['GB', 'c1=full-name|c2=number|c3=email'],
  ['DE', 'x=company|y=number|z=email|q=country'],
  ['GB', 'Feld A=number|Feld B=email|Feld C=-'],
  ['FR', 'A=email|B=profile|C=number'],
  ['GB', 'Förnamn=given-name|Telefonnummer=number|E-post=email'],
  // Headings that are wrong, or blank columns under right ones.
  ['GB', 'Phone=email|Email=number|Name=full-name'],
  ['GB', 'Name=full-name|Mobile=~number|E-mail=email|Country=~country'],
  ['GB', 'Company=company|Company name=-|Telephone=number'],
  ['GB', 'Title=-|First name=given-name|Last name=family-name|Tel=number'],
  [
    'US',
    'person.name=full-name|person.phones.0=number|person.phones.1=number|person.email=email|person.address.city=city',
  ],
] // prettier-ignore

/** Cells of each field in each country, three rows of them. */
const CELLS: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>> = {
  'full-name': { any: ['Anna Hollis', 'Thomas Brandt', 'Marie Dupré'] },
  'given-name': { any: ['Anna', 'Thomas', 'Marie'] },
  'family-name': { any: ['Hollis', 'Brandt', 'Dupré'] },
  title: { any: ['Owner', 'Head of events', 'Purchasing'] },
  company: { any: ['Heron Lodge Ltd', 'Camping Sonnental GmbH', 'Café des Quais SARL'] },
  number: {
    GB: ['07911 204481', '01665 555018', '+44 7911 204483'],
    US: ['(212) 555-7781', '212-555-7782', '+1 212 555 7783'],
    DE: ['0171 5550914', '0431 5557720', '+49 171 5550915'],
    AT: ['0664 5550914', '01 5557720', '+43 664 5550915'],
    CH: ['079 555 09 14', '044 555 77 20', '+41 79 555 09 15'],
    FR: ['06 12 55 09 18', '01 44 55 77 20', '+33 6 12 55 09 19'],
    ES: ['612 55 09 18', '912 55 77 20', '+34 612 55 09 19'],
    IT: ['347 5550914', '06 5557720', '+39 347 5550915'],
    NL: ['06 12550918', '020 5557720', '+31 6 12550919'],
  },
  email: { any: ['anna@heron-lodge.example', 'info@sonnental.example', 'm.dupre@quais.example'] },
  country: { any: ['Germany', 'FR', 'United Kingdom'] },
  city: { any: ['York', 'Kiel', 'Angers'] },
  region: { any: ['North East', 'Holstein', 'Loire'] },
  'postal-code': {
    any: ['24103', '80331', '10115'],
    GB: ['YO1 7HH', 'NE66 1NG', 'BA1 1SU'],
    NL: ['1012 AB', '3511 LX', '9711 KL'],
  },
  web: { any: ['www.heron-lodge.example', 'https://sonnental.example', 'quais.example'] },
  profile: {
    any: ['https://rollcall.example/p/anna-hollis', 'rollcall.example/p/t-brandt', 'rollcall.example/p/m-dupre'],
  },
}
const OTHER: Readonly<Record<string, readonly string[]>> = {
  Title: ['Ms', 'Mr', 'Mrs'],
  Titel: ['Dr.', '', ''],
  Date: ['2026-05-03', '2026-06-11', '2026-07-29'],
}
const ANY_OTHER = ['A-1042', 'B-2211', 'C-0007']

const outcomes = LAYOUTS.flatMap(([country, layout]) => {
  const columns = layout.split('|').map((column) => {
    const at = column.lastIndexOf('=')
    return { heading: column.slice(0, at), wanted: column.slice(at + 1) }
  })
  const cellsOf = ({ heading, wanted }: { heading: string; wanted: string }) => {
    if (wanted.startsWith('~')) return ['', '', '']
    if (wanted === '-') return OTHER[heading] ?? (heading === 'Company name' ? (CELLS.company?.any ?? []) : ANY_OTHER)
    return CELLS[wanted]?.[country] ?? CELLS[wanted]?.any ?? []
  }
  const cells = columns.map(cellsOf)
  const lines = [
    columns.map(({ heading }) => heading),
    ...[0, 1, 2].map((row) => cells.map((column) => column[row] ?? '')),
  ]
  const opened = openText(new TextEncoder().encode(lines.map((line) => line.join('\t')).join('\n')), {
    isWhole: true,
    country,
  })
  return columns.map(({ heading, wanted }, i) => {
    const field: Field | null = opened.status === 'opened' ? (opened.suggestions[i]?.field ?? null) : null
    return { layout, heading, wanted: wanted === '-' ? null : wanted.replace('~', ''), field }
  })
})

describe('column suggestions', () => {
  it('cover 60 layouts in six languages', () => expect(LAYOUTS.length).toBeGreaterThanOrEqual(60))

  it('are right for at least 97 of 100 columns', () => {
    const wrong = outcomes.filter(({ wanted, field }) => wanted !== field)
    const share = 1 - wrong.length / outcomes.length
    // The wrong ones stand in the message, so that a fall can be understood.
    expect({ share: share >= 0.97, wrong: share >= 0.97 ? [] : wrong }).toEqual({ share: true, wrong: [] })
  })
})
