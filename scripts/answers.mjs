// Whether the application still answers as it did: asks a hundred questions of each kind, writes down the answers, and later asks the same again.
//   node scripts/answers.mjs record  http://127.0.0.1:5080 before.jsonl [how many of each kind]
//   node scripts/answers.mjs compare http://127.0.0.1:5080 before.jsonl
// Every difference is told with the question and where in the answer it lies; a frame written down is put in, asked for and taken out again.
import { createReadStream, createWriteStream } from 'node:fs'
import { createInterface } from 'node:readline'

const [command, address, file, many = '100'] = process.argv.slice(2)
if (!['record', 'compare'].includes(command) || !address || !file) {
  console.error('usage: node scripts/answers.mjs record|compare ADDRESS FILE [how many]')
  process.exit(2)
}

// ---- Asking -----------------------------------------------------------------------------------------------------

const answersOf = { 'text/event-stream': lastEvent }

/** Of a stream only the last event counts: how far it was on the way depends on the machine. */
async function lastEvent(response) {
  const events = (await response.text()).split('\n\n').filter((e) => e.includes('data:'))
  return JSON.parse(events.at(-1).replace(/^[\s\S]*?data: ?/, ''))
}

async function send(method, path, body) {
  const response = await fetch(address + path, {
    method, headers: body === undefined ? {} : { 'Content-Type': 'application/json' }, body: body === undefined ? undefined : JSON.stringify(body),
  })
  const type = response.headers.get('content-type')?.split(';')[0] ?? ''
  const answer = answersOf[type] ? await answersOf[type](response) : type.endsWith('json') ? await response.json() : await response.text()
  return { status: response.status, answer }
}

/** What is put in gets an id and a time of its own each time; how much work an answer took is no part of it. */
const passing = new Set(['id', 'createdAt', 'updatedAt', 'version', 'examined', 'strokes', 'traceId'])

/** Of figures that differ by rounding alone: a stroke into the pack carries the last place of a double to a micrometre. */
const tolerance = 1e-5

async function ask({ method, path, body, then = [] }) {
  const first = await send(method, path, body)
  const answers = [first]
  const id = first.answer?.id
  if (id) {
    for (const next of then) answers.push(await send('GET', `${path}/${id}${next}`))
    await send('DELETE', `${path}/${id}`)
  }
  return answers
}

// ---- Questions --------------------------------------------------------------------------------------------------

