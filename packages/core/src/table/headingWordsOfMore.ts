import type { Field } from './fields'

/**
 * Words of headings in Portuguese, Polish, Czech, Slovak, Hungarian, Romanian, Swedish, Danish, Norwegian, Finnish,
 * Turkish, Greek, Russian, Ukrainian, Arabic, Hebrew, Japanese, Chinese and Korean. `none` holds headings that are known
 * to be no field of ours.
 */
export const MORE_WORDS: Record<Field | 'none', string> = {
  'full-name':
    'nome do contacto,nome do contato,nome do cliente,pessoa de contacto,responsável,imię i nazwisko,nazwisko i imię,osoba kontaktowa,kontakt,jméno a příjmení,příjmení a jméno,celé jméno,kontaktní osoba,meno a priezvisko,kontaktná osoba,teljes név,név,kapcsolattartó,nume complet,nume și prenume,nume si prenume,persoană de contact,namn,fullständigt namn,kontaktperson,för- och efternamn,navn,fulde navn,fullt navn,nimi,koko nimi,yhteyshenkilö,ad soyad,adı soyadı,isim,yetkili,yetkili kişi,ονοματεπώνυμο,υπεύθυνος,όνομα επώνυμο,фио,ф.и.о.,имя и фамилия,фамилия имя отчество,контактное лицо,контакт,піб,прізвище та ім’я,контактна особа,الاسم,الاسم الكامل,اسم العميل,جهة الاتصال,שם מלא,שם,איש קשר,氏名,名前,お名前,担当者,担当者名,姓名,联系人,聯絡人,名字,名称姓名,이름,성명,담당자,담당자명',
  'given-name':
    'primeiro nome,imię,imiona,jméno,křestní jméno,meno,krstné meno,keresztnév,utónév,prenume,förnamn,fornavn,etunimi,ad,adı,όνομα,имя,ім’я,الاسم الأول,الاسم الاول,שם פרטי,名,名（漢字）',
  'family-name':
    'sobrenome,apelido,último nome,nazwisko,příjmení,priezvisko,vezetéknév,családnév,nume de familie,efternamn,efternavn,etternavn,sukunimi,soyad,soyadı,soyisim,επώνυμο,επίθετο,фамилия,прізвище,اسم العائلة,اللقب,الكنية,שם משפחה,姓,苗字,성',
  title:
    'função,stanowisko,pozice,funkce,pracovní pozice,pozícia,funkcia,beosztás,munkakör,funcție,funcţie,post,befattning,yrke,titel,stilling,stillingsbetegnelse,tittel,titteli,tehtävänimike,asema,unvan,görev,pozisyon,görevi,θέση,τίτλος,ιδιότητα,должность,посада,المسمى الوظيفي,الوظيفة,المنصب,תפקיד,役職,肩書,肩書き,职位,职务,職稱,職位,직책,직위,직함',
  company:
    'empresa,nome da empresa,razão social,nome fantasia,firma,nazwa firmy,przedsiębiorstwo,společnost,název firmy,název společnosti,název,spoločnosť,názov firmy,názov spoločnosti,cég,cégnév,vállalat,companie,nume firmă,denumire firmă,societate,företag,företagsnamn,bolag,virksomhed,firmanavn,virksomhedsnavn,bedrift,bedriftsnavn,selskap,yritys,yrityksen nimi,şirket,şirket adı,firma adı,kurum,işletme,εταιρεία,επωνυμία,επιχείρηση,компания,организация,название компании,предприятие,фирма,наименование,компанія,назва компанії,підприємство,організація,الشركة,اسم الشركة,المؤسسة,المنشأة,חברה,שם חברה,שם החברה,会社名,会社,企業名,法人名,店舗名,施設名,公司,公司名称,公司名稱,单位,单位名称,企业名称,회사,회사명,업체명,상호',
  number:
    'telemóvel,telemovel,número de telemóvel,telefone,nº de telefone,telefone celular,telefone fixo,fone,contacto telefónico,whats,número de telefone,nr telefonu,numer telefonu,tel kom,tel. kom.,komórka,telefon komórkowy,telefon stacjonarny,komorka,telefonní číslo,telefon mobilní,mobil,mobilní telefon,pevná linka,telefónne číslo,mobilný telefón,telefón,telefonszám,mobilszám,vezetékes,vezetékes telefon,mobiltelefon,telefon,număr de telefon,telefon mobil,telefon fix,nr. telefon,telefonnummer,mobilnummer,mobiltelefonnummer,mobilnr,telefonnr,mobiltlf,tlf,tlf.nr.,tlfnr,fastnettelefon,telefonno,puhelin,puhelinnumero,matkapuhelin,matkapuhelinnumero,gsm,lankapuhelin,puh,puh.,cep telefonu,cep,cep tel,gsm no,telefon numarası,sabit telefon,iş telefonu,telefon no,τηλέφωνο,κινητό,κινητό τηλέφωνο,σταθερό,σταθερό τηλέφωνο,τηλ,αριθμός τηλεφώνου,телефон,тел,тел.,мобильный,мобильный телефон,моб,моб.,номер телефона,сотовый,рабочий телефон,городской телефон,контактный телефон,телефони,мобільний,мобільний телефон,номер телефону,رقم الهاتف,الهاتف,هاتف,رقم الجوال,الجوال,جوال,رقم الموبايل,موبايل,المحمول,رقم المحمول,هاتف محمول,طلفون,טלפון,נייד,טלפון נייד,מספר טלפון,פלאפון,电话,电话号码,手机,手机号,手机号码,联系电话,座机,移动电话,電話,電話番号,電話號碼,手機,手機號碼,携帯,携帯電話,携帯番号,携帯電話番号,tel番号,連絡先,固定電話,代表電話,전화,전화번호,휴대폰,휴대전화,핸드폰,연락처,휴대폰번호',
  email:
    'correio eletrónico,correio eletrônico,endereço de e-mail,endereço de email,adres e-mail,adres email,adres mailowy,poczta elektroniczna,e-mailová adresa,emailová adresa,e-mail cím,email cím,adresă de e-mail,adresa email,adresă email,e-postadress,epost,e-post adress,mejladress,mejl,e-mailadresse,epostadresse,e-postadresse,sähköposti,sähköpostiosoite,e-posta,eposta,e-posta adresi,mail adresi,ηλεκτρονικό ταχυδρομείο,διεύθυνση email,электронная почта,эл. почта,эл почта,почта,е-мейл,адрес электронной почты,електронна пошта,ел. пошта,пошта,البريد الإلكتروني,البريد الالكتروني,الإيميل,ايميل,بريد إلكتروني,דואר אלקטרוני,דוא"ל,דואל,אימייל,מייל,メール,メールアドレス,eメール,电子邮件,电子邮箱,邮箱,邮箱地址,電子郵件,電郵,信箱,이메일,메일,이메일주소',
  country:
    'país de origem,kraj,państwo,země,stát,krajina,štát,ország,țară,ţară,tara,ülke,maa,χώρα,страна,країна,الدولة,البلد,בלד,מדינה,ארץ,国,国名,国家,國家,국가,나라',
  city: 'cidade,localidade,concelho,município,freguesia,miasto,miejscowość,město,obec,mesto,város,település,helység,oraș,oraş,oras,localitate,stad,postort,by,poststed,kaupunki,postitoimipaikka,kunta,şehir,sehir,ilçe,πόλη,περιοχή,город,населенный пункт,місто,населений пункт,المدينة,مدينة,עיר,ישוב,市区町村,都市,市,城市,도시,시군구',
  region:
    'distrito,estado,uf,województwo,wojewodztwo,kraj (region),okres,megye,județ,judeţ,judet,län,fylke,maakunta,il,bölge,νομός,περιφέρεια,область,регион,край,область / край,المنطقة,المحافظة,מחוז,אזור,都道府県,省,省份,县,시도,지역,도',
  'postal-code':
    'código postal,cod postal,cep,kod pocztowy,psč,poštovní směrovací číslo,irányítószám,ir. szám,irsz,cod poștal,cod poştal,postnr,postnummer,postinumero,posta kodu,postakodu,τ.κ.,τκ,ταχυδρομικός κώδικας,индекс,почтовый индекс,індекс,поштовий індекс,الرمز البريدي,מיקוד,郵便番号,〒,邮编,邮政编码,郵遞區號,우편번호',
  web: 'sítio web,página web,site da empresa,strona www,strona internetowa,www,webové stránky,web stránka,webová stránka,honlap,weboldal,weblap,pagină web,webbplats,hemsida,webbsida,hjemmeside,nettside,nettsted,kotisivu,verkkosivu,www-sivut,web sitesi,internet sitesi,ιστοσελίδα,ιστότοπος,сайт,веб-сайт,адрес сайта,вебсайт,الموقع الإلكتروني,الموقع الالكتروني,الموقع,אתר,אתר אינטרנט,ホームページ,ウェブサイト,サイト,网站,网址,網站,網址,홈페이지,웹사이트',
  profile:
    'perfil público,profil zawodowy,odkaz na profil,profillänk,profillenke,profil bağlantısı,профиль,ссылка на профиль,профіль,プロフィール,个人主页,프로필',
  street:
    'morada,endereço,adres,adresa,cím,adresă,adress,adresse,osoite,διεύθυνση,адрес,адреса,العنوان,כתובת,住所,地址,주소,rua,ulica,ulice,ulica a číslo,utca,strada,stradă,gata,gatuadress,gade,vej,gate,gateadresse,katuosoite,οδός,улица,вулиця,الشارع,רחוב,番地,街道',
  'birth-date':
    'data de nascimento,data urodzenia,datum narození,dátum narodenia,születési dátum,data nașterii,födelsedatum,fødselsdato,syntymäaika,doğum tarihi,ημερομηνία γέννησης,дата рождения,дата народження,تاريخ الميلاد,תאריך לידה,生年月日,出生日期,생년월일',
  'device-id': 'id do dispositivo,id de publicidade,identyfikator reklamowy',
  value: 'valor do cliente,wartość klienta,hodnota zákazníka',
  'company-page': 'página da empresa,profil firmy,strona profilu firmy',
  gender:
    'gênero,płeć,pohlaví,pohlavie,nem (gender),kön,køn,kjønn,sukupuoli,cinsiyet,φύλο,пол,стать,الجنس,מין,性別,性别,성별',
  industry:
    'setor,branża,odvětví,odvetvie,iparág,bransch,toimiala,sektör,κλάδος,отрасль,галузь,القطاع,ענף,業種,行业,行業,업종',
  none: 'nif,nipc,cnpj,cpf,observações,obs,notas,nip,regon,pesel,uwagi,lp,l.p.,ičo,dič,poznámka,adószám,megjegyzés,nem,sorszám,cui,observații,personnummer,anteckning,anteckningar,organisationsnummer,orgnr,org.nr,cvr,cvr-nummer,bemærkninger,organisasjonsnummer,merknad,y-tunnus,huomautus,lisätiedot,adres bilgisi,vergi no,vergi numarası,tc kimlik no,açıklama,not,sıra no,faks,φαξ,αφμ,σημειώσεις,παρατηρήσεις,α/α,инн,кпп,огрн,примечание,примечания,комментарий,факс,№,номер,дата,єдрпоу,примітка,примітки,الرقم الضريبي,ملاحظات,فاكس,رقم,ח.פ.,הערות,פקס,法人番号,備考,メモ,fax番号,部署,部署名,番号,税号,统一社会信用代码,备注,備註,说明,传真,序号,编号,部门,사업자등록번호,비고,메모,팩스,번호,부서',
} // prettier-ignore
