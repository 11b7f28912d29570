/** A photo before it goes up. */
export interface Photo {
  key: string;
  file: Blob;
  name: string;
  address: string;
  turn: number;
  /** Left, top, right, bottom as shares of the turned picture. */
  crop: [number, number, number, number];
}
