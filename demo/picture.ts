import sharp from 'sharp'

/** A plain drawn stand-in for a photograph, different for each name. */
export async function picture(name: string): Promise<Buffer> {
  const seed = [...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 997, 7)
  const w = 260 + (seed % 5) * 60
  const h = 220 + (seed % 7) * 40
  const rows = 1 + (seed % 4)
  const tone = ['#a9794b', '#8a5d3a', '#c29a66', '#7a5640'][seed % 4]
  const x = 400 - w / 2
  const y = 520 - h
  const lines = Array.from({ length: rows }, (_, i) => `<rect x="${x + 18}" y="${y + 18 + i * ((h - 24) / rows)}" width="${w - 36}" height="${(h - 24) / rows - 14}" fill="none" stroke="#0005" stroke-width="4"/>`).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600"><rect width="800" height="600" fill="#d9d9d6"/><rect y="520" width="800" height="80" fill="#b9b8b3"/><rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${tone}"/>${lines}</svg>`
  return sharp(Buffer.from(svg)).png().toBuffer()
}
