/** A file as a shop, a fair, a register or an address book exports it, and what must come out of it unasked. */
export interface OrdinaryFile {
  readonly what: string
  readonly text: string
  readonly country: string
  /** E.164 of all numbers, in the order of rows. */
  readonly numbers: readonly string[]
  /** Fields of the columns; null for an extra. */
  readonly fields: readonly (string | null)[]
}

/** Twenty files of fourteen countries. All people, firms and sites are made up. */
export const ORDINARY: readonly OrdinaryFile[] = [
  {
    what: 'orders of a shop, United States',
    country: 'US',
    text: 'Order,Billing Name,Billing Phone,Email,Billing City,Billing Province,Billing Zip\n#1001,Jo Mill,(415) 555-2671,jo@mill.example,San Rafael,CA,94901\n#1002,Amy Ash,305-555-8123,amy@ash.example,Miami,FL,33101\n#1003,Ted Low,6175553344,ted@low.example,Quincy,MA,02169\n',
    fields: [null, 'full-name', 'number', 'email', 'city', 'region', 'postal-code'],
    numbers: ['+14155552671', '+13055558123', '+16175553344'],
  },
  {
    what: 'visitors of a fair, United States',
    country: 'US',
    text: 'First Name\tLast Name\tCompany\tJob Title\tMobile Phone\tWork Phone\tState\nJo\tMill\tMill Dental LLC\tOwner\t4155552671\t\tCalifornia\nAmy\tAsh\tAsh Realty Inc.\tAgent\t\t3055558123\tFlorida\n',
    fields: ['given-name', 'family-name', 'company', 'title', 'number', 'number', 'region'],
    numbers: ['+14155552671', '+13055558123'],
  },
  {
    what: 'an address book, United Kingdom',
    country: 'GB',
    text: 'Name,Mobile,Home phone,Address,Town,Postcode\nAnn Hill,07911 204481,,2 Mill Lane,York,YO1 7HH\nBen Cole,,01865 512345,3 High Street,Oxford,OX1 2JD\n',
    fields: ['full-name', 'number', 'number', 'street', 'city', 'postal-code'],
    numbers: ['+447911204481', '+441865512345'],
  },
  {
    what: 'a register with spreadsheet damage, United Kingdom',
    country: 'GB',
    text: 'Company name,Telephone,Website,Town\nHill Ltd,1865512345,www.hill.example,Oxford\nCole Ltd,2079461234,cole.example,London\nAsh Ltd,7911204481,ash.example,Leeds\n',
    fields: ['company', 'number', 'web', 'city'],
    numbers: ['+441865512345', '+442079461234', '+447911204481'],
  },
  {
    what: 'customers of a shop, Germany',
    country: 'DE',
    text: 'Kundennr.;Vorname;Nachname;Straße;PLZ;Ort;Telefon;Mobil;E-Mail\n4711;Anna;Krug;Weg 2;80331;München;089/12345678;0171-2345678;anna@krug.example\n4712;Jan;Linde;Ring 3;10115;Berlin;030 98765432;;jan@linde.example\n',
    fields: [null, 'given-name', 'family-name', 'street', 'postal-code', 'city', 'number', 'number', 'email'],
    numbers: ['+498912345678', '+491712345678', '+493098765432'],
  },
  {
    what: 'exhibitors of a fair, Germany',
    country: 'DE',
    text: 'Firma;Ansprechpartner;Position;Telefon\nLinde GmbH;Herr Jan Krug;Vertriebsleiter;+49 (0)40 123456\nKrug & Söhne KG;Frau Dr. Anna Linde;Geschäftsführerin;0221 / 98 76 54\n',
    fields: ['company', 'full-name', 'title', 'number'],
    numbers: ['+4940123456', '+49221987654'],
  },
  {
    what: 'guests of a hotel, Austria',
    country: 'AT',
    text: 'Name;Telefon;PLZ;Ort\nAnna Huber;0664 1234567;8010;Graz\nJan Moser;01 5123456;1010;Wien\nEva Gruber;0662 845678;5020;Salzburg\n',
    fields: ['full-name', 'number', 'postal-code', 'city'],
    numbers: ['+436641234567', '+4315123456', '+43662845678'],
  },
  {
    what: 'members of a club, Switzerland',
    country: 'CH',
    text: 'Name;Vorname;Telefon;PLZ;Ort\nMeier;Anna;044 123 45 67;8001;Zürich\nFrei;Jan;079 123 45 67;3011;Bern\n',
    fields: ['family-name', 'given-name', 'number', 'postal-code', 'city'],
    numbers: ['+41441234567', '+41791234567'],
  },
  {
    what: 'orders of a shop, France',
    country: 'FR',
    text: 'Nom;Prénom;Téléphone;Courriel;Code postal;Ville\nPetit;Léa;06 12 34 56 78;lea@petit.example;75011;Paris\nBlanc;Luc;04.91.22.33.44;luc@blanc.example;13001;Marseille\n',
    fields: ['family-name', 'given-name', 'number', 'email', 'postal-code', 'city'],
    numbers: ['+33612345678', '+33491223344'],
  },
  {
    what: 'a register of firms without leading zeros, France',
    country: 'FR',
    text: 'Raison sociale;Téléphone;Ville\nPetit SARL;144556677;Paris\nBlanc SAS;612345678;Lyon\nNoir SA;491223344;Marseille\n',
    fields: ['company', 'number', 'city'],
    numbers: ['+33144556677', '+33612345678', '+33491223344'],
  },
  {
    what: 'customers of a shop, Spain',
    country: 'ES',
    text: 'Nombre;Apellidos;Teléfono;Correo electrónico;Provincia\nAna;Ruiz;612 345 678;ana@ruiz.example;Madrid\nLuis;Vega;934 567 890;luis@vega.example;Barcelona\n',
    fields: ['given-name', 'family-name', 'number', 'email', 'region'],
    numbers: ['+34612345678', '+34934567890'],
  },
  {
    what: 'an address book, Italy',
    country: 'IT',
    text: 'Nome;Cognome;Cellulare;Telefono;CAP;Città\nAnna;Rossi;347 1234567;02 12345678;20121;Milano\nLuca;Bruni;333 7654321;;50122;Firenze\n',
    fields: ['given-name', 'family-name', 'number', 'number', 'postal-code', 'city'],
    numbers: ['+393471234567', '+390212345678', '+393337654321'],
  },
  {
    what: 'customers of a shop, the Netherlands',
    country: 'NL',
    text: 'Voornaam;Achternaam;Telefoonnummer;Postcode;Woonplaats\nAnna;Bakker;06-12345678;1012 AB;Amsterdam\nJan;de Wit;020 1234567;3511 KX;Utrecht\n',
    fields: ['given-name', 'family-name', 'number', 'postal-code', 'city'],
    numbers: ['+31612345678', '+31201234567'],
  },
  {
    what: 'visitors of a fair, Poland',
    country: 'PL',
    text: 'Imię;Nazwisko;Firma;Telefon;Miasto\nAnna;Lis;Lis Sp. z o.o.;601 234 567;Kraków\nJan;Sowa;Sowa S.A.;22 123 45 67;Warszawa\n',
    fields: ['given-name', 'family-name', 'company', 'number', 'city'],
    numbers: ['+48601234567', '+48221234567'],
  },
  {
    what: 'members of a club, Sweden',
    country: 'SE',
    text: 'Förnamn;Efternamn;Mobil;E-post;Ort\nAnna;Berg;070-123 45 67;anna@berg.example;Lund\nErik;Dahl;073-765 43 21;erik@dahl.example;Stockholm\n',
    fields: ['given-name', 'family-name', 'number', 'email', 'city'],
    numbers: ['+46701234567', '+46737654321'],
  },
  {
    what: 'orders of a shop, Australia',
    country: 'AU',
    text: 'Customer,Phone,Suburb,State,Postcode\nAnn Ash,0412 345 678,Newtown,NSW,2042\nBen Byrne,(03) 9123 4567,Fitzroy,VIC,3065\nCy Dale,412345679,Bondi,NSW,2026\n',
    fields: ['full-name', 'number', 'city', 'region', 'postal-code'],
    numbers: ['+61412345678', '+61391234567', '+61412345679'],
  },
  {
    what: 'customers of a shop, Canada',
    country: 'CA',
    text: 'Name,Phone,City,Province,Postal Code\nAnn Roy,416-555-2671,Toronto,ON,M5V 2T6\nBen Côté,(514) 555-3344,Montréal,QC,H2Y 1C6\n',
    fields: ['full-name', 'number', 'city', 'region', 'postal-code'],
    numbers: ['+14165552671', '+15145553344'],
  },
  {
    what: 'leads of a form, Brazil',
    country: 'BR',
    text: 'Nome;Celular;E-mail;Cidade;Estado\nAna Lima;(11) 98765-4321;ana@lima.example;São Paulo;SP\nJoão Reis;21 99876-5432;joao@reis.example;Rio de Janeiro;RJ\n',
    fields: ['full-name', 'number', 'email', 'city', 'region'],
    numbers: ['+5511987654321', '+5521998765432'],
  },
  {
    what: 'an address book, Mexico',
    country: 'MX',
    text: 'Nombre,Celular,Ciudad,Estado\nAna Ruiz,55 1234 5678,Ciudad de México,CDMX\nLuis Vega,33 1234 5678,Guadalajara,Jalisco\nEva Sol,81 8123 4567,Monterrey,Nuevo León\n',
    fields: ['full-name', 'number', 'city', 'region'],
    numbers: ['+525512345678', '+523312345678', '+528181234567'],
  },
  {
    what: 'leads of a form, India',
    country: 'IN',
    text: 'Full Name,Mobile Number,City,State\nAsha Sen,98450 43210,Pune,Maharashtra\nRavi Nair,9812345678,Kochi,Kerala\n',
    fields: ['full-name', 'number', 'city', 'region'],
    numbers: ['+919845043210', '+919812345678'],
  },
]
