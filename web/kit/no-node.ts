// In place of what only a server has: what reads GeoPackages asks for it where there is one, and a browser is none.
export default {};
