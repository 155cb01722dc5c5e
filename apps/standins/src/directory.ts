import { plain, type World, type WorldPerson } from './world'

export interface PersonQuery {
  readonly name: string
  readonly company: string
  readonly domain: string
  readonly profile?: string | undefined
  readonly email?: string | undefined
}

/** Finds people of the world by what a caller knows of them. */
export interface Directory {
  find(query: PersonQuery): WorldPerson | undefined
}

export function createDirectory({ people }: World): Directory {
  const byProfile = new Map(people.map((person) => [person.profile, person]))
  const byCompany = new Map(
    people.map((person) => [keyOf(`${person.given} ${person.family}`, person.company.name), person]),
  )
  const byDomain = new Map(
    people.map((person) => [keyOf(`${person.given} ${person.family}`, person.company.domain), person]),
  )
  const byEmail = new Map(
    people.flatMap((person) => [person.workEmail, person.personalEmail].map((email) => [email, person])),
  )
  return {
    find: ({ name, company, domain, profile, email }) =>
      (profile ? byProfile.get(profile.replace(/^https?:\/\/(www\.)?/, '').replace(/\?.*$/, '')) : undefined) ??
      byCompany.get(keyOf(name, withoutLegalForm(company))) ??
      byDomain.get(keyOf(name, domain)) ??
      byEmail.get((email ?? '').toLowerCase()),
  }
}

/** The words of a name in any order, and the place of work. */
const keyOf = (name: string, place: string): string => `${plain(name).split('-').sort().join('-')}|${plain(place)}`

const withoutLegalForm = (company: string): string =>
  company.replace(/\s+(?:ltd|llp|gmbh|e\.k\.|ag|sarl|sas|b\.v\.|llc|inc)\.?$/i, '')
