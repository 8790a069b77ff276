// Joins the styles and the scripts, and compresses everything the application ships.
// Run it after a change under crates/web/assets: node scripts/assets.mjs
import { readdirSync, readFileSync, writeFileSync, copyFileSync, mkdirSync, rmSync } from "node:fs";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const assets = new URL("../crates/web/assets/", import.meta.url);
const at = (path) => new URL(path, assets);

rmSync(at("dist"), { recursive: true, force: true });
mkdirSync(at("dist"));

for (const [folder, ending, name] of [
  ["css", ".css", "almanac.css"],
  ["scripts", ".js", "almanac.js"],
]) {
  const files = readdirSync(at(folder)).filter((file) => file.endsWith(ending)).sort();
  writeFileSync(at(`dist/${name}`), files.map((file) => readFileSync(at(`${folder}/${file}`), "utf8")).join(""));
}
for (const file of readdirSync(at("vendor"))) {
  copyFileSync(at(`vendor/${file}`), at(`dist/${file}`));
}
for (const file of readdirSync(at("dist"))) {
  // Fonts are compressed already.
  if (file.endsWith(".woff2")) continue;
  const plain = readFileSync(at(`dist/${file}`));
  writeFileSync(at(`dist/${file}.gz`), gzipSync(plain, { level: 9 }));
  writeFileSync(at(`dist/${file}.br`), brotliCompressSync(plain, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }));
}
