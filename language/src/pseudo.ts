// A language nobody speaks, made of the one there is: each letter with a sign, each text longer by 40 %. A page that is
// walked in it shows which words stand outside this room, and what breaks where words are longer.

const SIGNED: Readonly<Record<string, string>> = Object.fromEntries(
  [
    ...'AÅBƁCÇDÐEÉFƑGĜHĤIÎJĴKĶLĻMṀNÑOÖPÞQǪRŔSŠTŢUÛVṼWŴXẊYÝZŽaåbƀcçdðeéfƒgĝhĥiîjĵkķlļmɱnñoöpþqǫrŕsštţuûvṽwŵxẋyýzž',
  ]
    .map((sign, at, all) => [sign, all[at + 1] ?? sign] as const)
    .filter((_, at) => at % 2 === 0),
);

/** How much longer a text of the pseudo-language is. */
const LONGER = 0.4;

export const pseudoOf = (text: string): string =>
  text.replace(/\p{L}/gu, (sign) => SIGNED[sign] ?? sign) +
  '·'.repeat(Math.ceil(text.trim().length * LONGER));

/** Set by a test before the application starts. */
export const PSEUDO =
  (globalThis as { readonly ipsonomoLanguage?: string }).ipsonomoLanguage === 'pseudo';

/** A text as it is read: as it is, or in the pseudo-language. */
export const spoken: (text: string) => string = PSEUDO ? pseudoOf : (text) => text;
