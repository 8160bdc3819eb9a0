import { performance } from 'node:perf_hooks'

/** Median and 95 % point of many runs, after warming up; prints a line and returns the median in milliseconds. */
export function measure(title: string, work: (i: number) => unknown, runs: number): number {
  for (let i = 0; i < runs / 5; i++) work(i)
  const times = Array.from({ length: runs }, (_, i) => {
    const before = performance.now()
    work(i)
    return performance.now() - before
  }).sort((a, b) => a - b)
  const median = times[Math.floor(runs / 2)]!
  console.log(
    `${title.padEnd(66)} median ${median.toFixed(2)} ms, 95 % ${times[Math.floor(runs * 0.95)]!.toFixed(2)} ms`,
  )
  return median
}
