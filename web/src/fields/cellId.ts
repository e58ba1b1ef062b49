/** The id of a cell’s input, for the list of problems to link to. */
export const cellId = (id: string, row: number, column: string): string => `${id}-${row}-${column}`;
