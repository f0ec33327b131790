// Speed as the user of the page has it. Open the demo at the table, in the step Shot, run this in the browser's console, and wait for the
// table it prints (two minutes). First load: compressed scripts and styles, and the first path. A dragged control: from its event until the
// redrawn path has been painted, plain and with every aid on; tasks that keep the page from answering; what a drag asks of the server; a ball
// dragged while the server takes 1.5 s. Put it there: first and last answer, and how long a cancelled search keeps the next one waiting.
// Plan: first answer, four shots deep, all, and how soon another can begin once one is dropped.
;(async () => {
  const at = (id) => document.querySelector(`[data-testid=${id}]`)
  const rested = (ms) => new Promise((done) => setTimeout(done, ms))
  const painted = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
  const until = async (is, ms = 10000) => {
    const end = performance.now() + ms
    while (!is()) {
      if (performance.now() > end) throw new Error(`waited ${ms} ms for ${is}`)
      await new Promise((r) => setTimeout(r, 2))
    }
  }
  const quantile = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))]
  const results = {}

  const loaded = performance.getEntriesByType('resource').filter((e) => e.startTime < (performance.getEntriesByName('first-path')[0]?.startTime ?? 1e9))
  const kilobytes = (ending) => loaded.filter((e) => new URL(e.name).pathname.endsWith(ending)).reduce((sum, e) => sum + e.encodedBodySize, 0) / 1000
  Object.assign(results, { scriptsKb: kilobytes('.js'), stylesKb: kilobytes('.css'), firstPathMs: performance.getEntriesByName('first-path')[0]?.startTime })

  const long = []
  new PerformanceObserver((list) => long.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' })
  const asked = []
  const fetched = window.fetch
  window.fetch = (request, ...rest) => (asked.push(new URL(request.url ?? request, location).pathname), fetched(request, ...rest))

  const pace = document.querySelector('[data-testid=pace] [role=slider]')
  const press = (key) => pace.dispatchEvent(new KeyboardEvent('keydown', { key, code: key, bubbles: true, cancelable: true }))
  async function dragControl(name) {
    const times = []
    long.length = asked.length = 0
    for (let i = 0; i < 110; i++) {
      const before = at('white-after').getAttribute('d')
      const from = performance.now()
      press(i % 8 < 4 ? 'ArrowRight' : 'ArrowLeft')
      await until(() => at('white-after').getAttribute('d') !== before)
      await painted()
      if (i >= 10) times.push(performance.now() - from)
    }
    Object.assign(results, {
      [`${name}MedianMs`]: quantile(times, 0.5),
      [`${name}P95Ms`]: quantile(times, 0.95),
      [`${name}LongestTaskMs`]: Math.max(0, ...long),
      [`${name}Spreads`]: asked.filter((path) => path === '/api/spread').length,
    })
    await rested(1500)
  }
  await dragControl('drag')
  const aids = ['fan-routes', 'spread']
  for (const aid of aids) at(aid).click()
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'm', bubbles: true }))
  await rested(3000)
  await dragControl('allAids')
  for (const aid of ['fan-none', 'spread']) at(aid).click()
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'm', bubbles: true }))
  await rested(500)

  // A ball in the hand, whatever the server takes: from the pointer's move until it is drawn there.
  window.fetch = async (...all) => (await rested(1500), fetched(...all))
  const plan = at('plan')
  const ball = () => document.querySelector('[data-ball=white]')
  const place = () => ball().getBoundingClientRect()
  const [x, y] = [place().x + place().width / 2, place().y + place().height / 2]
  const point = (kind, dx) => plan.dispatchEvent(new PointerEvent(kind, { clientX: x + dx, clientY: y, button: 0, pointerId: 1, bubbles: true, cancelable: true }))
  plan.setPointerCapture = () => {}
  const followed = []
  point('pointerdown', 0)
  for (let dx = 8; dx <= 80; dx += 4) {
    const before = ball().getAttribute('transform')
    const from = performance.now()
    point('pointermove', dx)
    await until(() => ball().getAttribute('transform') !== before)
    await painted()
    followed.push(performance.now() - from)
  }
  point('pointerup', 80)
  await rested(4000)
  window.fetch = fetched
  await rested(1500)
  at('undo').click()
  results.slowServerFollowsP95Ms = quantile(followed, 0.95)
  await rested(1500)

  const content = () => JSON.parse(sessionStorage.getItem('deep-baize-draft')).draft.content
  const question = (radius) => ({ content: content(), goal: { x: 2.4, y: 0.5, radius } })
  const follow = async (url, asks, signal, tell) => {
    const answer = await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(asks), signal })
    const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
    let text = ''
    for (;;) {
      const { done, value } = await reader.read()
      if (done) return
      const events = (text + value).split('\n\n')
      text = events.pop()
      for (const e of events) tell(JSON.parse(e.slice(e.indexOf('data: ') + 6)))
    }
  }
  const firsts = []
  const alls = []
  for (let i = 0; i < 12; i++) {
    const from = performance.now()
    let first = 0
    await follow('/api/ways', question(0.1 + i / 100), undefined, (told) => {
      if (!first && told.ways.length) first = performance.now() - from
    })
    if (i < 2) continue
    firsts.push(first || performance.now() - from)
    alls.push(performance.now() - from)
  }
  Object.assign(results, { waysFirstMedianMs: quantile(firsts, 0.5), waysFirstMaxMs: Math.max(...firsts), waysAllMedianMs: quantile(alls, 0.5), waysAllMaxMs: Math.max(...alls) })

  // A plain shot alone, and just after four searches have been dropped at once: the difference is what they still take.
  const shot = async () => {
    const from = performance.now()
    await fetch('/api/spread', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ content: content() }) })
    return performance.now() - from
  }
  const alone = []
  const after = []
  for (let i = 0; i < 10; i++) {
    alone.push(await shot())
    const stop = new AbortController()
    const dropped = [0.2, 0.3, 0.4, 0.5].map((r) => follow('/api/ways', question(r), stop.signal, () => {}).catch(() => {}))
    await new Promise((r) => setTimeout(r, 120))
    stop.abort()
    after.push(await shot())
    await Promise.all(dropped)
  }
  results.cancelledCostsMs = quantile(after, 0.95) - quantile(alone, 0.5)

  const plans = { first: [], four: [], all: [], again: [] }
  for (let i = 0; i < 3; i++) {
    const from = performance.now()
    const seen = {}
    await follow('/api/plan', { content: content() }, undefined, (told) => {
      if (told.plans.length) seen.first ??= performance.now() - from
      if (told.plans.some((p) => p.shots.length >= 4 || p.isComplete)) seen.four ??= performance.now() - from
    })
    plans.first.push(seen.first ?? NaN)
    plans.four.push(seen.four ?? NaN)
    plans.all.push(performance.now() - from)
    // One dropped in its midst: the next one's first answer, less what it takes alone, is how long the first held on.
    const stop = new AbortController()
    const dropped = follow('/api/plan', { content: content() }, stop.signal, () => {}).catch(() => {})
    await new Promise((r) => setTimeout(r, 700))
    stop.abort()
    await dropped
    const after = performance.now()
    const next = new AbortController()
    await follow('/api/plan', { content: content() }, next.signal, (told) => {
      if (!told.plans.length || next.signal.aborted) return
      plans.again.push(performance.now() - after)
      next.abort()
    }).catch(() => {})
  }
  for (const [key, list] of Object.entries(plans)) results[`plan${key[0].toUpperCase()}${key.slice(1)}MedianMs`] = quantile(list, 0.5)
  for (const key in results) results[key] = Math.round(results[key] * 10) / 10
  console.table(results)
  window.pageSpeed = results
})()
