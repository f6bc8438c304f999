/** Where one is, in degrees: north and east positive. */
export interface Position {
  readonly lat: number;
  readonly lon: number;
}

/** Mean radius of the earth in sea miles (IUGG mean of 6371.0088 km over 1852 m). */
const earthNm = 6371.0088 / 1.852;
const rad = Math.PI / 180;

/** Great-circle distance in sea miles (haversine; it stays exact for short legs). */
export function distanceNm(a: Position, b: Position): number {
  const dLat = (b.lat - a.lat) * rad;
  const dLon = (b.lon - a.lon) * rad;
  const h = Math.sin(dLat / 2) ** 2 + Math.cos(a.lat * rad) * Math.cos(b.lat * rad) * Math.sin(dLon / 2) ** 2;
  return 2 * earthNm * Math.asin(Math.min(1, Math.sqrt(h)));
}

/** Course at the beginning of the great circle from a to b, degrees from true north, 0 to 360. */
export function courseDeg(a: Position, b: Position): number {
  const dLon = (b.lon - a.lon) * rad;
  const y = Math.sin(dLon) * Math.cos(b.lat * rad);
  const x =
    Math.cos(a.lat * rad) * Math.sin(b.lat * rad) - Math.sin(a.lat * rad) * Math.cos(b.lat * rad) * Math.cos(dLon);
  return (((Math.atan2(y, x) / rad) % 360) + 360) % 360;
}
