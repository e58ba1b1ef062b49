export const sheets = {
  unreadable: 'This is not an XLSX file that can be read. Save it again as XLSX or CSV.',
  tooLarge:
    'Unpacked, this file is larger than {{most, size}}. Save the rows you need in a new file, without pictures, or as CSV.',
  tooManyCells:
    'This file has {{cells, number}} cells. At most {{most, number}} can be read. Remove the columns or rows you do not need.',
} as const;
