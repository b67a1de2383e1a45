import type { Face } from '../document/item.ts';

/** Where each bundled face's file is found, as a package path. All are under the SIL Open Font License. */
export const FACE_FILES: Record<Face, string> = {
  fraunces: '@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf',
  josefin: '@expo-google-fonts/josefin-sans/600SemiBold/JosefinSans_600SemiBold.ttf',
  rokkitt: '@expo-google-fonts/rokkitt/600SemiBold/Rokkitt_600SemiBold.ttf',
};

/** What each face is called on the screen. */
export const FACE_NAMES: Record<Face, string> = {
  fraunces: 'Fraunces, a soft serif',
  josefin: 'Josefin, plain and round',
  rokkitt: 'Rokkitt, a slab serif',
};
