import type { Field } from './fields'
import { MORE_WORDS } from './headingWordsOfMore'

/**
 * Words of headings in English, German, French, Spanish, Italian and Dutch. `none` holds headings that are known to
 * be no field of ours, so that they are not taken for one.
 */
const HEADING_WORDS: Record<Field | 'none', string> = {
  'full-name':
    'name,full name,fullname,contact,contact name,contact person,person,attendee,participant,lead name,customer name,client,guest,visitor,owner,owner name,manager,decision maker,your name,display name,formatted name,fn,n,' +
    'ansprechpartner,ansprechpartnerin,ansprechperson,kontakt,kontaktperson,kontaktname,vollständiger name,vor und nachname,vor- und nachname,vorname nachname,name vorname,teilnehmer,besucher,inhaber,inhaberin,gast,geschäftsführer,' +
    'nom du contact,nom du responsable,nom complet,nom et prénom,prénom et nom,nom prénom,interlocuteur,personne de contact,participant,gérant,responsable,' +
    'nombre de contacto,nombre del contacto,nombre completo,nombre y apellidos,nombre y apellido,persona de contacto,contacto,titular,propietario,asistente,' +
    'nome del contatto,nome contatto,nome e cognome,nome completo,nominativo,referente,contatto,persona di contatto,titolare,partecipante,' +
    'volledige naam,naam,contactpersoon,voor- en achternaam,voor en achternaam,deelnemer,eigenaar,bezoeker',
  'given-name':
    'first name,firstname,first,given name,given names,forename,fname,christian name,vorname,vornamen,rufname,prénom,prénoms,primer nombre,nombre de pila,nombre,nome,nome proprio,nome di battesimo,voornaam,voornamen,roepnaam',
  'family-name':
    'last name,lastname,last,surname,family name,familyname,lname,second name,nachname,familienname,zuname,nom,nom de famille,nom de naissance,apellido,apellidos,primer apellido,cognome,achternaam,familienaam',
  title:
    'title,job title,jobtitle,job,position,role,job role,occupation,profession,designation,seniority,headline,funktion,rolle,position im unternehmen,berufsbezeichnung,stelle,stellenbezeichnung,tätigkeit,beruf,fonction,poste occupé,titre,intitulé du poste,intitulé de poste,profession,métier,cargo,puesto,puesto de trabajo,función,profesión,ruolo,mansione,qualifica,posizione,professione,incarico,functie,functietitel,beroep',
  company:
    'company,company name,companyname,organisation,organization,organisation name,organization name,org,business,business name,firm,firm name,employer,account name,trading name,legal name,current company,venue,venue name,site name,campsite,café,cafe,hotel,establishment,property name,shop name,exhibitor,name of company,' +
    'firma,firmenname,firmenbezeichnung,unternehmen,unternehmensname,betrieb,betriebsname,arbeitgeber,name der firma,organisationsname,campingplatz,gaststätte,aussteller,' +
    "société,nom de la société,nom société,entreprise,nom de l'entreprise,nom entreprise,raison sociale,établissement,nom de l'établissement,employeur,enseigne,dénomination,structure,organisme," +
    'empresa,nombre de la empresa,nombre empresa,razón social,compañía,establecimiento,nombre comercial,organización,sociedad,' +
    "azienda,nome azienda,nome dell'azienda,ragione sociale,società,ditta,impresa,struttura,organizzazione,denominazione,nome struttura," +
    'bedrijf,bedrijfsnaam,naam bedrijf,onderneming,organisatie,organisatienaam,werkgever,naam organisatie,handelsnaam,camping,zaak',
  number:
    'phone,phones,phone number,phone no,phone nr,telephone,telephone number,telephone no,tel,tel no,tel nr,tel number,mobile,mobile phone,mobile number,mobile no,mob,mob no,cell,cell phone,cell number,cellphone,cellular,landline,landline number,office phone,office number,office tel,work phone,work mobile,home phone,direct line,direct dial,direct phone,direct number,company phone,business phone,main phone,switchboard,contact number,contact no,contact phone,daytime phone,evening phone,dial,whats number,number,ddi,phone mobile,phone work,phone home,' +
    'telefon,telefonnummer,telefonnr,telefon nr,tel nr,rufnummer,durchwahl,handy,handynummer,handynr,mobil,mobiltelefon,mobilnummer,mobilfunk,mobilfunknummer,mobilnr,telefon mobil,telefon geschäftlich,telefon privat,festnetz,festnetznummer,fon,zentrale,telefon zentrale,rückrufnummer,' +
    'téléphone,numéro de téléphone,n° de téléphone,n° tél,tél,tél fixe,tél portable,tél mobile,téléphone fixe,téléphone portable,téléphone mobile,téléphone professionnel,portable,mobile portable,numéro de portable,numéro,ligne directe,standard,fixe,numéro mobile,' +
    'teléfono,teléfonos,número de teléfono,nº de teléfono,teléfono móvil,teléfono fijo,móvil,celular,número de móvil,número móvil,tfno,tlf,tlfno,teléfono de contacto,teléfono empresa,fijo,' +
    'telefono,telefoni,numero di telefono,numero telefonico,recapito telefonico,recapito,cellulare,numero di cellulare,num cellulare,telefonino,telefono fisso,fisso,telefono cellulare,telefono ufficio,' +
    'telefoon,telefoonnummer,telefoonnr,tel nummer,mobiel,mobiele telefoon,mobiel nummer,mobiele nummer,gsm,gsm nummer,vaste lijn,vast nummer,doorkiesnummer,06 nummer,mobieltje',
  email:
    'email,emails,e-mail,e-mails,mail,email address,emailaddress,e-mail address,email id,e mail,personal email,work email,business email,private email,contact email,email addr,primary email,' +
    'mailadresse,e-mail-adresse,e-mail adresse,emailadresse,email adresse,mail adresse,e-post,elektronische post,geschäftliche e-mail,' +
    'courriel,adresse e-mail,adresse email,adresse mail,adresse électronique,adresse de courriel,mél,adresse mél,' +
    'correo,correo electrónico,correo-e,dirección de correo,dirección de correo electrónico,dirección de email,e-correo,' +
    'posta elettronica,indirizzo e-mail,indirizzo email,indirizzo di posta elettronica,indirizzo mail,pec,' +
    'e-mailadres,emailadres,mailadres,e-mail adres',
  country:
    'country,country code,country name,country/region,country region,nation,iso country,land,staat,ländercode,länderkürzel,pays,code pays,país,pais,código de país,paese,nazione,stato,landcode,landnaam',
  city: 'city,town,place,location,locality,municipality,city/town,town/city,city town,location city,suburb,stadt,ort,wohnort,ortschaft,gemeinde,ville,commune,localité,ciudad,localidad,población,municipio,città,comune,località,plaats,plaatsnaam,stad,woonplaats,gemeente,vestigingsplaats',
  region:
    'region,state,county,province,state/province,state province,administrative area,canton,bundesland,kanton,landkreis,région,provincia,comunidad autónoma,comunidad,estado,regione,prov,provincie,regio,gewest',
  'postal-code':
    'postcode,post code,postal code,postalcode,zip,zip code,zipcode,zip/postal code,postal,plz,postleitzahl,code postal,cp,codepostal,código postal,c p,cod postal,cap,codice postale,codice avviamento postale,postcode nl,postnummer',
  web: 'website,web site,web,url,website url,homepage,home page,domain,domain name,company domain,company website,site,internet,web address,webseite,website adresse,internetseite,internetadresse,internet adresse,webadresse,site web,site internet,adresse web,adresse internet,sitio web,página web,web empresa,sito,sito web,sito internet,indirizzo web,webadres,websiteadres',
  profile:
    'profile,profile url,profile address,profile link,public profile,public profile url,person url,social profile,profil,profil-adresse,profiladresse,profil url,profillink,lien du profil,lien profil,url du profil,adresse du profil,perfil,url del perfil,enlace del perfil,enlace al perfil,profilo,link profilo,url profilo,indirizzo del profilo,profiel,profiellink,profiel url,profielpagina',
  street:
    'address,address line,address line 1,address 1,line 1,postal address,mailing address,anschrift,adresse,adresse postale,dirección,domicilio,indirizzo,adres,street,street address,straße,strasse,straße und hausnummer,rue,calle,via,straat,street name,street and number,str,strasse und hausnummer,straße hausnummer,straße nr,rue et numéro,numéro et rue,calle y número,via e numero,straatnaam,straat en huisnummer',
  'birth-date':
    'date of birth,birthday,birth date,dob,geburtsdatum,geburtstag,date de naissance,fecha de nacimiento,data di nascita,geboortedatum,birthdate,born,born on,date born,year of birth,birth year,geboren,geboren am,geburtsjahr,né le,née le,année de naissance,nacimiento,año de nacimiento,nato il,nata il,anno di nascita,geboren op,geboortejaar',
  gender: 'gender,sex,geschlecht,genre,sexe,género,sexo,sesso,genere,geslacht',
  'device-id':
    'device id,device-id,advertising id,advertiser id,mobile advertising id,mobile ad id,maid,idfa,gaid,geräte-id,werbe-id,identifiant publicitaire,id publicitario,id pubblicitario,advertentie-id',
  value:
    'value,customer value,lifetime value,customer lifetime value,ltv,clv,kundenwert,valeur client,valor del cliente,valore cliente,klantwaarde',
  industry:
    "industry,sector,branche,branch,industrie,wirtschaftszweig,secteur,secteur d’activité,secteur d'activité,industria,sector de actividad,settore,settore di attività,bedrijfstak",
  'company-page':
    'company page,company profile,company profile url,firmenprofil,unternehmensprofil,page entreprise,página de empresa,pagina aziendale,bedrijfspagina',
  none:
    'department,id,no,nr,n,#,ref,reference,code,customer number,customer no,customer id,client number,order,order number,order no,order id,invoice number,invoice,account number,account no,member number,membership number,record id,lead id,contact id,external id,vat,vat number,vat id,tax number,tax id,company number,registration number,booth,stand,stand number,room,fax,fax number,telefax,house number,number of employees,number of pitches,number of rooms,employees,company size,headcount,revenue,turnover,category,type,status,stage,score,rating,source,lead source,campaign,date,created,created at,date added,updated,last contacted,scanned,scanned at,time,age,salutation,prefix,suffix,middle name,language,notes,note,comment,comments,remarks,message,consent,opt in,subscribed,tags,interests,product,quantity,amount,price,currency,total,latitude,longitude,lat,lon,opening hours,season,pitches,beds,seats,stars,assistant,' +
    'kundennummer,kunden nr,kdnr,kundennr,bestellnummer,auftragsnummer,rechnungsnummer,mitgliedsnummer,ust id,ust-id,ustid,steuernummer,handelsregister,hausnummer,adresszusatz,postfach,kategorie,größe,mitarbeiter,anzahl mitarbeiter,umsatz,stellplätze,quelle,herkunft,datum,erstellt am,angelegt am,anrede,sprache,bemerkung,bemerkungen,notiz,notizen,kommentar,nachricht,einwilligung,faxnummer,halle,standnummer,lfd nr,' +
    "n° client,numéro client,numéro de client,numéro de commande,n° siret,siret,siren,n° tva,numéro de tva,activité,catégorie,effectif,chiffre d'affaires,date de création,civilité,langue,remarque,remarques,commentaire,commentaires,observations,télécopie,consentement,emplacements,nombre d'emplacements,nombre de salariés,numéro de siret,origine,stand n°," +
    'número de cliente,nº cliente,número de pedido,nif,cif,categoría,actividad,empleados,número de empleados,facturación,fecha,fecha de alta,idioma,tratamiento,observaciones,notas,comentarios,mensaje,origen,parcelas,consentimiento,' +
    'numero cliente,codice cliente,numero ordine,partita iva,p iva,codice fiscale,categoria,attività,dipendenti,numero dipendenti,fatturato,data,data di creazione,lingua,titolo di cortesia,note,osservazioni,commenti,messaggio,origine,fonte,piazzole,consenso,' +
    'klantnummer,bestelnummer,ordernummer,kvk,kvk nummer,btw,btw nummer,huisnummer,categorie,medewerkers,aantal medewerkers,omzet,aanhef,taal,opmerking,opmerkingen,bericht,bron,standplaatsen,toestemming,faxnummer',
} // prettier-ignore

