/**
 * Prints "name passed failed" from a Vitest or Playwright JSON report. No report, or a failed exit without a failed
 * test, counts as one failure.
 */
import { readFileSync } from 'node:fs'

const [name, file, exit] = process.argv.slice(2)
let passed = 0
let failed = 0
try {
  const report = JSON.parse(readFileSync(file, 'utf8'))
  passed = report.numPassedTests ?? report.stats.expected + report.stats.flaky
  failed = report.numFailedTests ?? report.stats.unexpected + report.stats.skipped
} catch {
  failed = 1
}
if (exit !== '0' && failed === 0) failed = 1
console.log(name, passed, failed)
