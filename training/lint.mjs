// Looks through the Python sources: faults, unused and undefined names, imports, simplifications, form. With --fix it puts
// the form right.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import ruff from '@astral-sh/ruff-wasm-nodejs'

const workspace = new ruff.Workspace(
  { 'line-length': 120, 'target-version': 'py311', lint: { select: ['E', 'F', 'W', 'I', 'B', 'UP', 'SIM', 'RET', 'PIE'],
      // The scenes are templates in a language full of braces, for which percent formats are plainer.
      ignore: ['UP031'] } },
  ruff.PositionEncoding.Utf16,
)

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory() && !['node_modules', 'target', '__pycache__'].includes(entry.name)) yield* sources(path)
    else if (entry.isFile() && entry.name.endsWith('.py')) yield path
  }
}

/** The text after the fixes that the linter knows; the last come first, so that places stay what they are. */
function fixed(text) {
  const edits = workspace.check(text).flatMap((each) => (each.code === 'I001' && each.fix ? each.fix.edits : []))
  const lines = text.split('\n')
  const at = ({ row, column }) => lines.slice(0, row - 1).reduce((sum, line) => sum + line.length + 1, 0) + column - 1
  return edits
    .sort((a, b) => at(b.location) - at(a.location))
    .reduce((now, edit) => now.slice(0, at(edit.location)) + (edit.content ?? '') + now.slice(at(edit.end_location)), text)
}

let faults = 0
for (const path of sources('.')) {
  let text = readFileSync(path, 'utf8')
  if (process.argv.includes('--fix')) {
    text = workspace.format(fixed(text))
    writeFileSync(path, text)
  } else if (workspace.format(text) !== text) {
    console.error(`${path} is not formatted; run node lint.mjs --fix`)
    faults++
  }
  for (const { code, message, start_location: at } of workspace.check(text)) {
    console.error(`${path}:${at.row}:${at.column} ${code ?? 'syntax'} ${message}`)
    faults++
  }
}
process.exit(faults ? 1 : 0)
