import { randomUUID } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { drawTest } from '~core/lessons/bank'
import { askPage } from '~core/lessons/page'
import { readClassCode } from '~contract/class-code'
import type { ClassAnswer, SeatAnswer } from '~contract/classroom'
import { METRIC } from '~core/units/units'
import { connect } from '../../server/store/open'
import { tidy } from '../../server/store/tidying'
import { ask, comeIn, member, overHttp, owner, plan, product, viewer } from './over-http'

/** A class: who may lead it, what a seat may see and tell, and what of it is deleted with it. */
overHttp()

async function opened(name: string, cookie = member): Promise<{ id: string, code: string }> {
  const made = await ask(product, 'POST', 'classes', { cookie, body: { name, hours: 2 } })
  expect(made.status).toBe(200)
  const id = made.body.id as string
  return { id, code: (await classAs(id)).code! }
}
async function classAs(id: string, cookie = member): Promise<ClassAnswer> {
  return (await ask(product, 'GET', `classes/${id}`, { cookie })).body as unknown as ClassAnswer
}
async function join(code: string, name: string) {
  const answer = await ask(product, 'POST', 'seat', { body: { code, name } })
  expect([name, answer.status]).toEqual([name, 200])
  return { cookie: answer.cookie, told: answer.body as unknown as SeatAnswer }
}
const seatAs = async (cookie: string) => (await ask(product, 'GET', 'seat', { cookie })).body as unknown as SeatAnswer
const entry = (kind: string, data: object) => ({
  id: randomUUID(), version: 5, batch: 0, kind, data, happenedAt: Date.now(), recordedAt: Date.now(), device: 's', deviceSeq: 1,
})
const send = (cookie: string, ...events: object[]) =>
  ask(product, 'POST', 'seat/events', { cookie, body: { sentAt: Date.now(), events } })
async function packed(id: string, change: object = {}): Promise<void> {
  const planId = randomUUID()
  await ask(product, 'PUT', `plans/${planId}`, { cookie: member, body: { plan: { ...plan(), ...change }, revision: 0 } })
  const kits = await ask(product, 'POST', `classes/${id}/kits`, { cookie: member, body: { plan: planId, colours: ['white', 'slate'] } })
  expect(kits.status).toBe(200)
}

describe('coming in', () => {
  it('takes a code however it is typed; two of one name are two seats, and a reload keeps its own', async () => {
    const { id, code } = await opened('Morning')
    const first = await join(` ${code.slice(0, 4).toLowerCase()}-${code.slice(4)}`, 'Mara'), second = await join(code, 'Mara')
    expect([first.told.seat.number, second.told.seat.number]).toEqual([1, 2])
    expect((await seatAs(first.cookie)).seat.number).toBe(1)
    const again = await ask(product, 'POST', 'seat', { cookie: first.cookie, body: { code, name: 'Mara' } })
    expect((again.body as unknown as SeatAnswer).seat.number).toBe(1)
    expect((await classAs(id)).all.map(s => [s.number, s.name, s.phone])).toEqual([[1, 'Mara', true], [2, 'Mara', true]])
  })

  it('says what is wrong with a code, and whoever guesses waits while a right one still opens', async () => {
    const { code } = await opened('Guessed at')
    const none = await ask(product, 'POST', 'seat', { body: { code: 'abc', name: 'X' } })
    expect([none.status, none.body.data!.field]).toEqual([400, 'code'])
    expect(readClassCode('0000 0000')).toBeUndefined()
    const { cookie } = none, statuses = new Set<number>()
    for (let i = 0; i < 14; i++)
      statuses.add((await ask(product, 'POST', 'seat', { cookie, body: { code: 'ACDE3467', name: 'X' } })).status)
    expect([...statuses]).toEqual([404, 429])
    expect((await ask(product, 'POST', 'seat', { cookie, body: { code, name: 'X' } })).status).toBe(200)
  })

  it('is kept on one line, short and shown as it is written', async () => {
    const { code } = await opened('Names')
    for (const name of ['<img src=x>', 'a\nb', '', 'x'.repeat(40)])
      expect([name, (await ask(product, 'POST', 'seat', { body: { code, name } })).status]).toEqual([name, 400])
    expect((await join(code, '=HYPERLINK()')).told.seat.name).toBe('=HYPERLINK()')
  })

  it('ends with a shut door, with being sent out, and with the class', async () => {
    const { id, code } = await opened('Doors'), { cookie, told } = await join(code, 'Ada')
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { shut: true } })
    expect((await ask(product, 'POST', 'seat', { body: { code, name: 'Late' } })).status).toBe(403)
    expect((await ask(product, 'DELETE', `classes/${id}/seats/${told.seat.id}`, { cookie: member })).status).toBe(200)
    expect((await ask(product, 'GET', 'seat', { cookie })).status).toBe(401)
    expect(JSON.stringify(await classAs(id))).not.toContain('Ada')
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { ended: true } })
    expect((await ask(product, 'POST', 'seat', { body: { code, name: 'Later' } })).status).toBe(404)
  })

  it('has room for sixty at once', async () => {
    const { id, code } = await opened('Sixty')
    const came = await Promise.all(Array.from({ length: 60 }, (_, i) => join(code, `P${i}`)))
    expect(new Set(came.map(c => c.told.seat.number)).size).toBe(60)
    expect((await classAs(id)).all.map(s => s.number)).toEqual(Array.from({ length: 60 }, (_, i) => i + 1))
  })
})

