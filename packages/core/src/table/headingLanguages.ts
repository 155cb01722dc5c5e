import { headingKey } from './headingWords'

/** Words of headings that only one language has, as they stand in `headingKey`'s form. */
const MARKS: Readonly<Record<string, string>> = {
  en: 'first last surname full phone mobile company city town zip postcode state street job website employer',
  de: 'vorname nachname firma strasse hausnummer plz ort handy telefonnummer mobilnummer anrede rufnummer bundesland stadt unternehmen ansprechpartner festnetz geburtsdatum kunde kundennummer bemerkung postleitzahl funktion email-adresse kundennr',
  fr: 'prenom nom societe telephone portable ville courriel adresse entreprise fonction civilite code postal departement pays prenoms raison sociale commentaire',
  es: 'nombre apellido apellidos telefono movil celular empresa ciudad correo direccion provincia poblacion localidad codigo postal cargo pais observaciones',
  it: 'nome cognome telefono cellulare azienda citta indirizzo provincia cap comune ragione sociale regione societa nominativo',
  nl: 'voornaam achternaam naam telefoon telefoonnummer mobiel bedrijf bedrijfsnaam woonplaats plaats straat huisnummer postcode functie emailadres opmerking',
  pt: 'nome sobrenome apelido telefone telemovel celular empresa cidade localidade morada endereco concelho distrito cargo codigo postal cep estado observacoes contacto',
  pl: 'imie nazwisko telefon komorka firma miasto ulica kod pocztowy wojewodztwo stanowisko uwagi miejscowosc adres',
  cs: 'jmeno prijmeni telefon mobil firma mesto ulice psc obec poznamka kraj pozice spolecnost',
  sk: 'meno priezvisko telefon mobil firma mesto ulica psc obec poznamka kraj spolocnost',
  hu: 'nev vezeteknev keresztnev telefonszam mobil cegnev ceg varos utca iranyitoszam cim beosztas megjegyzes',
  ro: 'nume prenume telefon mobil firma companie oras localitate judet strada cod postal functie observatii',
  sv: 'fornamn efternamn namn telefon mobil foretag ort gata postnummer postort e-post befattning anteckning lan',
  da: 'fornavn efternavn navn telefon mobil firma by gade postnummer postnr virksomhed stilling bemaerkning adresse',
  nb: 'fornavn etternavn navn telefon mobil firma sted gate postnummer poststed bedrift e-post stilling merknad fylke',
  fi: 'etunimi sukunimi nimi puhelin matkapuhelin yritys kaupunki katu postinumero postitoimipaikka sahkoposti osoite',
  tr: 'ad soyad ad soyad telefon cep telefonu firma sirket sehir il ilce adres posta kodu unvan eposta aciklama',
  el: 'ονομα επωνυμο τηλεφωνο κινητο εταιρεια πολη διευθυνση τκ',
  ru: 'имя фамилия отчество фио телефон мобильныи компания город улица индекс должность почта адрес область примечание организация',
  uk: "ім'я ім я прізвище прізвище піб телефон мобільнии компанія місто вулиця індекс посада пошта",
  ar: 'الاسم الاسم الاول اسم العائلة اللقب الهاتف الجوال رقم الهاتف رقم الجوال الشركة المدينة البريد الالكتروني العنوان الدولة الوظيفة',
  he: 'שם שם פרטי שם משפחה טלפון נייד חברה עיר כתובת דוא ל מיקוד',
  ja: '氏名 名前 姓 名 会社名 会社 電話番号 電話 携帯電話 携帯 メールアドレス メール 郵便番号 住所 都道府県 市区町村 部署 役職',
  zh: '姓名 姓 名 公司 公司名称 电话 电话号码 手机 手机号 手机号码 邮箱 电子邮件 城市 省份 地址 邮编 职位 部门 備註 備注',
  ko: '이름 성명 회사 회사명 전화 전화번호 휴대폰 휴대전화 이메일 도시 주소 우편번호 직책',
}

const languagesOf: ReadonlyMap<string, readonly string[]> = wordsByLanguage()

function wordsByLanguage(): Map<string, string[]> {
  const found = new Map<string, string[]>()
  for (const [language, words] of Object.entries(MARKS))
    for (const word of new Set(words.split(' ').map(headingKey))) {
      if (word === '') continue
      found.set(word, [...(found.get(word) ?? []), language])
    }
  return found
}

/**
 * Languages that headings are written in, with the share of the headings that are of it. A word that several languages
 * have counts for each in part.
 */
export function headingLanguages(headings: readonly string[]): ReadonlyMap<string, number> {
  const points = new Map<string, number>()
  const keys = headings.map(headingKey).filter((key) => key !== '')
  for (const key of keys) {
    const found = languagesOf.get(key) ?? key.split(' ').flatMap((word) => languagesOf.get(word) ?? [])
    for (const language of new Set(found)) points.set(language, (points.get(language) ?? 0) + 1 / new Set(found).size)
  }
  return new Map(
    [...points]
      .map(([language, n]) => [language, n / Math.max(1, keys.length)] as const)
      .filter(([, share]) => share >= 0.15)
      .sort((a, b) => b[1] - a[1]),
  )
}
