// Writes the settings of the recipe, as the OpenAPI document declares them, for the page: ranges, defaults, units and names.
import { readFileSync, writeFileSync } from 'node:fs'

const { schemas } = JSON.parse(readFileSync('openapi.json', 'utf8')).components
const name = (reference) => reference.split('/').at(-1)
const lines = []

function add(schema, path) {
  for (const [key, declared] of Object.entries(schema.properties)) {
    if (declared.$ref) add(schemas[name(declared.$ref)], `${path}${key}.`)
    else if (declared.minimum !== undefined && declared['x-unit']) {
      const {
        minimum: least,
        default: usual,
        title: called,
        description: means,
        'x-unit': unit,
        'x-usual-by': usualBy,
      } = declared
      const setting = {
        least,
        most: declared.maximum ?? declared.exclusiveMaximum,
        usual,
        unit,
        called: called ?? '',
        means,
        usualBy,
      }
      lines.push(`  '${path}${key}': ${JSON.stringify(setting)},`)
    }
  }
}

add(schemas.Recipe, '')
add(schemas.Touchup, 'touchup.')
add(schemas.Stroke, 'stroke.')
add(schemas.Follow, 'follow.')
add(schemas.BlurShape, 'shape.')
add(schemas.Rung, 'rung.')

/** What a part of the recipe usually is. */
function usual(schema) {
  const entries = Object.entries(schema.properties).filter(([, each]) => 'default' in each)
  return JSON.stringify(Object.fromEntries(entries.map(([key, each]) => [key, each.default])))
}

writeFileSync(
  'src/api/generated/settings.ts',
  `// Made by settings.mjs from openapi.json.
import type { components } from './schema'

type Schemas = components['schemas']

export const settings = {
${lines.join('\n')}
} as const

/** A number of the recipe. */
export type SettingPath = keyof typeof settings

export const usualRecipe: Schemas['Recipe'] = { format: '${schemas.Recipe.properties.format.const}', ...${usual(schemas.Recipe)} }
export const usualDepth: Schemas['DepthChoice'] = ${usual(schemas.DepthChoice)}
export const usualBand: Schemas['SharpBand'] = ${usual(schemas.SharpBand)}
export const usualTouchup: Omit<Schemas['Touchup'], 'id'> = ${usual(schemas.Touchup)}
export const usualShape: Omit<Schemas['BlurShape'], 'id'> = ${usual(schemas.BlurShape)}
export const usualStroke: Omit<Schemas['Stroke'], 'points'> = ${usual(schemas.Stroke)}
`,
)
