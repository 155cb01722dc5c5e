const PLACES = [
  ['GB', 'Kelso', 'TD5 7', '+4479112'],
  ['DE', 'Köln', '50667', '+4915155'],
  ['FR', 'Lyon', '69001', '+3361255'],
  ['NL', 'Zwolle', '8011 AA', '+3161255'],
] as const
const TITLES = ['Owner', 'Head of Purchasing', 'Buyer', 'Gérante', 'Einkaufsleiterin', '']

/** So many made-up people, each with an address and a mobile of their own. */
export function peopleFile(count: number): string {
  const lines = Array.from({ length: count }, (_, i) => {
    const [country, city, zip, start] = PLACES[i % PLACES.length] ?? PLACES[0]
    const number = `${start}${String(i % 100_000).padStart(5, '0')}`
    const company = i % 7 === 0 ? 'Causeway Lodge' : 'Tidewater Guest House'
    return `Given${i} Oldershaw${i % 500},${company},${TITLES[i % TITLES.length]},${city},${zip},${country},${number},person${i}@postbox${i % 90}.example,${i % 120}`
  })
  return `name,company,title,city,zip,country,phone,mail,seats\n${lines.join('\n')}\n`
}
