type Point = [number, number];

/** A small ASCII DXF (AC1015) in millimetres: circles, closed polylines with bulges, lines and arcs by layer. */
export class DxfText {
  private readonly entities: string[] = [];

  constructor(private readonly units: 'mm' | 'inch' = 'mm') {}

  circle(layer: string, [x, y]: Point, radius: number): this {
    return this.add('CIRCLE', layer, [10, x], [20, y], [30, 0], [40, radius]);
  }
  line(layer: string, a: Point, b: Point): this {
    return this.add('LINE', layer, [10, a[0]], [20, a[1]], [30, 0], [11, b[0]], [21, b[1]], [31, 0]);
  }
  /** Angles in degrees, counter-clockwise. */
  arc(layer: string, [x, y]: Point, radius: number, from: number, to: number): this {
    return this.add('ARC', layer, [10, x], [20, y], [30, 0], [40, radius], [50, from], [51, to]);
  }
  /** A closed polyline; the third number of a point is the bulge of the stretch that follows it. */
  polyline(layer: string, points: ([number, number] | [number, number, number])[]): this {
    const groups: [number, number][] = [
      [90, points.length],
      [70, 1],
    ];
    for (const [x, y, bulge] of points)
      groups.push([10, x], [20, y], ...(bulge ? ([[42, bulge]] as [number, number][]) : []));
    return this.add('LWPOLYLINE', layer, ...groups);
  }
  text(layer: string, [x, y]: Point, words: string): this {
    return this.add('TEXT', layer, [10, x], [20, y], [40, 3], [1, words]);
  }
  private add(type: string, layer: string, ...groups: [number, number | string][]): this {
    this.entities.push(
      ['0', type, '8', layer, ...groups.flatMap(([code, value]) => [String(code), String(value)])].join('\n'),
    );
    return this;
  }
  toString(): string {
    const unit = this.units === 'mm' ? 4 : 1;
    return `0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n9\n$INSUNITS\n70\n${unit}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${this.entities.join('\n')}\n0\nENDSEC\n0\nEOF\n`;
  }
}

/** A rectangle with corner radius `r` about a centre, as polyline points with bulges. */
export function roundedRectangle(
  [cx, cy]: Point,
  w: number,
  h: number,
  r: number,
): [number, number, number][] {
  const [x, y] = [w / 2, h / 2];
  const quarter = Math.tan(Math.PI / 8);
  return [
    [cx - x + r, cy - y, 0],
    [cx + x - r, cy - y, quarter],
    [cx + x, cy - y + r, 0],
    [cx + x, cy + y - r, quarter],
    [cx + x - r, cy + y, 0],
    [cx - x + r, cy + y, quarter],
    [cx - x, cy + y - r, 0],
    [cx - x, cy - y + r, quarter],
  ];
}

/** Two half rounds and two lines, `length` over all. */
export function capsulePoints([cx, cy]: Point, length: number, width: number): [number, number, number][] {
  const [a, r] = [(length - width) / 2, width / 2];
  return [
    [cx - a, cy - r, 0],
    [cx + a, cy - r, 1],
    [cx + a, cy + r, 0],
    [cx - a, cy + r, 1],
  ];
}

/** Gasket plate TW-219: exists only as a drawing. Bolt circle, window, adjusting slots, a seal groove between two outlines. */
export function gasketPlate(): string {
  const d = new DxfText();
  d.polyline('PROFILE', roundedRectangle([0, 0], 160, 110, 14));
  for (let i = 0; i < 8; i++) {
    const a = Math.PI / 8 + (i * Math.PI) / 4;
    d.circle('HOLES', [38 * Math.cos(a), 38 * Math.sin(a)], 3.3);
  }
  for (const [x, y] of [
    [-68, -43],
    [68, -43],
    [68, 43],
    [-68, 43],
  ] as Point[])
    d.circle('DOWELS', [x, y], 4);
  d.circle('WINDOW', [0, 0], 27);
  for (const x of [-62, 62]) {
    // Drawn as single lines and arcs, as some programs write them.
    d.line('SLOTS', [x - 3.5, -10], [x - 3.5, 10]).line('SLOTS', [x + 3.5, 10], [x + 3.5, -10]);
    d.arc('SLOTS', [x, 10], 3.5, 0, 180).arc('SLOTS', [x, -10], 3.5, 180, 360);
  }
  d.polyline('SEAL', capsulePoints([0, 0], 112, 98)).polyline('SEAL', capsulePoints([0, 0], 106, 92));
  d.line('CENTRE', [-90, 0], [90, 0])
    .line('CENTRE', [0, -65], [0, 65])
    .text('NOTES', [-78, -70], 'GASKET PLATE TW-219');
  return d.toString();
}
