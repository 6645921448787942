import { copyFileSync, existsSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { backUp, dropKept } from './backup'
import { rootSql } from './database'
import { currentDatabase, privateDir, type Profile } from './profile'

const FROM_HOUR = 2
const KEEP_DAYS = 7
const KEEP_WEEKS = 5

const two = (n: number) => String(n).padStart(2, '0')
export const dayOf = (at: Date): string => `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
const fileOf = (day: string) => `hantverk-${day}.sql.gz`
const DAY_FILE = /^hantverk-(\d{4}-\d{2}-\d{2})\.sql\.gz$/
/** The Monday of a day's week. */
function weekOf(day: string): string {
  const at = new Date(`${day}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() - ((at.getUTCDay() + 6) % 7))
  return at.toISOString().slice(0, 10)
}

/**
 * Of the days that there are backups of: the newest seven, and of the newest five weeks the last day of each. The rest
 * may go.
 */
export function keepRule(days: readonly string[]): { keep: string[]; drop: string[] } {
  const sorted = [...new Set(days)].sort().reverse()
  const weeks = new Map<string, string>()
  for (const day of sorted) if (!weeks.has(weekOf(day))) weeks.set(weekOf(day), day)
  const keep = new Set([...sorted.slice(0, KEEP_DAYS), ...[...weeks.values()].slice(0, KEEP_WEEKS)])
  return { keep: sorted.filter(d => keep.has(d)), drop: sorted.filter(d => !keep.has(d)) }
}

function thinDirectory(dir: string) {
  const days = readdirSync(dir).flatMap(name => DAY_FILE.exec(name)?.[1] ?? [])
  for (const day of keepRule(days).drop) rmSync(`${dir}/${fileOf(day)}`)
}

/** To the second directory when one is named: whole, or not at all. */
function copyTo(second: string, from: string, name: string) {
  copyFileSync(from, `${second}/${name}.part`)
  renameSync(`${second}/${name}.part`, `${second}/${name}`)
  thinDirectory(second)
}

/** Makes the backup of the night when none was made today, after two o'clock; and drops what is past its week. */
export async function backUpNightly(
  profile: Profile,
  note: (text: string) => void,
  now = new Date(),
): Promise<boolean> {
  await dropKept(profile)
  const dir = privateDir(`${profile.dir}/backups`)
  const name = fileOf(dayOf(now))
  if (now.getHours() < FROM_HOUR || existsSync(`${dir}/${name}`)) return false
  const { bytes } = await backUp(profile, `${dir}/${name}`)
  thinDirectory(dir)
  const second = process.env.HANTVERK_BACKUP_DIR ?? ''
  let copied = false
  if (second) {
    try {
      copyTo(second, `${dir}/${name}`, name)
      copied = true
    } catch (error) {
      note(`backup: no second copy in ${second}: ${(error as Error).message}`)
    }
  }
  await recordBackup(profile, name, bytes, copied)
  note(`backup: ${name}, ${bytes} bytes${copied ? ', copied' : ''}`)
  return true
}

/** Writes down that a backup was made, so that the shop's page can say how old the newest is. */
export async function recordBackup(profile: Profile, name: string, bytes: number, copied: boolean): Promise<void> {
  const file = name.replace(/[^\w.-]/g, '_').slice(-200)
  await rootSql(
    profile,
    `INSERT INTO backup_taken (at, file, bytes, second_copy)
        VALUES (UTC_TIMESTAMP(3), '${file}', ${Math.round(bytes)}, ${copied})`,
    currentDatabase(profile),
  )
}