function random(seed) {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const colours = ['yellow', 'green', 'brown', 'blue', 'pink', 'black']
const pockets = ['yellow', 'green', 'yellow-middle', 'green-middle', 'yellow-top', 'green-top']
const skills = ['tour', 'county', 'club', 'learner']

class Questions {
  constructor(seed, reference, demo) {
    this.next = random(seed)
    Object.assign(this, { reference, demo })
  }

  between = (low, high) => low + (high - low) * this.next()
  whole = (low, high) => Math.floor(this.between(low, high + 1))
  one = (list) => list[this.whole(0, list.length - 1)]
  chance = (share) => this.next() < share
  round = (x, digits = 4) => Number(x.toFixed(digits))

  place(balls) {
    const { length, width, ballRadius: r } = this.reference
    for (;;) {
      const [x, y] = [this.round(this.between(0.06, length - 0.06)), this.round(this.between(r, width - r))]
      const mouth = Math.abs(x - length / 2) < 0.1 && Math.min(y, width - y) < 0.06
      if (!mouth && balls.every((b) => Math.hypot(b.x - x, b.y - y) > 2 * r + 1e-4)) return { x, y }
    }
  }

  /** A table: colours, most on their spots, reds anywhere, or late in a frame; or one of the demo's. */
  balls(mostReds = 15) {
    const reds = this.chance(0.25) ? 0 : this.whole(1, mostReds)
    const left = reds > 0 ? colours : colours.slice(this.whole(0, 5))
    const balls = left.map((id) => ({ id, ...this.reference.spots.find((s) => s.ball === id) })).map(({ id, x, y }) => ({ id, x, y }))
    for (const ball of balls) if (this.chance(0.15)) Object.assign(ball, this.place(balls.filter((b) => b !== ball)))
    for (let i = 1; i <= reds; i++) balls.push({ id: `red-${i}`, ...this.place(balls) })
    return [{ id: 'white', ...this.place(balls) }, ...balls]
  }

  stroke(balls, withPot) {
    const most = this.reference.tipLimit * 0.9
    const height = this.round(this.between(-most, most), 2)
    const side = this.chance(0.5) ? 0 : this.round(this.between(-1, 1) * Math.sqrt(most * most - height * height), 2)
    const stroke = { aim: this.round(this.between(-180, 180), 2), side, height, pace: this.round(this.between(2, 8.5), 1), elevation: this.chance(0.8) ? 0 : this.whole(5, 40) }
    return withPot ? { ...stroke, pot: { ball: this.one(balls.slice(1)).id, pocket: this.one(pockets), part: this.one([0, 0, 0, -1, 1]) } } : stroke
  }

  frame(balls) {
    const reds = balls.filter((b) => b.id.startsWith('red')).length
    const on = reds === 0 ? colours.find((c) => balls.some((b) => b.id === c)) : this.chance(0.3) ? 'colour' : 'red'
    const made = on === 'colour' ? 1 : 0
    return { on, first: this.whole(made, 60), second: this.whole(0, 60), turn: 0, break: made, freeBall: on !== 'colour' && this.chance(0.1) }
  }

  content({ reds = 15, withPot = this.chance(0.8), demo = 0.3 } = {}) {
    const known = this.one(this.demo).content
    if (this.chance(demo) && (!withPot || known.stroke.pot)) return known
    const balls = this.balls(reds)
    return { balls, stroke: this.stroke(balls, withPot), conditions: this.conditions(), frame: this.chance(0.6) ? this.frame(balls) : null }
  }

  /** A content whose pot has an aim. */
  async aimed(options) {
    for (;;) {
      const content = this.content({ ...options, withPot: true })
      const { answer } = await send('POST', '/api/shot', { content })
      if (answer.cut?.allowanceDegrees !== null && answer.cut?.allowanceDegrees !== undefined) return content
    }
  }

  conditions() {
    return this.chance(0.7) ? {} : { rollingFriction: this.round(this.between(0.009, 0.018)), cushionRestitution: this.round(this.between(0.85, 1)) }
  }

  player() {
    return { hand: this.one(['right', 'left']), height: this.round(this.between(1.5, 1.95), 2), skill: this.one(skills), sideHabit: 'plain' }
  }

  goal(content) {
    const other = content.balls.find((b) => b.id !== 'white' && b.id !== content.stroke.pot.ball)
    return other && this.chance(0.3) ? { ball: other.id } : { x: this.round(this.between(0.2, 3.3)), y: this.round(this.between(0.2, 1.5)), radius: 0.15 }
  }

  /** A frame as somebody might write it down, each shot taken from what the application says may come. */
  async story() {
    const shots = []
    for (let n = this.whole(5, 45); shots.length < n; ) {
      const { answer, status } = await send('POST', '/api/frames', { title: 'A', shots })
      if (status !== 201) throw new Error(JSON.stringify(answer))
      await send('DELETE', `/api/frames/${answer.id}`)
      const state = answer.story.state
      if (state.isOver) break
      const kind = this.one(['pot', 'pot', 'pot', 'pot', 'miss', 'safety', 'foul'])
      shots.push(kind === 'pot' ? { kind, potted: [this.one(state.mayPot)], tags: this.chance(0.3) ? [this.one(['screw', 'follow', 'side'])] : [] }
        : kind !== 'foul' ? { kind, why: this.one([null, 'thick', 'tooHard']) }
        : { kind, penalty: this.one(state.penalties), inOff: this.chance(0.3), redsLost: state.reds > 0 && this.chance(0.2) ? 1 : 0, freeBall: this.chance(0.2), playAgain: this.chance(0.2) })
    }
    return shots
  }

  kinds = {
    simulate: () => {
      const balls = this.balls()
      const { aim, elevation } = this.stroke(balls, false)
      return { path: '/api/simulate', body: { balls, strike: { aim, cueSpeed: this.round(this.between(0.5, 7.5), 2), side: this.round(this.between(-0.3, 0.3), 2), height: this.round(this.between(-0.35, 0.35), 2), elevation }, conditions: this.conditions() } }
    },
    shot: () => ({ path: '/api/shot', body: { content: this.content(), player: this.player() } }),
    place: () => {
      const balls = this.balls()
      return { path: '/api/place', body: { balls, ball: this.one(balls).id, x: this.round(this.between(-0.2, 3.8)), y: this.round(this.between(-0.2, 2)), inD: this.chance(0.2) } }
    },
    read: () => ({ path: '/api/read', body: { content: this.content(), player: this.player() } }),
    spread: () => ({ path: '/api/spread', body: { content: this.content(), player: this.player() } }),
    sides: () => ({ path: '/api/sides', body: { content: this.content({ withPot: true }), player: this.player() } }),
    fan: () => ({ path: '/api/fan', body: { content: this.content({ withPot: true }), kind: this.one(['routes', 'paces', 'heights', 'sides']) } }),
    ways: async () => {
      const content = await this.aimed()
      return { path: '/api/ways', body: { content, player: this.player(), goal: this.goal(content) } }
    },
    plan: () => ({ path: '/api/plan', body: { content: this.content({ reds: 5, demo: 0.05 }), player: this.player(), preferences: { risk: this.one(['careful', 'balanced', 'bold']), plainOnly: this.chance(0.2) } } }),
    frame: () => ({ path: '/api/frame', body: { content: this.content() } }),
    positionMap: () => ({ path: '/api/position-map', body: { content: this.content(), player: this.player(), afterPot: this.chance(0.5) } }),
    positionAt: () => ({ path: '/api/position-at', body: { content: this.content(), player: this.player(), x: this.round(this.between(0, 3.5)), y: this.round(this.between(0, 1.7)) } }),
    playOn: () => ({ path: '/api/play-on', body: { content: this.content(), missed: this.chance(0.7) ? null : this.one(['thick', 'thin']) } }),
    decide: () => ({ path: '/api/decide', body: { content: this.content(), player: this.player(), rival: this.one(skills) } }),
    leave: () => ({ path: '/api/leave', body: { content: this.content(), player: this.player(), rival: this.one(skills) } }),
    blackBall: () => ({ path: '/api/black-ball', body: { conditions: this.conditions(), player: this.player(), rival: this.one(skills) } }),
    correct: () => {
      const content = this.content({ withPot: false, demo: 0 })
      return { path: '/api/escape/correct', body: { content, ball: content.balls[1].id, ...(this.chance(0.5) ? { passed: this.round(this.between(-0.3, 0.3)) } : { along: this.round(this.between(-0.2, 0.2)) }) } }
    },
    table: () => ({ path: '/api/table', body: { conditions: { cornerGap: this.round(this.between(0.08, 0.092)), middleGap: this.round(this.between(0.09, 0.104)) } } }),
    exportJson: () => ({ path: '/api/positions/export/json', body: { name: 'A', content: this.content() } }),
    exportSvg: () => ({ path: '/api/positions/export/svg', body: { name: 'A', content: this.content() } }),
    frames: async () => ({ path: '/api/frames', body: { title: 'A', shots: await this.story() }, then: ['', '/export/csv', '/export/json'] }),
  }
}

/** Fewer of what takes many seconds each. */
const fewest = { blackBall: 0.16 }

async function* questions() {
  const reference = (await send('GET', '/api/reference')).answer
  const demo = []
  for (const { id } of (await send('GET', '/api/positions')).answer) demo.push((await send('GET', `/api/positions/${id}`)).answer)
  for (const [k, kind] of Object.keys(new Questions(0, reference, demo).kinds).entries()) {
    const q = new Questions(1000 + k, reference, demo)
    for (let i = 0; i < Math.ceil(Number(many) * (fewest[kind] ?? 1)); i++) yield { kind, method: 'POST', ...(await q.kinds[kind]()) }
  }
}

// ---- The two commands -------------------------------------------------------------------------------------------

async function record() {
  const out = createWriteStream(file)
  let n = 0
  for await (const question of questions()) {
    out.write(JSON.stringify({ question, answers: await ask(question) }) + '\n')
    if (++n % 100 === 0) console.error(`${n} recorded, now ${question.kind}`)
  }
  await new Promise((done) => out.end(done))
}

/** Where two answers differ, as paths. */
function* differences(before, after, path = '') {
  if (typeof before === 'number' && typeof after === 'number') {
    if (Math.abs(before - after) > tolerance * Math.max(1, Math.abs(before))) yield `${path}: ${before} → ${after}`
  } else if (before && after && typeof before === 'object' && typeof after === 'object') {
    for (const key of Object.keys(before)) if (!passing.has(key)) yield* differences(before[key], after[key], `${path}/${key}`)
  } else if (before !== after) yield `${path}: ${JSON.stringify(before)?.slice(0, 80)} → ${JSON.stringify(after)?.slice(0, 80)}`
}

async function compare() {
  const tally = {}
  for await (const line of createInterface({ input: createReadStream(file) })) {
    const { question, answers } = JSON.parse(line)
    const kind = (tally[question.kind] ??= { asked: 0, different: 0 })
    kind.asked++
    const [first] = differences(answers, await ask(question))
    if (first === undefined) continue
    kind.different++
    if (kind.different <= 5) console.log(`${question.kind} ${kind.asked} ${first}\n  ${JSON.stringify(question.body).slice(0, Number(process.env.SHOW ?? 300))}`)
  }
  console.table(tally)
  process.exit(Object.values(tally).some((t) => t.different) ? 1 : 0)
}

await (command === 'record' ? record() : compare())
