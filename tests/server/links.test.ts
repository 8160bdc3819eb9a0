import { randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import Papa from 'papaparse'
import { PDFDocument } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import { endOf } from './bringing'
import { ask, demo, ids, member, overHttp, owner, product, stage, start, viewer } from './over-http'

/** What leaves the workshop: links, calendars, tables and labels, each read by an independent parser. */
overHttp({ demo: true })

interface SeenJob {
  id: string
  name: string
  steps: { id: string }[]
  pours: { step: string, wetAt: number }[]
}

describe('links', () => {
  const made: { id: string, token: string }[] = []
  const link = async (kind: string, name: string, cookie = owner) =>
    ask(product, 'POST', 'links', { cookie, body: { kind, name } })

  it('are made by an owner; the secret is told once and nowhere again', async () => {
    expect((await link('wall', 'Class', member)).status).toBe(403)
    expect((await link('wall', '')).body.data?.sentence).toBe('Say what the link is for.')
    const { body } = await link('wall', 'Class')
    made.push(body as unknown as typeof made[number])
    expect(body.token).toMatch(/^[\w-]{43}$/)
    const list = await ask(product, 'GET', 'links', { cookie: member })
    expect(JSON.stringify(list.body)).toContain('Class')
    expect(JSON.stringify(list.body)).not.toContain(body.token as string)
  })

  it('a wall sees live pours without people or notes, and only by its own kind of link', async () => {
    const { body: pour } = await start(member), id = pour.id as string
    await ask(product, 'POST', `pours/${id}/events`, {
      cookie: member,
      body: {
        sentAt: Date.now(),
        events: [stage('weigh'), { ...stage('weigh'), kind: 'note', data: { text: 'kept from the class' } }],
      },
    })
    const wall = await ask(product, 'GET', `wall/${made[0]!.token}`)
    const seen = (wall.body.pours as { id: string, events: { kind: string, actor: string, device: string }[] }[]).find(
      p => p.id === id,
    )!
    expect(seen.events.map(e => [e.kind, e.actor, e.device])).toEqual([['stage', '', ''], ['stage', '', '']])
    expect(JSON.stringify(wall.body)).not.toMatch(/kept from the class|example\.org|startedBy|"(cost|price|life|wear|storage|note)"/)
    const calendar = await link('calendar', 'Mine')
    expect((await ask(product, 'GET', `wall/${calendar.body.token as string}`)).status).toBe(404)
    expect((await ask(product, 'GET', `wall/${'A'.repeat(43)}`)).status).toBe(404)
    expect((await ask(product, 'GET', 'wall/short')).status).toBe(400)
  })

  it('a wall sees the jobs that were begun: their steps and what is expected of their pours, and no note', async () => {
    const { cookie } = await ask(demo, 'POST', 'demo-entrance')
    const library = (await ask(demo, 'GET', 'library/job', { cookie })).body as unknown as { id: string, body: { name: string, note: string } }[]
    const { body: wall } = await ask(demo, 'POST', 'links', { cookie, body: { kind: 'wall', name: 'By the sink' } })
    const { body } = await ask(demo, 'GET', `wall/${wall.token as string}`)
    const jobs = body.jobs as SeenJob[]
    const halves = jobs.find(j => j.name === 'Lantern base, a mould in two halves')!
    expect(library.map(j => j.id)).toContain(halves.id)
    expect(halves.pours.length).toBeGreaterThan(0)
    for (const { step, wetAt } of halves.pours) {
      expect(halves.steps.map(s => s.id)).toContain(step)
      expect(wetAt).toBeLessThan(Date.now())
    }
    expect(JSON.stringify(jobs)).not.toMatch(/"(note|plan|pour)":/)
  })

  it('are taken back by an owner: from then on they open nothing, and a display that stands open is ended', async () => {
    const stream = await fetch(`${product.url}/api/wall/${made[0]!.token}/live`),
      reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
    expect((await reader.read()).value).toContain('hello')
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: member })).status).toBe(403)
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: owner })).status).toBe(200)
    for (;;) if ((await reader.read()).done) break
    expect((await ask(product, 'GET', `wall/${made[0]!.token}`)).body.data?.sentence).toBe(
      'This link was taken back. Ask for a new one.',
    )
    expect((await ask(product, 'DELETE', `links/${made[0]!.id}`, { cookie: owner })).status).toBe(404)
  })
})

