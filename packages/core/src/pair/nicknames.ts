import { fold } from './fold'

/** Short and familiar forms of given names, a line each, folded. Written down from common knowledge of the languages. */
const FORMS = `
abigail abby abbie gail
adelheid heidi adele
adrian adi
agnieszka aga agusia
aikaterini katerina
albert al bert albi
albrecht albi
alejandro ale alex jandro
aleksander olek alek sasha
aleksandra ola sasha
alessandra ale sandra
alessandro ale sandro
alexander alex sandy sascha sacha
alexandra alex sandra sasha
alexandros alekos
alexei aljoscha lyosha alyosha
alfonso fonso poncho
alfred alf fred alfie fredi
amanda mandy
anastasia nastya stasia ana
anatoli tolya
andreas andi andy
andrew andy drew
angela angie
angelika geli
anna ania anka anja anni annie
anneliese anni liesl
annika anni
anthony tony
antoinette toni toinette
antonia toni antje
antonio toni tonio
archibald archie
arnold arnie noldi
arthur art artie
august gustl gus
augustin gustl
barbara babsi barbel basia varya barb babs
bartholomew bart
bartosz bartek
beatrice bea trixie
beatrix bea trixi
benjamin ben benny benji
bernadette berna
bernard bernie ben
bernd berni
bernhard berni hardi
birgit biggi gitte
boris borya
bradley brad
brigitte gitti biggi
bruno brunno
calvin cal
camille cami mille
carl charlie kalle
carla carlotta
carlos carlitos charly
carmen carmina
caroline carol carrie caro
cassandra cass cassie sandra
catalina cata lina
catarina cata cati rina
catherine cathy kate katie cat
cecilia cilla ceci
celeste celi
charles charlie chuck chas
charlotte lottie charly lotte lotti
christian kit krischan chris
christina chris tina christa
christine chris tina
christoffer kit stoffer
christoph stoffel chris
christopher chris kit
clara klarchen clare
claudia claudi
clemens klem
clifford cliff
concepcion concha conchita
constance connie
constantin konsti costa
cordelia delia
cornelia conny nele
cornelis cor kees
cristina cris tina
cristobal tobal
cynthia cindy
dagmar dagi
damian dami
daniel dan danny
daniela dani
daniele dani
danielle dani
darius dari
david dave davy
deborah deb debbie
delphine del
denise deni
diana di
diego dieguito
dieter didi
dietrich dieter
dimitri dima mitya
dimitrios mitsos dimitris
dmitri dima mitya
dolores lola lolita
dominic dom nick
dominik domi nick
donald don donny
donna don
dorothea doro dora thea
dorothy dot dottie dolly
douglas doug
dwayne wayne
eberhard ebi hardy
edgar ed
edmund ed ned
eduard edi
eduardo edu lalo
edward ed eddie ted ned
edwin ed eddie
ekaterina katya katia katja
eleanor ellie nell nora
elena lena lenka ele
eleni lena
eleonora nora leo
elisa lisa
elisabeth lisa lisi sissi elli
elisabetta betta lisa elisa
elizabeth liz lizzie beth betty eliza lisa
elizaveta liza
elke elli
elvira elvi
emanuel manu manni
emanuela manu
emilia emmi mila emi
emilie emmi
emilio milo
emily em emmy
emma em emmy
enrico rico
enrique quique rico
erich eri
ernest ernie
ernesto neto
ernst erni
erzsebet erzsi bori
estefania estefi
esther essie hetty
eugen geni
eugene gene
evangelina eva lina
evelyn eve evie
evgeni zhenya
fabian fabi
fabienne fabi
fabio fabi
felicitas feli
felipe pipe
felix fex
ferdinand ferdi
ferenc feri
fernando nando fer
fiorella fiore
florence flo florrie flossie
florian flo flori
francesca franca cesca
francesco franco cesco checco
francis frank fran
francisco paco pancho
franciszek franek
francois fran
francoise fran
franz franzl
franziska franzi
frederic fred
frederick fred freddie
friederike rike friedel
friedrich fritz fred
fritzi friederike
gabriel gabe gabi
gabriela gabi gaby
gabriele gabi
gabriella gabi ella
genevieve gen viv ginette
geoffrey geoff jeff
georg schorsch
george geordie
georgia georgie
georgina georgie gina
georgios giorgos
gerald gerry jerry
gerard gerry
gerhard gerd
gertrud trudi gerti
gertrude trudy gert
gilbert gil bert
giovanna vanna gianna
giovanni gianni nanni vanni
giuseppe beppe peppe pino
giuseppina pina giusy
gordon gord
gottfried friedel
gregor greg
gregory greg
grigori grisha
grzegorz grzesiek
guadalupe lupe lupita
guillaume gui
guillermo memo guille
gunther gunni
gustav gus gustl
gwendolyn gwen wendy
hannah hanna
hans hansi
harold harry hal
harriet hattie
hedwig hedi wiggerl
heinrich heini hinnerk heinz heiner
helen nell nellie lena
helena lena hela
helene leni lene
helga helgi
helmut helle
hendrik henk rik henning
henri riri
henriette jette henni
henry harry hank
herbert herb bert herbie
hermann herm manni
hilary hil
hildegard hilde
hubert hubi bertl
hugo hug
ibrahim ibo
ignacio nacho
ignacy ignas
igor garik
ilona ili
ingeborg inge
ingrid inga
ioannis yannis giannis
irene rena reni
irina ira
isaac ike zac
isabel isa bel chabela
isabell isa
isabella isa bella
isabelle isa belle
istvan pista
ivan vanya vanja
jacek jacus
jacob jack jake
jacqueline jackie
jacques jacquot
jadwiga jadzia
jaime jimmy
jakob jaki
james jim jimmy jamie
jan janek jasio
jana janka
janet jan
janice jan
janusz janek
javier javi xavi
jean jeannot
jeffrey jeff
jennifer jen jenny
jens jensi
jeremy jez jerry jem
jerome jerry
jerzy jurek
jessica jess jessie
jesus chuy chucho
jillian jill
joachim achim jochen jo
joan joanie
joanna jo asia joasia
joao jo jota
joaquin quino
joel jo
johanna hanna hanni jo
johannes hannes hans johann jo
john johannes johnny jack jon
jolanta jola
jonas joni
jonathan jon jonny
jorge coque
jose pepe
josef sepp jupp
josefa pepa
josefina pepa fina
josefine josi fine
joseph joe joey
josephine jo josie
joshua josh
jozsef joska
juan juanito juancho
juana juanita
judith judy
julia jule
julian juli jules
juliana julie juli
julie jules
juliet julie jules
julius jule
justin jus
kamila kama
karel karl
karl kalle karli charly
karolina karo lina kaja
karoline karo line
katalin kati kata
katarina kata kati rina
katarzyna kasia kaska
kateryna katya
katharina kathi kathrin katja
katherine kate kathy katie kat
kathleen kath kathy kate
kathrin kathi
kathryn kath kathy kate
katrin kati
kazimierz kazik
keith keithy
kenneth ken kenny
kimberly kim
konrad conny konni radek
konstantin kostya konsti
konstantinos kostas
kristin kris
kristina kris tina
krzysztof krzysiek krzys
laszlo laci
laura laurie lauri
lauren laurie
laurent lolo
laurenz lenz
lawrence larry laurie
leandro lea
leonard leo len lenny
leonardo leo nardo
leonhard leo hardi
leopold leo poldi
leslie les
lidia lida
lillian lil lily
linda lindy
liselotte lilo lotte
lorenzo renzo lencho
lothar lothi
louis lou
louise lou lulu
lourdes lulu
lubomir lubo
lucas luke luc
lucia lucy luci
lucille lucy
ludmila mila luda
ludwig lutz luggi wiggerl
luigi gigi
luis lucho
luise lulu lou
lukasz luki
madeleine maddy madge
magdalena magda lena leni
malcolm mal
malgorzata gosia malgosia
manfred manni fred
manuel manu manolo
manuela manu ela
marcel marci
marcin marcinek
margaret greta daisy rita maggie peggy meg margie
margarete grete gretel
margarita rita marga
margherita rita
margit gitte
margot gogo
maria mimi mitzi marysia masha mariechen mia
mariana mari
marianne mari nanni
marie mimi
marion mari
mariusz mario
mark markus
markus mark max
marlene leni lene
marta martha
martha marty patty
martin tino martl marty
martina tina
mateusz mati
mathias matze hias
mathieu mat
mathilde tilda hilde
matilda tilly mattie
matthew matt
matthias matze hias
maureen mo
maurice mo
maurizio mauri
maxim max
maximilian max maxi
mehmet memo
melanie mel melly
melissa mel lissa
mercedes merche
michael mike mick micky michi
michal michalek
michel miche
michele michi
michelle shelly chelle mich
miguel migue
mikhail misha
milan mila
mildred millie
miranda randy
miriam miri mimi
miroslav mirek miro
mitchell mitch
monica moni
monika moni mona
montserrat montse
muhammad mo
mustafa musti
nadezhda nadja nadya
nadine nadi
nancy nan
natalia nat natasha natalka
natalie nat
nathan nat nate
nathaniel nat nate
nicholas nick nicky
nicola nicky nic
nicolas nico nic
nicole nicky niki nic
nikolai kolya niko
nikolaos nikos
nikolaus niko klaus
norbert nobbi bert
norman norm
olga olya ola
oliver olli ollie
olivia liv livvy
olivier oli
oskar ossi
oswald ossi
ottilie otti
pamela pam
pascal passi
patricia pat patty tricia
patrick pat paddy
patrizia patti pat
paul paulie paule
paula pauli
pauline pauli line
pavel pasha
pawel pawelek
penelope penny
peter pete
petra petri
philip phil pip
philippe phil
phyllis phyl
pilar pili
piotr piotrek
priscilla cilla
quentin quin
rachel rach
rafael rafa rafi
raffaele raf lello
raimund mundl
rainer raini
ramon moncho
raphael raph rafi
raymond ray
rebecca becky becca
regina gina reggie
reginald reg reggie
reinhard reini hardy
reinhold reini
renate nate rena
ricardo rico richi
riccardo ricky rico
richard dick rick ricky rich
robert bob bobby rob robbie bert
roberta bobbie robbie
roberto beto robi berto
roderick rod rick
rodney rod
rodrigo rodri
roland roli rolli
roman romek
ronald ron ronnie
rosa rosita rosi
rosalie rosi lilli
rosario charo
rosemarie rosi romy
rosemary rose romy
roxana roxy
rudiger rudi
rudolf rudi
rupert rupi
russell russ
ryszard rysiek
sabine bine biene
sabrina sabi brina
sally sal
salvador chava salva
salvatore totò toto salvo
samantha sam
samuel sam sammy
sandor sanyi
sandra sandy
sara sally sari
sarah sally sadie
sebastiaan bas
sebastian seb basti bastian
sebastien seb bastien
sergei seryozha
sergio checo
sharon shaz
sheila she
shirley shirl
sidney sid
siegfried siggi sigi
siegmund sigi
sigrid siggi
silke silli
silvester vester
silvia silvi
simon si simmi
simone simi
sofia sofi fia sonya
solomon sol
sonja soni
sophia sophie soph
sophie soph fie
stanislaw staszek stan
stanley stan
stefan steff
stefania stefi
stefanie steffi steff
stefano ste
stephan steff
stephane steph
stephanie steph steffi
stephen steve
steven steve
stuart stu
susan sue susie
susanna sanna susi
susanne susi
suzanne sue suzy
sven svenni
svetlana sveta lana
sylvia syl sylvi
tadeusz tadek
tamara tam tammy toma
tanja tani
tatiana tanya tania
terence terry
teresa tere resi
theodor theo
theodora dora thea teddy
theodore ted theo
theodoros theo
theophil theo
theresa terry tess tessa
therese resi
thomas tom tommy
thorsten thorti
timothy tim timmy
tobias tobi
tomasz tomek
tommaso tommi maso
toribio toño
ulrich uli
ulrike uli ulli rike
ursula uschi ulla
urszula ula
uwe uwi
valentin vale valli
valentina vale tina
valentino tino
valerie val
vanessa nessa van
vasili vasya
vera verusha
veronica ronnie vero nica
veronika vroni vero nika
veronique vero
vicente chente
victor vic vico
victoria vic vicki vicky tori
viktor vitya vik
viktoria vicky toria
vincent vince vin
vincenzo enzo
vinzenz vinz zenz
violet vi
virginia ginny ginger
vivian viv
vladimir vova volodya vlad
volker volki
walburga burgi wally
waldemar waldi
walter walli walt wally
waltraud traudl
wendelin wendl
werner werni
wesley wes
wilfred wilf fred
wilfried willi fried
wilhelm willi willy
wilhelmina mina willa minna
willem wim pim
william bil willem bill billy will willy liam
winifred winnie fred
wojciech wojtek
wolfgang wolf wolfi
xaver xaverl
yannick yann
yevgeni zhenya
yolanda yoli
yuri yura
yvonne yvi
zachary zach
zbigniew zbyszek
zdenek zdenda
zofia zosia
zsuzsanna zsuzsi
zuzanna zuzia
`

/** By the form in which names are compared: `michael` is looked up as it is folded. */
const formsOf = new Map<string, Set<number>>()
for (const [line, text] of FORMS.trim().split('\n').entries())
  for (const form of text.split(' ').map(fold)) formsOf.set(form, (formsOf.get(form) ?? new Set()).add(line))

/** True where two given names, folded, are forms of one. */
export function areForms(a: string, b: string): boolean {
  const [mine, theirs] = [formsOf.get(a), formsOf.get(b)]
  if (!mine || !theirs) return false
  for (const line of mine) if (theirs.has(line)) return true
  return false
}

/** True for a word, folded, that is known as a given name. */
export const isGivenName = (word: string): boolean => formsOf.has(word)
