/** How people of the made-up world's countries are called. Anybody of such a name is a coincidence. */
export interface Names {
  readonly given: readonly string[]
  readonly family: readonly string[]
}

const words = (text: string): string[] => text.trim().split(/\s+/)

/** Family names as a language makes them: some that stand alone, and each beginning with each ending. */
const families = (alone: readonly string[], beginnings: string, endings: string): readonly string[] => [
  ...alone,
  ...words(beginnings).flatMap((beginning) => words(endings).map((ending) => `${beginning}${ending}`)),
]

export const NAMES = {
  GB: {
    given:
      words(`Maren Priya Tom Alice Oliver Freya Callum Isla Rhys Bronwen Nia Hamish Edith Jonah Tess Rosalind Imogen
      Gareth Duncan Harriet Winifred Alistair Bethan Clive Dorothy Ewan Fiona Gwen Hugh Ivy Jasper Kerry Lachlan Mabel
      Nigel Olwen Percy Rowena Seth Tamsin Una Verity Wilf Yasmin Zara Arjun Meera Kofi`),
    family: families(
      words(
        "Oldershaw Hallowell Kestle Thornbury Ashdown Penrose Whitlock O'Hara McKellan Trevanion Garside Winterbourne Haddow",
      ),
      'Ald Birk Carn Dun Elm Fair Gold Harp Kirk Lang Mar Nor Pem Rams Stan Thack Ul Wake Whit Yar',
      'bury combe croft ford ham ley mere ridge shaw stone thwaite wick worth',
    ),
  },
  IE: {
    given: words(`Aoife Cian Niamh Fionn Saoirse Eoin Caoimhe Declan Deirdre Donal Eimear Fergus Grainne Killian Maeve
      Oisin Orla Padraig Roisin Ronan Sinead Tadhg Brona Cormac`),
    family: families(
      words("O'Malley Brannigan Kilbride Tierney MacGowan"),
      "Bran Car Corr Don Fla Gal Hen Kin Lan Mul Mac O'Bra O'Do O'Ke O'Shau",
      'gan nell rigan herty vin lahan ney nessy',
    ),
  },
  DE: {
    given: words(`Jens Ilse Jürgen Anke Björn Heike Lukas Marlene Sören Käthe Almut Bernd Carsten Dagmar Eberhard Frauke
      Gesa Hinrich Imke Jutta Klaas Liesel Malte Nele Ottokar Petra Raimund Silke Thorsten Uwe Volker Wiebke Xenia Yannick
      Zita Gerlinde Hartmut Birgit Detlef Elke`),
    family: families(
      words('Krug Krüger Weißbach Hübner Sommerfeld Tiedemann Vogelsang Petersen Müller Brandstätter'),
      'Acker Birken Eichen Feld Grün Hasel Iser König Linden Mühl Neu Ober Rosen Schön Stein Tannen Ufer Wald Weiden Ziegel',
      'bach berger dorf haus heim hoff kamp mann stätter wald',
    ),
  },
  AT: {
    given:
      words(`Ilse Leopold Resi Xaver Magdalena Alois Burgi Cilli Engelbert Friederike Gebhard Hermine Ignaz Kreszenz
      Loisl Mechthild Notburga Ottilie Poldi Roman Severin Theres Vinzenz Waltraud`),
    family: families(
      words('Brandhofer Gruber Steinlechner Moosbrugger'),
      'Ach Brand Ebner Feucht Gams Hinter Inner Kalten Lechner Moos Nieder Ober Pichl Roß Stadl Unter',
      'auer bichler egger gruber huber leitner moser rainer',
    ),
  },
  CH: {
    given:
      words(`Urs Reto Beatrix Noémie Luca Annelies Beat Corsin Denise Eveline Flurin Gian Heidi Jachen Laurence Marcel
      Nicole Odile Patrice Regula Seraina Thierry Ursina Vreni`),
    family: families(
      words('Zurbriggen Aebischer Rochat Bänziger'),
      'Aegger Bühl Derung Flück Gass Häberl Inäb Kägi Lüth Murb Näf Ott Rüeg Schwyz Wäl Zell',
      'er in mann i iger acher',
    ),
  },
  FR: {
    given: words(`Étienne Amélie Loïc Océane Hélène Benoît Maëlle Agathe Bastien Clémence Damien Élodie Fabrice Gaëlle
      Honorine Ignace Jocelyn Karine Léonie Mathilde Nathan Ondine Pascal Quentin Régine Sylvain Thibault Ursule Victoire
      Yvonne Zacharie Anselme Brigitte Corentin Delphine`),
    family: families(
      words('Vaubert Lachaume Delacroix-Petit Montreuil Garnier Saulnier'),
      'Aub Bell Chab Dur Fonten Grand Haute La Mar Mont Neuv Pr Roche Saint Ver Vill',
      'ert eau ier in ois ol ard elle emont eret',
    ),
  },
  NL: {
    given: words(`Sanne Joost Femke Maarten Lotte Anouk Bram Carlijn Diederik Eefje Floris Geertje Huib Ingeborg Jorrit
      Kees Liesbeth Mieke Niels Ottoline Pleun Renske Sjoerd Tineke Wouter Ymke Zeger Hanneke`),
    family: families(
      ['van der Veen', 'de Wit', 'Hoekstra', 'ten Brink', 'Blommaert', 'van den Heuvel', 'de Graaf', 'ter Horst'],
      'Acht Boer Dijk Elz Groen Hof Klaver Linde Molen Noord Olde Polder Ruiter Scheep Veld Water',
      'berg brink huis man meijer ma stra kamp veld',
    ),
  },
  US: {
    given:
      words(`Wesley Harper Delia Marcus Juniper Abel Ramona Otis Beulah Clementine Dashiell Ezra Fern Garrison Hattie
      Ines Jolene Kendrick Lavinia Mavis Nolan Opal Prescott Quincy Roscoe Sabrina Thaddeus Ulises Vernon Willa Xiomara
      Yolanda Zeke Araceli Booker Corinne Dwight Estella Floyd Guadalupe`),
    family: families(
      words('Whitaker Delacorte Ramsay Holloway Pennington Bright Castellan'),
      'Arm Black Cald Den East Farr Gran Hutch Kings Lock Mather Nor Pres Red Sil Stock Thorn Under West Wood',
      'bridge burn cott den field ington land man son ton way well',
    ),
  },
  CA: {
    given: words(`Rosalie Gavin Mireille Desmond Alphonse Bernadette Colton Danica Eugenie Fraser Ginette Hollis Isabeau
      Kirby Laurier Maude Normand Odette Philippa Rejean Solange Trevor Violette Wynn`),
    family: families(
      words('Lachapelle Thorsby Beaudry MacLeish'),
      'Beau Char Des Font Gag Lab La Mar Mac Ouel Rob Thor Tru Ver',
      'bonneau champs ette mond nier relle rier son tier ville',
    ),
  },
} as const satisfies Record<string, Names>
