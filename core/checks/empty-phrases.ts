import { foldedWords } from "./folded-words.ts";

/** What links are called that say nothing by themselves, by language (WCAG failures F63 and F84; common practice). */
const phrases: Record<string, string[]> = {
  en: [
    "here",
    "click here",
    "click",
    "click this",
    "this",
    "this page",
    "this link",
    "this site",
    "this website",
    "this article",
    "this document",
    "this post",
    "this one",
    "link",
    "more",
    "read more",
    "learn more",
    "more info",
    "more information",
    "find out more",
    "see more",
    "see here",
    "go here",
    "continue",
    "details",
    "page",
    "website",
    "web page",
    "download",
    "download here",
    "next",
    "back",
  ],
  de: [
    "hier",
    "hier klicken",
    "klicken sie hier",
    "klick hier",
    "dort",
    "diese seite",
    "dieser link",
    "link",
    "mehr",
    "mehr lesen",
    "weiterlesen",
    "weiter",
    "mehr dazu",
    "mehr erfahren",
    "mehr informationen",
    "weitere informationen",
    "siehe hier",
    "details",
    "seite",
    "webseite",
    "website",
    "herunterladen",
    "download",
    "zurück",
  ],
  fr: [
    "ici",
    "cliquez ici",
    "cliquer ici",
    "cette page",
    "ce lien",
    "ce site",
    "lien",
    "plus",
    "lire la suite",
    "lire plus",
    "en savoir plus",
    "plus d'informations",
    "plus d’informations",
    "suite",
    "voir",
    "voir ici",
    "détails",
    "page",
    "site",
    "télécharger",
    "retour",
  ],
  es: [
    "aquí",
    "haga clic aquí",
    "haz clic aquí",
    "clic aquí",
    "pulse aquí",
    "esta página",
    "este enlace",
    "este sitio",
    "enlace",
    "más",
    "leer más",
    "saber más",
    "más información",
    "ver más",
    "ver aquí",
    "continuar",
    "detalles",
    "página",
    "sitio",
    "descargar",
    "volver",
  ],
  nl: [
    "hier",
    "klik hier",
    "deze pagina",
    "deze link",
    "deze site",
    "link",
    "meer",
    "lees meer",
    "lees verder",
    "verder lezen",
    "meer informatie",
    "meer info",
    "zie hier",
    "verder",
    "details",
    "pagina",
    "website",
    "downloaden",
    "download",
    "terug",
  ],
  da: [
    "her",
    "klik her",
    "denne side",
    "dette link",
    "link",
    "mere",
    "læs mere",
    "læs videre",
    "mere information",
    "mere info",
    "se mere",
    "se her",
    "fortsæt",
    "detaljer",
    "side",
    "hjemmeside",
    "hent",
    "download",
    "tilbage",
  ],
};

const byLanguage = new Map(Object.entries(phrases).map(([language, list]) => [language, new Set(list)]));

const longestPhrase = Math.max(...Object.values(phrases).flatMap((list) => list.map(({ length }) => length)));

/**
 * Whether words say nothing of where they lead, in the book's language or in English, which links are
 * often left in; signs and blanks around them aside.
 */
export function isEmptyPhrase(words: string, language: string): boolean {
  // Most links are longer than any of the phrases with a few signs around it.
  if (words.trim().length > longestPhrase + 8) return false;
  const folded = withoutSigns(composed(foldedWords(words)));
  const own = byLanguage.get(language.toLowerCase().split("-")[0]!);
  return Boolean(own?.has(folded) || byLanguage.get("en")!.has(folded));
}

/** Letters with their marks as one sign each (NFC), of which most texts have none. */
function composed(words: string): string {
  return /[^\0-\x7f]/.test(words) ? words.normalize("NFC") : words;
}

function withoutSigns(words: string): string {
  const beginsAndEnds = /^[\p{L}\p{N}](?:.*[\p{L}\p{N}])?$/su;
  return beginsAndEnds.test(words) ? words : words.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, "");
}

/** The languages that have a list of their own. */
export const listedLanguages: readonly string[] = [...byLanguage.keys()];
