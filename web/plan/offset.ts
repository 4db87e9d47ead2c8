import LineString from 'ol/geom/LineString.js';

/** The line moved sideways: to the right of its direction when positive [map units]. Corners are mitred, within reason. */
export function offsetLine(line: LineString, by: number): LineString {
  const points = line.getCoordinates();
  const normals = points.slice(1).map(([x, y], i) => {
    const [dx, dy] = [x - points[i][0], y - points[i][1]];
    const length = Math.hypot(dx, dy) || 1;
    return [dy / length, -dx / length];
  });
  const moved = points.map(([x, y], i) => {
    const a = normals[Math.max(0, i - 1)];
    const b = normals[Math.min(normals.length - 1, i)];
    const [mx, my] = [a[0] + b[0], a[1] + b[1]];
    const scale = by / Math.max(0.7, 1 + a[0] * b[0] + a[1] * b[1]);
    return [x + mx * scale, y + my * scale];
  });
  return new LineString(moved);
}
