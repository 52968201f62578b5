/** An id as it is said where nothing on file names it: "methyl-eugenol" as "methyl eugenol". */
export const spoken = (id: string): string => id.replaceAll('-', ' ').replaceAll('+', ' with ');
