import type { Field } from './fields'

/** Words of headings in English, German, French, Spanish, Italian and Dutch; the longest match decides. */
const HEADING_WORDS: Record<Field, string> = {
  'full-name':
    'name,full name,contact,contact name,contact person,ansprechpartner,ansprechperson,kontakt,nom complet,nom et prénom,nombre completo,nome e cognome,nome completo,contactpersoon,attendee,person,kontaktperson,referent',
  'given-name': 'first name,firstname,given name,forename,fname,vorname,prénom,prenom,nombre,nome,voornaam',
  'family-name':
    'last name,lastname,surname,family name,lname,nachname,familienname,nom,nom de famille,apellido,apellidos,cognome,achternaam',
  title: 'title,job title,position,role,funktion,rolle,fonction,poste,titre,cargo,puesto,ruolo,functie',
  company:
    'company,company name,organisation,organization,business,firm,account,firma,firmenname,unternehmen,betrieb,société,societe,entreprise,raison sociale,empresa,azienda,società,bedrijf,bedrijfsnaam,venue,site name',
  number:
    'phone,phone number,telephone,tel,mobile,mobile phone,mobile number,cell,cell phone,cellphone,landline,office phone,work phone,home phone,direct line,telefon,telefonnummer,rufnummer,handy,handynummer,mobil,mobiltelefon,mobilnummer,telefon mobil,festnetz,téléphone,téléphone fixe,portable,mobile portable,numéro,teléfono,teléfono móvil,móvil,telefono,cellulare,telefoon,telefoonnummer,mobiel,gsm,number,contact number',
  email:
    'email,e-mail,mail,email address,e-mail address,e mail,mailadresse,e-mail-adresse,courriel,adresse e-mail,adresse mail,correo,correo electrónico,posta elettronica,e-mailadres,personal email,work email',
  country: 'country,country code,land,staat,pays,país,pais,paese,nazione,nation',
  city: 'city,town,place,stadt,ort,wohnort,ville,commune,ciudad,localidad,città,comune,plaats,stad,woonplaats',
  region: 'region,state,county,province,bundesland,kanton,région,département,provincia,estado,regione,provincie',
  'postal-code':
    'postcode,post code,postal code,zip,zip code,plz,postleitzahl,code postal,cp,código postal,cap,postcode nl',
  web: 'website,web site,web,url,homepage,domain,site,internet,webseite,site web,site internet,sitio web,sito,sito web,webadres',
  profile:
    'profile,profile url,profile address,profile link,profil,profil-adresse,lien du profil,perfil,profilo,profiel',
} // prettier-ignore

const byWord = new Map(
  Object.entries(HEADING_WORDS).flatMap(([field, words]) =>
    words.split(',').map((word) => [word, field as Field] as const),
  ),
)

/** The field a heading names, with how sure that is (0 to 1); null where no word of it is known. */
export function fieldOfHeading(heading: string): { readonly field: Field; readonly confidence: number } | null {
  const words = heading
    .toLowerCase()
    .replace(/([a-zà-ÿ])(\d)/g, '$1 $2')
    .replace(/[_./:#()[\]-]+/g, ' ')
    .replace(/\b\d+\b/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
  const exact = byWord.get(words) ?? byWord.get(words.replaceAll(' ', '-')) ?? byWord.get(heading.trim().toLowerCase())
  if (exact) return { field: exact, confidence: 0.95 }
  const inside = [...byWord].filter(([word]) => word.length > 2 && ` ${words} `.includes(` ${word} `))
  const longest = inside.sort((a, b) => b[0].length - a[0].length)[0]
  return longest ? { field: longest[1], confidence: 0.75 } : null
}
