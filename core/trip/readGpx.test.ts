import { describe, expect, it } from "vitest";
import { courseDeg, distanceNm, readGpx } from "./index.ts";

const gpx = (inner: string) =>
  `<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">${inner}</gpx>`;
const point = (tag: string, lat: number, lon: number, name = "") =>
  `<${tag} lat="${lat}" lon="${lon}"><name>${name}</name></${tag}>`;

describe("distances", () => {
  it("are those of the great circle: a minute of latitude is a sea mile within a thousandth or two", () => {
    expect(distanceNm({ lat: 45, lon: -93 }, { lat: 46, lon: -93 })).toBeCloseTo(60.04, 1);
    expect(distanceNm({ lat: 0, lon: 0 }, { lat: 0, lon: 180 })).toBeCloseTo(Math.PI * (6371.0088 / 1.852), 6);
    expect(distanceNm({ lat: 12, lon: 34 }, { lat: 12, lon: 34 })).toBe(0);
    // Over the date line it is the short way.
    expect(distanceNm({ lat: 0, lon: 179.5 }, { lat: 0, lon: -179.5 })).toBeCloseTo(60.04, 1);
  });
  it("have a course", () => {
    expect(courseDeg({ lat: 45, lon: -93 }, { lat: 46, lon: -93 })).toBeCloseTo(0, 6);
    expect(courseDeg({ lat: 0, lon: 0 }, { lat: 0, lon: -1 })).toBeCloseTo(270, 6);
  });
});

describe("readGpx", () => {
  it("takes a route with its names, before a track and waypoints", () => {
    const route = `<rte><name>To the island</name>${point("rtept", 45, -93, "Dock")}${point("rtept", 45.1, -93, "Point")}${point("rtept", 45.1, -93.1, "Island")}</rte>`;
    const track = `<trk><trkseg>${point("trkpt", 1, 1)}${point("trkpt", 2, 2)}</trkseg></trk>`;
    const read = readGpx(gpx(track + route));
    if (!read.ok) throw new Error(read.error.code);
    expect(read.value).toMatchObject({ name: "To the island", points: 3, from: { lat: 45, lon: -93 } });
    expect(read.value.legs.map(({ to }) => to)).toEqual(["Point", "Island"]);
    expect(read.value.legs[0]!.nm).toBeCloseTo(6.004, 2);
    expect(read.value.legs[1]!.courseDeg).toBeCloseTo(270, 0);
  });

  it("tells a track of 200,000 points in a few legs that are as long as all of it", () => {
    const points = Array.from({ length: 200_000 }, (_, i) => ({
      lat: 45 + i / 1_000_000 + Math.sin(i / 3000) / 400,
      lon: -93 + i / 800_000,
    }));
    const text = gpx(
      `<trk><trkseg>${points.map(({ lat, lon }) => `<trkpt lat="${lat}" lon="${lon}"/>`).join("")}</trkseg></trk>`,
    );
    const read = readGpx(text);
    if (!read.ok) throw new Error(read.error.code);
    const whole = points.slice(1).reduce((sum, each, i) => sum + distanceNm(points[i]!, each), 0);
    expect(read.value.points).toBe(200_000);
    expect(read.value.legs.length).toBeLessThanOrEqual(20);
    expect(read.value.legs.reduce((sum, { nm }) => sum + nm, 0)).toBeCloseTo(whole, 6);
  });

  it("refuses in words what is none: no points, broken, another file, positions off the earth", () => {
    const code = (text: string) => {
      const read = readGpx(text);
      return read.ok ? "read" : read.error.code;
    };
    expect(code(gpx(""))).toBe("no-points");
    expect(code(gpx(`<rte>${point("rtept", 45, -93)}</rte>`))).toBe("no-points");
    for (const text of ["", "not xml", "<html><body/></html>", "<gpx><rte>", `\u0000`])
      expect(code(text)).toBe("not-gpx");
    expect(code(gpx(`<rte>${point("rtept", 95, 0)}${point("rtept", 45, 0)}</rte>`))).toBe("bad-position");
    expect(code(gpx('<rte><rtept lat="" lon="3"/><rtept lat="a" lon="3"/></rte>'))).toBe("bad-position");
    expect(code(gpx(point("wpt", 45, 0) + point("wpt", 45, 0)))).toBe("read");
  });
});