describe('the logbook as a table', () => {
  it('is read by an independent parser: a line for every cast of every pour, what was judged in it, and no formula', async () => {
    const cookie = (await ask(demo, 'POST', 'demo-entrance')).cookie
    const text = await (await fetch(`${demo.url}/api/logbook`, { headers: { cookie } })).text()
    const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: true,
    })
    expect(errors).toEqual([])
    const pours = (await ask(demo, 'GET', 'pours', { cookie })).body as unknown as {
      summary: { moulds: { count: number }[] }
    }[]
    expect(data).toHaveLength(pours.flatMap(p => p.summary.moulds).reduce((n, m) => n + m.count, 0))
    expect(data.filter(r => r.defects === 'soft or chalky' && r.verdict === 'second')).toHaveLength(3)
    expect(data.every(r => Object.values(r).every(v => !/^[=+@]/.test(v)))).toBe(true)
    expect((await fetch(`${demo.url}/api/logbook`)).status).toBe(401)
  })
})

describe('calendars', () => {
  it('an independent parser reads the moments to come; the same moment keeps its id; a wall’s link opens none', async () => {
    const cookie = (await ask(demo, 'POST', 'demo-entrance')).cookie
    const { body: link } = await ask(demo, 'POST', 'links', { cookie, body: { kind: 'calendar', name: 'Mine' } })
    const read = async () => {
      const response = await fetch(`${demo.url}/api/calendar/${link.token as string}.ics`)
      expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
      return new ICAL.Component(ICAL.parse(await response.text()) as unknown as string).getAllSubcomponents('vevent')
        .map(v => new ICAL.Event(v))
    }
    const events = await read(),
      casts = (await ask(demo, 'GET', 'casts', { cookie })).body as unknown as {
        pour: string
        cast: { status: string, openFrom: number, openTo: number, label: string }
      }[]
    const bell = casts.find(c =>
      c.cast.status === 'setting' && c.cast.label === 'Bell-pull 1' && c.cast.openTo - Date.now() > -3_600_000,
    )!
    const opening = events.find(e => e.summary === 'Open: 12 × Bell-pull')!
    expect([opening.startDate.toJSDate().getTime(), opening.endDate.toJSDate().getTime()]).toEqual(
      [bell.cast.openFrom, bell.cast.openTo].map(t => Math.floor(t / 1000) * 1000),
    )
    expect(events.some(e => /dry enough to/.test(e.summary))).toBe(true)
    // A job's next act stands among them, for as long as it may be begun.
    const clay = events.find(e => e.summary === 'Clay out: Lantern base, a mould in two halves')!
    expect(clay.endDate.toJSDate().getTime() - clay.startDate.toJSDate().getTime()).toBeGreaterThan(3_600_000)
    expect((await read()).map(e => e.uid)).toEqual(events.map(e => e.uid))
    expect(new Set(events.map(e => e.uid)).size).toBe(events.length)
    const { body: wall } = await ask(demo, 'POST', 'links', { cookie, body: { kind: 'wall', name: 'Class' } })
    expect((await fetch(`${demo.url}/api/calendar/${wall.token as string}.ics`)).status).toBe(404)
    expect((await fetch(`${demo.url}/api/calendar`)).status).toBe(401)
  })
})

