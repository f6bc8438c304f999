/** An engine gateway: a box aboard that records engine speed and hands out files. The demo has one that makes them up. */
export interface Gateway {
  list(): { id: string; title: string; format: "csv" | "nmea"; minutes: number }[];
  /** The file of a run, text; null for one it does not have. */
  read(id: string): string | null;
}
