/**
 * Scripts of the Unicode Standard by the names of their property values (UAX 24), all but Latin, Greek and Cyrillic,
 * which most fonts for books have: first those that it recommends for names (UAX 31, table 5), then the others.
 */
const recommended =
  "Arabic Armenian Bengali Bopomofo Devanagari Ethiopic Georgian Gujarati Gurmukhi Han Hangul Hebrew Hiragana Kannada Katakana Khmer Lao Malayalam Myanmar Oriya Sinhala Tamil Telugu Thaana Thai Tibetan";
const others =
  "Adlam Ahom Anatolian_Hieroglyphs Avestan Balinese Bamum Bassa_Vah Batak Bhaiksuki Brahmi Buginese Buhid Canadian_Aboriginal Carian Caucasian_Albanian Chakma Cham Cherokee Coptic Cuneiform Cypriot Deseret Dogra Duployan Egyptian_Hieroglyphs Elbasan Elymaic Glagolitic Gothic Grantha Gunjala_Gondi Hanifi_Rohingya Hanunoo Hatran Imperial_Aramaic Inscriptional_Pahlavi Inscriptional_Parthian Javanese Kaithi Kayah_Li Kharoshthi Khojki Khudawadi Lepcha Limbu Linear_A Linear_B Lisu Lycian Lydian Mahajani Mandaic Manichaean Marchen Masaram_Gondi Medefaidrin Meetei_Mayek Mende_Kikakui Miao Modi Mongolian Mro Multani Nabataean New_Tai_Lue Newa Nko Nushu Nyiakeng_Puachue_Hmong Ogham Ol_Chiki Old_Hungarian Old_Italic Old_North_Arabian Old_Permic Old_Persian Old_Sogdian Old_South_Arabian Old_Turkic Osage Osmanya Pahawh_Hmong Palmyrene Pau_Cin_Hau Phags_Pa Phoenician Psalter_Pahlavi Rejang Runic Samaritan Saurashtra Sharada Shavian Siddham SignWriting Sogdian Sora_Sompeng Soyombo Sundanese Syloti_Nagri Syriac Tagalog Tagbanwa Tai_Le Tai_Tham Tai_Viet Takri Tangut Tifinagh Tirhuta Ugaritic Vai Wancho Warang_Citi Yezidi Yi Zanabazar_Square";

const all = [...recommended.split(" "), ...others.split(" ")].map((script) => ({
  script,
  own: new RegExp(`\\p{Script=${script}}`, "u"),
  shared: new RegExp(`\\p{Script_Extensions=${script}}`, "u"),
}));
// Letter by letter: a run of millions is more than an expression can take at once.
const ofOthers =
  /[^\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Common}\p{Script=Inherited}]/gu;

/** The scripts of a text's letters besides Latin, Greek and Cyrillic. */
export function scriptsIn(text: string): string[] {
  const found = new Set<string>();
  for (const [letter] of text.matchAll(ofOthers)) found.add(letter);
  if (found.size === 0) return [];
  const letters = [...found].join("");
  return all.filter(({ own }) => own.test(letters)).map(({ script }) => script);
}

/** The script of a letter, or the first that uses a sign of several (UAX 24, 5.1); null for Latin, Greek and Cyrillic, and for signs of all. */
export function scriptOf(letter: string): string | null {
  const found = all.find(({ own }) => own.test(letter)) ?? all.find(({ shared }) => shared.test(letter));
  return found?.script ?? null;
}

/** A script's name as it is told: “Ol Chiki”. */
export function scriptName(script: string): string {
  return script.replaceAll("_", " ");
}
