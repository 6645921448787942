import sharp from 'sharp'

/** A plain drawn stand-in for a photograph, different for each name; `after` shows it cleaner and lighter. */
export async function picture(name: string, after = false): Promise<Buffer> {
  const seed = [...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 997, 7)
  const w = 260 + (seed % 5) * 60
  const h = 220 + (seed % 7) * 40
  const rows = 1 + (seed % 4)
  const tone = ['#a9794b', '#8a5d3a', '#c29a66', '#7a5640'][seed % 4]
  const x = 400 - w / 2
  const y = 520 - h
  const lines = Array.from(
    { length: rows },
    (_, i) =>
      `<rect x="${x + 18}" y="${y + 18 + i * ((h - 24) / rows)}" width="${w - 36}" ` +
      `height="${(h - 24) / rows - 14}" fill="none" stroke="#0005" stroke-width="4"/>`,
  ).join('')
  const wear = [0, 1, 2, 3]
    .map(
      i =>
        `<ellipse cx="${x + w * (0.2 + 0.2 * i)}" cy="${y + h * (0.3 + 0.13 * (i % 3))}" rx="${14 + 6 * i}" ` +
        `ry="${10 + 5 * i}" fill="#2228"/>`,
    )
    .join('')
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600"><rect width="800" height="600" ' +
    `fill="#d9d9d6"/><rect y="520" width="800" height="80" fill="#b9b8b3"/><rect x="${x}" y="${y}" ` +
    `width="${w}" height="${h}" fill="${tone}"/>` +
    `${after ? `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="#fff" opacity=".22"/>` : wear}${lines}</svg>`
  return sharp(Buffer.from(svg)).png().toBuffer()
}
