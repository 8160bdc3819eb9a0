import { createHash } from 'node:crypto'
import { sql } from 'kysely'
import { PART_BYTES, type KeptMesh, type MeshFacts } from '~contract/mesh'
import { refuseBeyond } from './room'
import type { Scope } from './scope'
import { Refused } from '../refused'

/** Begins a model, or begins it again. @returns false when there is no such mould, or the id is somebody else's. */
export async function beginMesh(scope: Scope, id: string, facts: MeshFacts): Promise<boolean> {
  return scope.transaction(async (inner) => {
    if (
      !await inner.select('library_item').select('id').where('id', '=', facts.mould).where('kind', '=', 'mould')
        .executeTakeFirst()
    ) return false
    await inner.remove('mesh').where('id', '=', id).where('sha256', 'is', null).execute()
    await refuseBeyond(inner, 'models', facts.parts * PART_BYTES)
    const made = await inner.insert('mesh', [{
      id,
      mould_id: facts.mould,
      name: facts.name,
      unit: facts.unit,
      triangles: facts.triangles,
      parts: facts.parts,
      sha256: null,
    }]).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning('id').execute()
    return made.length > 0
  })
}

/** Stores one part; the same part again replaces it. @returns false when no such model is being received. */
export async function putPart(scope: Scope, id: string, part: number, data: Buffer): Promise<boolean> {
  return scope.transaction(async (inner) => {
    const mesh = await inner.select('mesh').select('parts').where('id', '=', id).where('sha256', 'is', null).forUpdate()
      .executeTakeFirst()
    if (!mesh || part >= mesh.parts) return false
    await inner.insert('mesh_part', [{ mesh_id: id, part, data }]).onConflict(c =>
      c.columns(['workshop_id', 'mesh_id', 'part']).doUpdateSet({ data }),
    ).execute()
    return true
  })
}

/**
 * Closes a model once all of it is there; it takes the place of the one its mould had. Repeating it is harmless.
 * @throws Refused when parts are missing or the checksum differs.
 */
export async function finishMesh(scope: Scope, id: string, sha256?: string): Promise<KeptMesh | undefined> {
  return scope.transaction(async (inner) => {
    // Its mould first: of two models of one mould that are finished at once, the second waits here for the first.
    const mould = (await inner.select('mesh').select('mould_id').where('id', '=', id).executeTakeFirst())?.mould_id
    if (mould === undefined) return undefined
    await inner.select('library_item').select('id').where('id', '=', mould).forNoKeyUpdate().execute()
    const mesh = await inner.select('mesh').selectAll().where('id', '=', id).forUpdate().executeTakeFirst()
    if (!mesh) return undefined
    const hash = createHash('sha256')
    let bytes = 0
    for (let part = 0; part < mesh.parts; part++) {
      const row = await inner.select('mesh_part').select('data').where('mesh_id', '=', id).where('part', '=', part)
        .executeTakeFirst()
      if (!row) throw new Refused('model-not-whole')
      hash.update(row.data)
      bytes += row.data.length
    }
    const own = hash.digest('hex')
    if (sha256 !== undefined && sha256 !== own) throw new Refused('model-not-whole')
    await inner.update('mesh').set({ sha256: own }).where('id', '=', id).execute()
    // One that is still being received takes its turn when it is whole.
    await inner.remove('mesh').where('mould_id', '=', mould).where('id', '<>', id).where('sha256', 'is not', null).execute()
    return {
      id,
      mould: mesh.mould_id,
      name: mesh.name,
      unit: mesh.unit as KeptMesh['unit'],
      triangles: mesh.triangles,
      parts: mesh.parts,
      sha256: own,
      bytes,
    }
  })
}

/** The model that a mould has, if it has one that arrived whole. */
export async function meshOfMould(scope: Scope, mould: string): Promise<KeptMesh | undefined> {
  const row = await scope.select('mesh').selectAll('mesh').select(
    sql<number>`(select sum(length(data))::int from mesh_part p where p.workshop_id = mesh.workshop_id and p.mesh_id = mesh.id)`.as('bytes'),
  )
    .where('mould_id', '=', mould).where('sha256', 'is not', null).executeTakeFirst()
  return row
    && {
      id: row.id,
      mould,
      name: row.name,
      unit: row.unit as KeptMesh['unit'],
      triangles: row.triangles,
      parts: row.parts,
      sha256: row.sha256!,
      bytes: row.bytes,
    }
}

export async function meshPart(scope: Scope, id: string, part: number): Promise<Buffer | undefined> {
  return (await scope.select('mesh_part').select('data').where('mesh_id', '=', id).where('part', '=', part)
    .executeTakeFirst())?.data
}
