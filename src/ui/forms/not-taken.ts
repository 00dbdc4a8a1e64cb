/** Why what was typed is not taken. It stays in the field for correction unless `keep` is false. */
export interface NotTaken {
  refused: string;
  keep?: boolean;
}
