/** What is said of pictures. */
export const pictures = {
  notAPicture: 'This is not a picture that can be shown, or it is too large.',
  chooseOther: 'Choose a PNG, JPEG or WebP picture of {{most, size}} at most.',
  cannotRead: 'This file cannot be read as a picture. Choose a PNG, JPEG or WebP file.',
  choose: 'Choose a picture',
  chooseAnother: 'Choose another picture',
  remove: 'Remove the picture',
  yourPortrait: 'Your portrait',
  portraitOf: 'Portrait of {{name}}',
  logo: 'Logo',
  logoHint: 'Requesters see it at the top of the Front desk. It stands on white in the dark as well.',
  portrait: 'Portrait',
} as const;
