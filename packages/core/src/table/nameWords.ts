/** Common given names in the languages of our lists: enough to tell a column of them, not to judge one name. */
export const GIVEN_NAMES: ReadonlySet<string> = new Set(
  `adam alex alexander alice amelia amy andrew anna anne anthony arthur ben benjamin charles charlotte chloe chris
   christopher claire daisy daniel david edward eleanor eliza elizabeth ella emily emma ethan eva evelyn finn florence
   frances fred freya george grace graham hannah harriet harry heather helen henry holly ian isaac isla ivy jack jacob
   james jane jason jean jennifer jessica joan joanna joe john jonathan joseph joshua joyce julia karen kate katherine
   kevin laura leo lewis liam lily linda louis louise lucy luke maisie margaret mark martha martin mary mason matthew
   maya megan michael michelle mia molly nancy natalie nathan neil nicholas nora oliver olivia oscar owen patricia paul
   peter philip phoebe rachel rebecca richard robert rosie ruby ruth ryan sam samuel sarah scott sean simon sophia sophie
   stephen steven stuart susan thomas tim toby tom victoria violet william zara zoe maren sigrid
   andreas angelika anja anke antje bernd birgit britta carsten christa christian christina claudia dieter dirk elke
   erika ernst frank franz friedrich fritz gerhard gisela gunter hans heike heinz helga helmut herbert hildegard holger
   horst ingrid ines jan jens jonas jorg jurgen jutta kai karin karl katharina katja katrin klaus kurt lars lena leon
   lukas manfred maria marie markus martina matthias max maximilian michaela monika nadine niklas nils olaf paula petra
   rainer ralf renate rolf rudiger sabine sandra sebastian silke simone stefan stefanie susanne sven thorsten tobias
   torsten ulrich ulrike ursula ute uwe vera volker walter werner wolfgang
   adele alain amandine antoine arnaud aurelie baptiste benoit bernard brigitte bruno camille caroline catherine cecile
   cedric celine chantal clemence corinne damien delphine denis dominique elise elodie emilie emmanuel eric estelle
   etienne fabien fabrice florian florent francois francoise frederic gabriel genevieve gerard gilles guillaume helene
   henri hugo isabelle jacqueline jacques jean-luc jean-pierre jeanne jerome julie julien laurence laurent lea luc
   lucas lucie manon marc marcel margaux marion mathieu maxime mireille monique nathalie nicolas noemie oceane
   pascal patrick philippe pierre quentin raphael remi rene romain sabrina sandrine severine sylvain sylvie theo
   thierry valerie veronique vincent virginie xavier yann yves
   adrian alba alberto alejandra alejandro alfonso alicia alvaro ana andrea angel angela antonio beatriz blanca carlos
   carmen cristina diego dolores eduardo elena emilio enrique esperanza esteban fernando francisco gonzalo guadalupe
   guillermo hector ignacio ines isabel ivan javier jesus joaquin jorge jose juan julio lidia lola lorena lucia luis
   manuel marcos marta mercedes miguel monica nuria pablo pedro pilar rafael ramon raquel raul ricardo roberto rocio
   rosa ruben salvador santiago sergio silvia sofia teresa tomas veronica vicente
   alessandra alessandro alessia anna antonella arianna barbara bruno carla chiara claudia claudio daniela daniele
   davide domenico elisa emanuele enzo fabio federica federico filippo francesca francesco gabriele giacomo gianluca
   gianni giorgia giorgio giovanna giovanni giulia giulio giuseppe ilaria laura leonardo lorenzo luca luciano luigi
   marco mario massimo matteo michele mirko nicola paola paolo pietro riccardo rita roberta sara serena silvana stefania
   stefano tommaso umberto valentina vittoria
   aart anneke annemarie anouk arjan bas bram daan dirk ellen els emma erik esther femke floor frits gerrit hanneke
   hans hendrik henk ilse jaap jan jasper jeroen joost joris karel kees koen lars lotte maaike maarten marijke marleen
   mieke niels pieter piet rens roel ruud sander sanne saskia sem sjoerd stijn teun thijs tijn tim truus wim wouter
   astrid birgitta bjorn erik freja gustav hakan henrik ida ingrid johan kirsten lars lena linnea magnus mikael niels
   nils olav per sofie soren stig svein tove ulla`.split(/\s+/),
)

/** Legal forms at the end of company names. */
export const LEGAL_FORM =
  /(?:^|[\s,])(?:ltd|limited|llp|plc|inc|llc|corp|co|gmbh|g\.m\.b\.h|ag|kg|ohg|gbr|ug|e\.?\s?k|e\.?\s?v|mbh|se|s\.?a\.?r\.?l|sas|sasu|eurl|sci|s\.?a|s\.?l\.?u?|s\.?r\.?l\.?s?|s\.?p\.?a|snc|sas|b\.?v|n\.?v|v\.?o\.?f|bvba|aps|a\/s|as|ab|oy)\.?\)?$/i
/** Words by which the trade names itself. */
export const TRADE_WORD =
  /\b(?:café|cafe|hotel|hôtel|gasthof|gasthaus|pension|camping|campsite|campingplatz|restaurant|ristorante|trattoria|bistro|garden|gardens|gartencenter|gärtnerei|jardinerie|agriturismo|albergo|guest house|inn|b&b|bed & breakfast|holidays|gmbh|ltd|group|holding|services|systems|consulting|studio)\b/iu
