/** How greys are changed before they are burnt. */
export interface Tone {
  /** −100 to 100: all lighter or darker by so many per cent of white. */
  brightness: number;
  /** −100 to 100: further from the middle grey, or nearer to it. */
  contrast: number;
  /** Above 1 lightens what lies between black and white, below 1 darkens it. */
  gamma: number;
  inverted: boolean;
}

/**
 * What each grey becomes: turned to its negative, brought up and down, spread about the middle, and bent by gamma.
 * @example toneTable({ brightness: 0, contrast: 0, gamma: 1, inverted: true })[10] // 245
 */
export function toneTable({ brightness, contrast, gamma, inverted }: Tone): Uint8Array {
  const spread = contrast >= 0 ? 1 + (3 * contrast) / 100 : 1 + contrast / 100;
  return Uint8Array.from({ length: 256 }, (_, k) => {
    const shown = inverted ? 255 - k : k;
    const spreadOut = 127.5 + (shown - 127.5) * spread + (255 * brightness) / 100;
    const share = Math.min(1, Math.max(0, spreadOut / 255));
    return Math.round(255 * share ** (1 / gamma));
  });
}