describe('the logbook over HTTP', () => {
  it('takes what is looked for from the address, one fact or several, and says what is wrong with it', async () => {
    const { cookie } = await ask(demo, 'POST', 'demo-entrance'),
      get = (path: string) => ask(demo, 'GET', `logbook/${path}`, { cookie })
    expect((await get('pours?find=tiles&facts=verdict:second')).body.count).toBe(1)
    expect((await get('pours?facts=verdict:second&facts=defect:soft')).body.count).toBe(1)
    expect((await get('pours?from=soon')).body.data?.sentence).toBe('A month is a year and a number, like 2026-11.')
    for (const bad of ['pours?after=1', 'pours?facts=%27', 'set-times?bag=1']) expect((await get(bad)).status).toBe(400)
    const view = randomUUID()
    expect(
      (await ask(demo, 'PUT', `logbook/views/${view}`, { cookie, body: { name: ' ', query: {} } })).body.data?.sentence,
    ).toBe('Give the view a name.')
    expect((await ask(demo, 'PUT', `logbook/views/${view}`, { cookie, body: { name: 'All', query: {} } })).status).toBe(
      200,
    )
    expect((await ask(demo, 'DELETE', `logbook/views/${view}`, { cookie })).status).toBe(200)
    expect((await ask(demo, 'DELETE', `logbook/views/${view}`, { cookie })).status).toBe(404)
  })

  it('a row that cannot be taken in is named by its place; a file that is no archive is refused in words', async () => {
    const row = {
      date: '2024-05-03',
      mould: ids.moulds.lantern,
      pieces: 1,
      classId: 'casting-plaster',
      defects: [],
      note: '',
    }
    const begin = await ask(product, 'POST', 'import', {
      cookie: member,
      body: { kind: 'pours', rows: [row, { ...row, mould: randomUUID() }] },
    })
    expect(await endOf(product, member, begin.body.id as string)).toMatchObject({
      state: 'refused', things: 0, fault: { sentence: 'This mould is not in the library any more.', field: 'rows.1' },
    })
    const archive = await ask(product, 'POST', 'archive', {
      cookie: owner,
      body: 'no archive',
      headers: { 'content-type': 'application/zip' },
    })
    expect(await endOf(product, owner, archive.body.id as string)).toMatchObject({
      state: 'refused', fault: { sentence: expect.stringMatching(/not a whole archive/) as string },
    })
  })
})

describe('labels', () => {
  it('print as a PDF with as many pages as they need, and their codes open the pour they belong to, in its own workshop only', async () => {
    const { body: pour } = await start(member), id = pour.id as string
    await ask(product, 'POST', `pours/${id}/events`, {
      cookie: member,
      body: {
        sentAt: Date.now(),
        events: ['sift', 'clean-up'].map((s, i) => ({ ...stage(s), happenedAt: Date.now() + i * 1000 })),
      },
    })
    const response = await fetch(`${product.url}/api/pours/${id}/labels`, { headers: { cookie: viewer } })
    expect(response.headers.get('content-type')).toBe('application/pdf')
    const pdf = await PDFDocument.load(await response.arrayBuffer())
    expect([pdf.getTitle(), pdf.getPageCount()]).toEqual(['Labels: Six lantern bases', 1])
    const code = `${id.slice(0, 8)}-1.1`
    expect((await ask(product, 'GET', `labels/${code.toUpperCase()}`, { cookie: viewer })).body.things).toEqual([{
      what: 'cast',
      id,
      cast: '1.1',
      name: expect.stringContaining('Lantern base 1, Six lantern bases'),
    }])
    const elsewhere = (await ask(demo, 'POST', 'demo-entrance')).cookie
    expect((await ask(demo, 'GET', `labels/${code}`, { cookie: elsewhere })).status).toBe(404)
    expect((await ask(product, 'GET', 'labels/no-code', { cookie: viewer })).body.data?.sentence).toMatch(
      /^That is no code of a label/,
    )
    const bags = await PDFDocument.load(
      await (await fetch(`${demo.url}/api/labels/bags`, { headers: { cookie: elsewhere } })).arrayBuffer(),
    )
    expect(bags.getPageCount()).toBe(1)
  })
})
