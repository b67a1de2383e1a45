import { ArtworkError } from './artwork-error.ts';

/**
 * The text of an XML file by its byte order mark or the encoding that it declares (XML 1.0, appendix F); UTF-8 where
 * it says neither.
 *
 * @throws {ArtworkError} where the encoding is none that browsers know (WHATWG Encoding).
 * @example svgText(Uint8Array.of(0xff, 0xfe, 0x3c, 0)) // '<'
 */
export function svgText(bytes: Uint8Array): string {
  const encoding = encodingOf(bytes);
  try {
    return new TextDecoder(encoding).decode(bytes);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new ArtworkError(
      `The drawing is written in an encoding that is not known here (“${encoding}”); save it again in UTF-8.`,
    );
  }
}

function encodingOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if ((a === 0xff && b === 0xfe) || (a === 0x3c && b === 0)) return 'utf-16le';
  if ((a === 0xfe && b === 0xff) || (a === 0 && b === 0x3c)) return 'utf-16be';
  const start = String.fromCharCode(...bytes.subarray(0, 200));
  const declared = /^(?:\xef\xbb\xbf)?\s*<\?xml\s[^>]*?encoding\s*=\s*["']([A-Za-z][\w.:-]{0,40})["']/.exec(start)?.[1];
  // A declaration that could be read byte by byte is not in UTF-16, whatever it says.
  return !declared || start.startsWith('\xef\xbb\xbf') || /^utf-?16/i.test(declared) ? 'utf-8' : declared;
}
