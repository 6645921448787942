/**
 * Prints "name passed failed" from a Vitest or Playwright JSON report, and to stderr what failed, in few lines each.
 * No report, or a failed exit without a failed test, counts as one failure: the end of the log tells then.
 */
import { readFileSync } from 'node:fs'
import { stripVTControlCharacters } from 'node:util'

const LINES = 12
const [name, file, exit] = process.argv.slice(2)
const inFile = f => f.name.replace(/^.*\/tests\//, 'tests/')
const vitest = r =>
  r.testResults.flatMap(f => {
    const bad = f.assertionResults.filter(t => t.status === 'failed')
    if (f.status === 'failed' && bad.length === 0) return [{ title: inFile(f), says: [f.message] }]
    return bad.map(t => ({ title: `${inFile(f)} › ${t.fullName}`, says: t.failureMessages }))
  })
const specs = s => [...(s.specs ?? []), ...(s.suites ?? []).flatMap(specs)]
const playwright = r =>
  specs(r)
    .filter(s => !s.ok)
    .map(s => ({
      title: `${s.file}:${s.line} › ${s.title}`,
      says: s.tests.flatMap(t => t.results).flatMap(t => t.errors.map(e => e.message)),
    }))

let passed = 0
let failed = 0
let wrong = []
try {
  const report = JSON.parse(readFileSync(file, 'utf8'))
  passed = report.numPassedTests ?? report.stats.expected + report.stats.flaky
  failed = report.numFailedTests ?? report.stats.unexpected + report.stats.skipped
  wrong = report.testResults ? vitest(report) : playwright(report)
} catch {
  failed = 1
}
for (const { title, says } of wrong)
  console.error(
    `  × ${title}\n${stripVTControlCharacters(says.join('\n'))
      .split('\n')
      .slice(0, LINES)
      .map(l => `      ${l}\n`)
      .join('')}`,
  )
if (exit !== '0' && failed === 0) failed = 1
if (exit !== '0' && wrong.length === 0)
  console.error(readFileSync(file.replace(/json$/, 'log'), 'utf8').split('\n').slice(-60).join('\n'))
console.log(name, passed, failed)
