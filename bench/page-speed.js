// Speed as the user of the page has it. Open the demo, run this in the browser's console, and wait for the table it prints.
// A dragged control: from its input event until the redrawn path has been painted. Put it there: first and last answer, and how
// long a cancelled search keeps the next one waiting.
;(async () => {
  const at = (id) => document.querySelector(`[data-testid=${id}]`)
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

  const slider = at('pace')
  const start = Number(slider.value)
  const times = []
  for (let i = 0; i < 110; i++) {
    const before = at('white-after').getAttribute('points')
    const from = performance.now()
    slider.value = String(Math.round((start + (i % 2 ? 0.2 : -0.2) + ((i % 7) - 3) / 10) * 10) / 10)
    slider.dispatchEvent(new Event('input'))
    await until(() => at('white-after').getAttribute('points') !== before)
    await painted()
    if (i >= 10) times.push(performance.now() - from)
  }
  slider.value = String(start)
  slider.dispatchEvent(new Event('input'))
  results.dragMedianMs = quantile(times, 0.5)
  results.dragP95Ms = quantile(times, 0.95)

  const body = async (radius) => {
    const kept = JSON.parse(sessionStorage.getItem('deep-baize-draft')).draft.content
    return JSON.stringify({ content: kept, goal: { x: 2.4, y: 0.5, radius } })
  }
  const ask = async (radius, signal, tell) => {
    const answer = await fetch('/api/ways', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: await body(radius), signal })
    const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
    for (;;) {
      const { done, value } = await reader.read()
      if (done) return
      tell(value)
    }
  }
  const firsts = []
  const alls = []
  for (let i = 0; i < 12; i++) {
    const from = performance.now()
    let first = 0
    await ask(0.1 + i / 100, undefined, (text) => {
      if (!first && text.includes('"ways":[{')) first = performance.now() - from
    })
    if (i < 2) continue
    firsts.push(first || performance.now() - from)
    alls.push(performance.now() - from)
  }
  Object.assign(results, { waysFirstMedianMs: quantile(firsts, 0.5), waysFirstMaxMs: Math.max(...firsts), waysAllMedianMs: quantile(alls, 0.5), waysAllMaxMs: Math.max(...alls) })

  // A plain shot alone, and just after four searches have been dropped at once: the difference is what they still take.
  const shot = async () => {
    const from = performance.now()
    await fetch('/api/spread', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ content: JSON.parse(await body(0.1)).content }) })
    return performance.now() - from
  }
  const alone = []
  const after = []
  for (let i = 0; i < 10; i++) {
    alone.push(await shot())
    const stop = new AbortController()
    const dropped = [0.2, 0.3, 0.4, 0.5].map((r) => ask(r, stop.signal, () => {}).catch(() => {}))
    await new Promise((r) => setTimeout(r, 120))
    stop.abort()
    after.push(await shot())
    await Promise.all(dropped)
  }
  results.cancelledCostsMs = quantile(after, 0.95) - quantile(alone, 0.5)
  for (const key in results) results[key] = Math.round(results[key] * 10) / 10
  console.table(results)
  window.pageSpeed = results
})()