describe('leading', () => {
  it('is its teacher’s and an owner’s; another member sees it, a viewer and a seat do not', async () => {
    const { id, code } = await opened('Led'), other = await comeIn(owner, 'other', 'member'), seat = await join(code, 'Ole')
    const change = (cookie: string) => ask(product, 'PATCH', `classes/${id}`, { cookie, body: { paused: true } })
    expect((await change(other)).status).toBe(403)
    expect((await classAs(id, other)).leads).toBe(false)
    expect((await ask(product, 'GET', `classes/${id}`, { cookie: viewer })).status).toBe(403)
    for (const path of ['classes', `classes/${id}`, 'plans', 'people', 'pours', 'live'])
      expect([path, (await ask(product, 'GET', path, { cookie: seat.cookie })).status]).toEqual([path, 401])
    expect((await change(owner)).status).toBe(200)
    expect((await change(member)).status).toBe(200)
    await ask(product, 'PATCH', `classes/${id}`, { cookie: owner, body: { taken: true } })
    expect((await classAs(id, owner)).teacher).toBe('First')
    expect((await change(member)).status).toBe(403)
  })

  it('shows where all are in this task, and takes no word of an earlier one', async () => {
    const { id, code } = await opened('Where'), { cookie } = await join(code, 'Ida')
    const task = { kind: 'scenario', id: 'first-bowl', seed: 7 }
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { task } })
    expect((await seatAs(cookie)).class).toMatchObject({ task: { id: 'first-bowl', seed: 7 }, tasks: 1 })
    await ask(product, 'PUT', 'seat/doing', { cookie, body: { task: 1, at: 'soak', look: 'help' } })
    expect((await classAs(id)).all[0]!.doing).toEqual({ task: 1, at: 'soak', look: 'help' })
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { task: { kind: 'lesson', id: 'wetting' } } })
    await ask(product, 'PUT', 'seat/doing', { cookie, body: { task: 1, at: 'stir' } })
    expect((await classAs(id)).all[0]!.doing).toBeUndefined()
    const late = await ask(product, 'POST', 'seat/results', {
      cookie, body: { kind: 'scenario', task: 1, verdict: 'good', named: [], minutes: 4 },
    })
    expect(late.status).toBe(409)
  })

  it('marks a test here, from what was chosen, and only once', async () => {
    const { id, code } = await opened('Tested'), { cookie, told } = await join(code, 'Una')
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { task: { kind: 'test', seed: 40, questions: 5 } } })
    const asked = drawTest(5, 40 + told.seat.number, METRIC)
    const right = asked.map(q => q.answers.findIndex(a => a.right))
    const wrong = asked.map(q => q.answers.findIndex(a => !a.right))
    const hand = (chosen: number[]) => ask(product, 'POST', 'seat/results', { cookie, body: { kind: 'test', task: 1, chosen } })
    expect((await hand([...right.slice(0, 3), ...wrong.slice(3)])).body).toEqual({ kind: 'test', right: 3, of: 5 })
    expect((await hand(right)).body).toEqual({ kind: 'test', right: 3, of: 5 })
    const table = await fetch(`${product.url}/api/classes/${id}/results`, { headers: { cookie: member } })
    expect(await table.text()).toContain('1,Una,1,test,,,3,5')
  })
})

