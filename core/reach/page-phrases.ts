// What pages say of themselves in the languages of most books. Common practice: there is no published list.

const missing = [
  "(?:error\\s*)?404(?:\\b.*)?",
  ".*\\b(?:page|file|document|article|item|site)\\s+(?:was\\s+|is\\s+|could\\s*n[o']t\\s+be\\s+|cannot\\s+be\\s+|can't\\s+be\\s+)?(?:not\\s+)?found\\b.*",
  "not\\s+found\\b.*",
  ".*\\b(?:page|file|article)\\b.*\\b(?:doesn't|does\\s+not|no\\s+longer)\\s+exists?\\b.*",
  ".*\\bno\\s+longer\\s+available\\b.*",
  ".*\\b(?:seite|datei|dokument)\\b.*\\bnicht\\s+(?:gefunden|vorhanden|verfügbar)\\b.*",
  "nicht\\s+gefunden\\b.*",
  ".*\\bpage\\s+(?:introuvable|non\\s+trouvée|inexistante)\\b.*",
  ".*\\bpágina\\s+no\\s+(?:encontrada|existe)\\b.*",
  ".*\\bpagina\\s+(?:is\\s+|werd\\s+)?niet\\s+gevonden\\b.*",
  ".*\\bside[nr]?\\b.*\\b(?:ikke\\s+fundet|findes\\s+ikke|kunne\\s+ikke\\s+findes)\\b.*",
];
const signIn = [
  "(?:please\\s+)?(?:sign|log)[\\s-]?(?:in|on)\\b.*",
  ".*\\b(?:sign|log)\\s+in\\s+to\\s+(?:continue|read|view|see)\\b.*",
  "(?:bitte\\s+)?(?:anmelden|anmeldung|einloggen|melden\\s+sie\\s+sich\\s+an)\\b.*",
  "(?:se\\s+connecter|connexion|identifiez-vous|connectez-vous)\\b.*",
  "(?:iniciar\\s+sesión|inicie\\s+sesión|acceder)\\b.*",
  "(?:inloggen|aanmelden|log\\s+in)\\b.*",
  "(?:log\\s+ind|login)\\b.*",
];
const parked = [
  "\\b(?:this|the)\\s+domain(?:\\s+name)?\\s+(?:\\S+\\s+)?(?:is|may\\s+be)\\s+(?:parked|for\\s+sale)\\b",
  "\\bdomain\\s+(?:is\\s+)?for\\s+sale\\b",
  "\\bbuy\\s+this\\s+domain\\b",
  "\\bparked\\s+(?:free|domain)\\b",
  "\\bdomain\\s+(?:steht\\s+zum\\s+verkauf|zu\\s+verkaufen|ist\\s+geparkt)\\b",
  "\\b(?:ce\\s+(?:nom\\s+de\\s+)?domaine\\s+est\\s+à\\s+vendre|este\\s+dominio\\s+está\\s+(?:en|a\\s+la)\\s+venta)\\b",
  "\\b(?:deze\\s+domeinnaam\\s+is\\s+te\\s+koop|domænet\\s+er\\s+til\\s+salg)\\b",
];

const guards = [
  "just\\s+a\\s+moment\\b.*",
  ".*\\bchecking\\s+(?:if\\s+the\\s+site|your\\s+(?:browser|connection))\\b.*",
  "attention\\s+required\\b.*",
  ".*\\b(?:verify|verifying|confirm)\\s+(?:that\\s+)?you\\s+are\\s+(?:a\\s+)?(?:human|not\\s+a\\s+(?:robot|bot))\\b.*",
  ".*\\bare\\s+you\\s+(?:a\\s+)?(?:human|robot|not\\s+a\\s+robot)\\b.*",
  ".*\\bcaptcha\\b.*",
  "pardon\\s+our\\s+interruption\\b.*",
  ".*\\b(?:unusual|automated)\\s+(?:traffic|requests|activity)\\b.*",
  ".*\\b(?:request|access|you)\\s+(?:has|have|was)\\s+been\\s+(?:blocked|denied)\\b.*",
  ".*\\b(?:enable|turn\\s+on)\\s+javascript\\s+and\\s+cookies\\b.*",
  ".*\\b(?:bot|robot|scraper)s?\\s+(?:protection|detected|are\\s+not\\s+allowed)\\b.*",
];

const whole = (phrases: string[]): RegExp => new RegExp(`^(?:${phrases.join("|")})$`, "iu");
const saysMissing = whole(missing);
const saysSignIn = whole(signIn);
const saysGuard = new RegExp(`^(?:${phrasesIn(guards)})$`, "isu");
/** What a guard has to say it says at once. */
const guardLength = 600;
const saysParked = new RegExp(phrasesIn(parked), "iu");
/** A title or heading of more words tells of something else. */
const longestVerdict = 90;

function phrasesIn(phrases: string[]): string {
  return phrases.join("|");
}

const verdict = (pattern: RegExp, text: string | null): boolean =>
  text !== null &&
  text.length <= longestVerdict &&
  text.split(/\s+[|–—·:-]\s+/u).some((part) => pattern.test(part.trim()));

/** Whether a title or heading says that the page is not there. */
export const tellsMissing = (text: string | null): boolean => verdict(saysMissing, text);
/** Whether a title or heading asks to sign in. */
export const tellsSignIn = (text: string | null): boolean => verdict(saysSignIn, text);
/** Whether a page that refuses says that it does so to programs. */
export const tellsGuard = (title: string | null, words: string): boolean =>
  verdict(saysGuard, title) || saysGuard.test(words.slice(0, guardLength));
/** Whether a page's words offer its name for sale. */
export const tellsParked = (words: string): boolean => saysParked.test(words);