export type HeadingField = Field | 'none'

const byWord = new Map<string, HeadingField>()
for (const table of [HEADING_WORDS, MORE_WORDS])
  for (const [field, words] of Object.entries(table)) {
    for (const word of words.split(',')) {
      const key = headingKey(word)
      if (key !== '' && !byWord.has(key)) byWord.set(key, field as HeadingField)
    }
  }

/** Words that make up the heads of compounds in German and Dutch: `Firmentelefon`, `Kontaktmail`. */
const INSIDE: readonly (readonly [RegExp, HeadingField])[] = [
  [/fax/, 'none'],
  [/(?:kunden|bestell|auftrags|rechnungs|mitglieds|klant|order|haus|huis|steuer|konto)(?:nummer|nr)/, 'none'],
  [/(?:telefon|handy|mobil|phone|telefoon|rufnummer|cellulare)/, 'number'],
  [/(?:mail|courriel)/, 'email'],
  [/(?:strasse|straat|anschrift|geburt|geboorte)/, 'none'],
  [/(?:firmen|firma|bedrijfs)name?/, 'company'],
  [/(?:postleitzahl|postcode|zipcode)/, 'postal-code'],
  [/(?:website|homepage|webseite)/, 'web'],
]

/** A heading in one form: lower case without accents, camel case split, punctuation and counters off. */
export function headingKey(heading: string): string {
  return heading
    .replace(/([a-zà-ÿ])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ß', 'ss')
    .replace(/([a-z])(\d)/g, '$1 $2')
    .replace(/[\s_./:;()[\]{}*?!"'’`|\\+-]+/g, ' ')
    .replace(/(?:^| )\d{1,2}(?= |$)/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
}

const LONGEST_HEADING = 200

export interface NamedField {
  readonly field: HeadingField
  /** 0 to 1. */
  readonly confidence: number
}

/** The field a heading names, `none` for one known to be no field; null where no word of it is known. */
export function fieldOfHeading(heading: string): NamedField | null {
  if (heading.length > LONGEST_HEADING) return null
  const key = headingKey(heading)
  if (key === '') return null
  // The accent alone tells a French region from an English part of a company.
  if (/département/i.test(heading.normalize('NFC'))) return { field: 'region', confidence: 0.9 }
  const exact = byWord.get(key)
  if (exact) return { field: exact, confidence: 0.95 }
  const phrase = phraseIn(key)
  if (phrase) return phrase
  const inside = INSIDE.find(([pattern]) => pattern.test(key.replaceAll(' ', '')))
  return inside ? { field: inside[1], confidence: 0.65 } : null
}

const CONNECTORS = /^(?:of|de|du|des|del|della|dell|di|van|der|for|pour|para|per|voor|fur)$/

/** The longest known phrase in the words; among single words the head: the last, or the first before an "of". */
function phraseIn(key: string): NamedField | null {
  const words = key.split(' ')
  for (let length = Math.min(words.length - 1, 4); length >= 2; length--) {
    for (let start = words.length - length; start >= 0; start--) {
      const field = byWord.get(words.slice(start, start + length).join(' '))
      if (field) return { field, confidence: 0.8 }
    }
  }
  const known = words.flatMap((word, i) => {
    const field = word.length > 1 ? byWord.get(word) : undefined
    return field ? [{ field, i }] : []
  })
  const isHeadFirst = words.some((word) => CONNECTORS.test(word))
  const head = isHeadFirst ? known[0] : known.at(-1)
  return head ? { field: head.field, confidence: 0.72 } : null
}
