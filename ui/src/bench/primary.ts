/** What the large key does now. */
export interface Primary {
  says: string;
  can: boolean;
  run: () => void;
}