describe('a page of the teacher’s own', () => {
  const page = {
    name: 'Our bench', text: 'Wipe it.', questions: ['one', 'two', 'three'].map(asks => ({
      asks, right: { words: 'yes', why: 'so it is' }, wrong: [{ words: 'no', why: '' }, { words: 'perhaps', why: '' }],
    })),
  }
  it('is kept in the library, given as it is then, and marked here', async () => {
    const saved = await ask(product, 'PUT', `library/page/${randomUUID()}`, { cookie: member, body: { body: page, revision: 0 } })
    expect(saved.status).toBe(200)
    const { id, code } = await opened('Own page'), { cookie, told } = await join(code, 'Ole')
    const give = (test: boolean) =>
      ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { task: { kind: 'page', page, seed: 9, test } } })
    expect((await give(false)).status).toBe(200)
    expect((await seatAs(cookie)).class.task).toEqual({ kind: 'page', page, seed: 9, test: false })
    const right = askPage(page, 9 + told.seat.number).map(q => q.answers.findIndex(a => a.right))
    const hand = async (task: number, chosen: number[]) =>
      (await ask(product, 'POST', 'seat/results', { cookie, body: { kind: 'page', task, chosen } })).body
    expect(await hand(1, right.slice(0, 1))).toEqual({ kind: 'page', name: 'Our bench', right: 1, of: 3 })
    expect(await hand(1, right)).toEqual({ kind: 'page', name: 'Our bench', right: 3, of: 3 })
    // As a test it counts as it was first handed in.
    await give(true)
    expect(await hand(2, right.slice(0, 2))).toMatchObject({ right: 2 })
    expect(await hand(2, right)).toMatchObject({ right: 2 })
    const table = await fetch(`${product.url}/api/classes/${id}/results`, { headers: { cookie: member } })
    expect(await table.text()).toContain('1,Ole,2,page,Our bench,,2,3')
  })
  it('is refused where a question has no wrong answer, or two that say the same', async () => {
    const keep = (question: object) => ask(product, 'PUT', `library/page/${randomUUID()}`, {
      cookie: member, body: { body: { ...page, questions: [{ ...page.questions[0], ...question }] }, revision: 0 },
    })
    expect((await keep({ wrong: [] })).body.data!.sentence).toBe('A question needs a wrong answer too.')
    expect((await keep({ wrong: [{ words: ' yes ', why: '' }] })).body.data!.sentence).toBe('Two answers say the same.')
  })
})

