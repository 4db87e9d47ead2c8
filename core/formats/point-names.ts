// What columns of points are called.
/** Names of columns that tell where. */
export const X = ['x', 'e', 'east', 'easting', 'eastings', 'xm', 'xcoord', 'eastingm'];
export const Y = ['y', 'n', 'north', 'northing', 'northings', 'ym', 'ycoord', 'northingm'];
export const Z = [
  'z',
  'level',
  'elevation',
  'elev',
  'ele',
  'height',
  'rl',
  'zm',
  'levelm',
  'alt',
  'altitude',
  'h',
  'elevm',
  'elem',
  'elevationm',
  'heightm',
  'altm',
  'altitudem',
  'reducedlevel',
];
export const LAT = ['lat', 'latitude'];
export const LON = ['lon', 'lng', 'long', 'longitude'];
/** What was read at a point. */
export const CODE = ['code', 'codes', 'desc', 'description', 'feature', 'featurecode', 'remark', 'remarks', 'string', 'what'];
