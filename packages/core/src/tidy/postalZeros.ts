import { fold } from '../table'

/** Regions in which postal codes begin with a zero (ISO 3166-2, without the country), by country. */
const REGIONS: Record<string, string> = {
  US: 'CT MA ME NH NJ RI VT PR VI NY AE',
  DE: 'SN ST TH BB',
  FR: 'ARA HDF PAC GES OCC 01 02 03 04 05 06 07 08 09',
  IT: '62 55 88 RM VT RI FR LT TR PG SS NU CA OR SU',
  ES: 'PV CM VC AN CL EX IB CT VI AB A AL AV BA PM B BU',
  AU: 'NT',
  FI: '18',
  NO: '03',
  DK: '84',
}
/** Large towns whose codes begin with no zero, folded: beside one of them no zero is missing. */
const TOWNS: Record<string, string> = {
  US: 'new york,brooklyn,los angeles,chicago,houston,phoenix,philadelphia,san antonio,san diego,dallas,austin,jacksonville,fort worth,columbus,charlotte,san francisco,indianapolis,seattle,denver,washington,nashville,oklahoma city,el paso,las vegas,detroit,memphis,louisville,baltimore,milwaukee,albuquerque,tucson,fresno,sacramento,mesa,kansas city,atlanta,omaha,raleigh,miami,virginia beach,oakland,minneapolis,tulsa,tampa,new orleans,cleveland,honolulu,st louis,saint louis,pittsburgh,cincinnati,orlando,buffalo,salt lake city,boise',
  DE: 'berlin,hamburg,munchen,munich,koln,cologne,frankfurt,frankfurt am main,stuttgart,dusseldorf,dortmund,essen,bremen,hannover,nurnberg,duisburg,bochum,wuppertal,bielefeld,bonn,munster,karlsruhe,mannheim,augsburg,wiesbaden,kiel,lubeck,freiburg,mainz,kassel,aachen,rostock,heidelberg,ulm,regensburg,wurzburg',
  FR: 'paris,lyon,toulouse,nantes,montpellier,strasbourg,bordeaux,lille,rennes,reims,toulon,grenoble,dijon,angers,nimes,le mans,brest,tours,amiens,limoges,metz,besancon,orleans,rouen,caen,nancy',
  IT: 'milano,milan,torino,turin,napoli,naples,palermo,genova,genoa,bologna,firenze,florence,bari,catania,venezia,venice,verona,padova,trieste,brescia,parma,modena',
  ES: 'madrid,sevilla,seville,zaragoza,malaga,murcia,bilbao,valladolid,vigo,gijon,granada,cordoba,oviedo,pamplona,santander,toledo,salamanca,valencia',
  AU: 'sydney,melbourne,brisbane,perth,adelaide,canberra,hobart,gold coast,newcastle,geelong',
  FI: 'turku,tampere,oulu,lahti,kuopio,jyvaskyla,pori,joensuu,vaasa',
  NO: 'bergen,trondheim,stavanger,kristiansand,tromso,drammen',
  DK: 'aarhus,arhus,odense,aalborg,alborg,esbjerg,randers,kolding',
}
const sets = (lists: Record<string, string>, at: string | RegExp) =>
  new Map(Object.entries(lists).map(([country, list]) => [country, new Set(list.split(at))]))
const REGIONS_WITH = sets(REGIONS, ' ')
const TOWNS_WITHOUT = sets(TOWNS, ',')

export interface PlaceAround {
  /** Code of ISO 3166-2, or as it is written; empty where unknown. */
  readonly region: string
  readonly town: string
}

/** True where the state or the town beside a postal code says that it begins with no zero. */
export function contradictsZero(country: string, { region, town }: PlaceAround): boolean {
  const code = region.startsWith(`${country}-`) ? region.slice(country.length + 1) : ''
  if (code !== '' && REGIONS_WITH.get(country)?.has(code) === false) return true
  // Without a region the town tells; with one that has such codes, a town of that name lies there.
  return code === '' && town !== '' && (TOWNS_WITHOUT.get(country)?.has(fold(town)) ?? false)
}
