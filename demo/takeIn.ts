/** Taking in and examining the pieces of the demo shop. */
import { ago, at, inAir, nowMs, open, people, today } from './clock'
import { type DemoPiece, placeOf } from './pieces'
import { picture } from './picture'

export async function takeIn(p: DemoPiece): Promise<number> {
  const parts = [...new Set(p.faces.map(f => f[0]))].map(name => ({
    name,
    scope: p.alone?.includes(name) ? 'protect' : 'refinish',
    faces: p.faces
      .filter(f => f[0] === name)
      .map(([, face, shape, orientation, length, width, count, species, veneer]) => ({
        name: face,
        rank: 'show',
        shape,
        orientation,
        length,
        width,
        count,
        species,
        substrate: p.made?.[name] ?? (veneer === undefined ? 'solid' : 'veneer'),
        veneer: veneer ?? '',
      })),
  }))
  const due = open.plus({ days: 12 + (p.name.length % 5) * 4 }).toISODate()
  const { id } = await people.sara.send<{ id: number }>('POST', '/api/pieces', {
    name: p.name,
    note: '',
    client: { name: p.client[0], email: p.client[1], phone: '' },
    use: 'daily',
    tone: 'same',
    sheen: 'satin',
    age: 'keep',
    dueOn: due,
    period: 'unknown',
    refinished: 'unknown',
    keepPatina: false,
    lead: 'unknown',
    parts,
    ...p.more,
  })
  await people.sara.picture(`/api/pieces/${id}/photographs`, await picture(p.name))
  return id
}

async function countItems(id: number, p: DemoPiece) {
  for (const { place, out, ask, ...item } of p.items ?? []) {
    const made = await people.emil.send<{ id: number }>('POST', `/api/pieces/${id}/items`, {
      kind: 'hardware',
      count: 1,
      ...item,
    })
    if (place || out)
      await people.emil.send('PATCH', `/api/items/${made.id}`, {
        rowVersion: (await itemsOf(id)).find(i => i.id === made.id)!.row_version,
        out: out ?? null,
        place: place ? { kind: place[0], code: place[1] } : null,
      })
    if (ask) await people.tove.send('POST', `/api/items/${made.id}/question`, { words: ask, days: 14 })
  }
}
const itemsOf = async (id: number) =>
  (await people.emil.get<{ items: { id: number; row_version: number }[] }>(`/api/pieces/${id}/examination`)).items

export async function examine(id: number, p: DemoPiece) {
  const { faces } = await people.tove.get<{ faces: { id: number; copies: number; row_version: number }[] }>(
    `/api/pieces/${id}`,
  )
  for (const [face, finishGroup] of Object.entries(p.groups ?? {}))
    await people.tove.send('PATCH', `/api/faces/${faces[Number(face)]!.id}`, { rowVersion: 1, finishGroup })
  for (const [test, result, group = 'A', layer = 1] of p.tests ?? [])
    await people.tove.send('POST', `/api/pieces/${id}/tests`, { test, result, spot: 'under the edge', group, layer })
  const { photographs } = await people.tove.get<{ photographs: { address: string }[] }>(`/api/pieces/${id}/examination`)
  for (const [i, [face, kind, grade, wish = 'mend', place, note = '']] of (p.findings ?? []).entries()) {
    const { id: made } = await people.tove.send<{ id: number }>('POST', `/api/pieces/${id}/findings`, {
      faceId: faces[face]!.id,
      kind,
      grade,
      wish,
      note,
      place: placeOf(place, faces[face]!.copies),
    })
    if (i === 0)
      await people.tove.send('PATCH', `/api/findings/${made}`, {
        rowVersion: 1,
        photographs: photographs.map(x => x.address),
      })
  }
  for (const [key, ...options] of p.walk ?? [])
    await people.emil.send('POST', `/api/pieces/${id}/walk`, { key, options })
  const begun = nowMs()
  for (const [face, reading_pct, thickness, daysAgo] of p.moisture ?? []) {
    await inAir(daysAgo === 0 ? today('08:05') : ago(daysAgo, '10:05'))
    await people.emil.send('POST', `/api/pieces/${id}/moisture`, { faceId: faces[face]!.id, reading_pct, thickness })
  }
  if (p.moisture) await at(begun)
  for (const { face, ...patch } of p.patches ?? [])
    await people.emil.send('POST', `/api/pieces/${id}/patches`, {
      ...patch,
      faceId: faces[face]!.id,
      length: '200',
      width: '200',
    })
  await countItems(id, p)
  if (p.kept) await people.tove.send('POST', `/api/pieces/${id}/examinations`, { name: p.kept })
}

/** A photograph after the work, beside the first one. */
export async function showAfter(id: number, p: DemoPiece) {
  const { photographs } = await people.sara.get<{ photographs: { address: string }[] }>(`/api/pieces/${id}/examination`)
  const { address } = await people.sara.picture<{ address: string }>(
    `/api/pieces/${id}/photographs`,
    await picture(p.name, true),
  )
  await people.emil.send('PATCH', `/api/photographs/${address}`, {
    rowVersion: 1,
    caption: p.after,
    before: photographs[0]!.address,
  })
}