describe('a real kit', () => {
  it('is begun, weighed and filled by its seat alone, which stands in the record by its number', async () => {
    const { id, code } = await opened('Kits'), one = await join(code, 'Zoe'), two = await join(code, 'Yan')
    expect((await ask(product, 'POST', 'seat/kit', { cookie: one.cookie })).status).toBe(409)
    await packed(id)
    const begun = (await ask(product, 'POST', 'seat/kit', { cookie: one.cookie })).body as unknown as SeatAnswer
    expect(begun.kit).toMatchObject({ begun: true, colour: 'white' })
    expect(begun.kit!.run.plan.name).toMatch(/^Kit 1, white: /)
    // Packed anew, what is begun stays what it was.
    await packed(id, { name: 'Another kit' })
    expect((await seatAs(two.cookie)).kit!.run.plan.name).toContain('Another kit')
    expect((await seatAs(one.cookie)).kit!.run).toEqual(begun.kit!.run)
    expect(JSON.stringify(begun.kit!.run)).not.toMatch(/"(cost|price|wear)":/)
    expect((await seatAs(two.cookie)).kit).toMatchObject({ begun: false, colour: 'slate' })
    const wrong = entry('judged', { cast: '1.1', verdict: 'good', defects: [], note: '' })
    const sent = await send(one.cookie, entry('weighed', { what: 'water', mass: 0.4, how: 'scale' }), wrong)
    expect(sent.body.fates).toMatchObject([{ fate: 'stored' }, { fate: 'refused', sentence: 'That is told by your teacher.' }])
    expect((await send(two.cookie, entry('mark', { sign: 'lumps' }))).status).toBe(404)
    const record = await ask(product, 'GET', `pours/${begun.kit!.pour}`, { cookie: member })
    expect(JSON.stringify(record.body)).toContain('"actor":"seat 1"')
    expect(JSON.stringify(record.body)).not.toContain('Zoe')
    await send(one.cookie, entry('stage', { stage: 'sift' }), entry('stage', { stage: 'fill' }), entry('filled', { cast: '1.1' }))
    expect((await classAs(id)).all[0]!.kit).toMatchObject({ begun: true, casts: expect.arrayContaining([expect.objectContaining({ id: '1.1' })]) as unknown })
  })

  it('without a phone goes with all others through the step that is led', async () => {
    const { id } = await opened('No phones')
    await ask(product, 'POST', `classes/${id}/seats`, { cookie: member, body: { names: ['Kit', 'Lou'] } })
    await packed(id)
    for (let step = 0; step < 7; step++)
      expect((await ask(product, 'POST', `classes/${id}/lead`, { cookie: member, body: { step } })).status).toBe(200)
    const { all, kit } = await classAs(id)
    expect(kit!.led).toBe(6)
    for (const seat of all) {
      const { body } = await ask(product, 'GET', `pours/${seat.kit!.pour}`, { cookie: member })
      const kinds = (body.events as { kind: string }[]).map(e => e.kind)
      expect([kinds.filter(k => k === 'stage').length, kinds.filter(k => k === 'filled').length]).toEqual([7, 3])
    }
    const labels = await fetch(`${product.url}/api/classes/${id}/labels`, { headers: { cookie: member } })
    expect([labels.status, labels.headers.get('content-type')]).toEqual([200, 'application/pdf'])
  })
})

describe('a class that is deleted', () => {
  it('takes names and results with it, by hand or a week after it is over, and leaves what was poured', async () => {
    const { db } = connect(product.databaseUrl)
    const { id, code } = await opened('Gone'), { cookie } = await join(code, 'Unmistakable')
    await packed(id)
    const { kit } = (await ask(product, 'POST', 'seat/kit', { cookie })).body as unknown as SeatAnswer
    expect((await ask(product, 'DELETE', `classes/${id}`, { cookie: member })).status).toBe(200)
    expect((await ask(product, 'GET', 'seat', { cookie })).status).toBe(401)
    expect((await ask(product, 'GET', `pours/${kit!.pour}`, { cookie: member })).status).toBe(200)
    const kept = await opened('Kept'), old = await opened('Old')
    await ask(product, 'PATCH', `classes/${kept.id}`, { cookie: member, body: { kept: true } })
    const longAgo = new Date(Date.now() - 8 * 86_400_000)
    await db.updateTable('classroom').set({ ends_at: longAgo }).where('id', 'in', [kept.id, old.id]).execute()
    await tidy(db)
    const left = await db.selectFrom('classroom').select('name').execute()
    expect(left.map(l => l.name)).toEqual(expect.arrayContaining(['Kept']))
    expect(left.map(l => l.name)).not.toContain('Old')
    const { rows } = await db.executeQuery<{ n: number }>(
      (await import('kysely')).sql`select count(*)::int as n from seat where name = 'Unmistakable'`.compile(db))
    expect(rows[0]!.n).toBe(0)
    await db.destroy()
  })
})

describe('what is heard', () => {
  it('by a seat is that its own class changed, never more; it ends when the seat does', async () => {
    const { id, code } = await opened('Heard'), other = await opened('Elsewhere'), { cookie, told } = await join(code, 'Eva')
    const stream = await fetch(`${product.url}/api/seat/live`, { headers: { cookie } })
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
    let text = ''
    const until = async (pattern: RegExp) => {
      while (!pattern.test(text)) {
        const { value, done } = await reader.read()
        if (done) return 'ended'
        text += value
      }
      return text
    }
    await until(/hello/)
    await ask(product, 'PATCH', `classes/${other.id}`, { cookie: member, body: { paused: true } })
    await ask(product, 'PATCH', `classes/${id}`, { cookie: member, body: { paused: true } })
    await until(/"what":"class"/)
    expect(text).not.toContain(other.id)
    await ask(product, 'DELETE', `classes/${id}/seats/${told.seat.id}`, { cookie: member })
    expect(await until(/never/)).toBe('ended')
  })
})
