import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import {
  folded,
  hasMarkAt,
  placeAt,
  placedAt,
  tiedTo,
  unmarkedAt,
  usualNamed,
  type Form,
  type Place,
  type Shape,
} from '../editing/shapes'
import { useBench } from './bench'

const MICROS = 1e6
/** As many as a recipe holds. */
const MOST = 100
/** By how much a copy lies beside what it is of, in shares of the picture. */
const BESIDE = 0.04

const NAMES: Record<Form, string> = { ellipse: 'Ellipse', rectangle: 'Rectangle', line: 'Line' }

/** Blur shapes on the Bench. */
export const useShapes = defineStore('shapes', () => {
  const bench = useBench()
  /** What the next drag on the picture draws. */
  const drawing = ref<Form>()
  const chosenId = ref('')
  const all = computed<Shape[]>(() => bench.stored?.shapes ?? [])
  const chosen = computed(() => all.value.find((each) => each.id === chosenId.value) ?? all.value[0])
  const full = computed(() => all.value.length >= MOST)
  const seconds = computed(() => bench.micros / MICROS)
  const wakes = computed(() => (bench.clip ? bench.wakes : undefined))

  const placeNow = (shape: Shape): Place => placeAt(shape, seconds.value, wakes.value)
  const place = computed(() => chosen.value && placeNow(chosen.value))
  const markedHere = computed(() => !!chosen.value && hasMarkAt(chosen.value, seconds.value))

  function named(form: Form): string {
    const used = all.value.map((each) => Number(new RegExp(`^${NAMES[form]} (\\d+)$`).exec(each.name)?.[1] ?? 0))
    return `${NAMES[form]} ${Math.max(0, ...used) + 1}`
  }

  function add(form: Form, at: Partial<Place>): void {
    drawing.value = undefined
    if (!bench.stored || full.value) return
    const shape = usualNamed(crypto.randomUUID(), named(form), form, at)
    chosenId.value = shape.id
    bench.commit(`New ${NAMES[form].toLowerCase()}`, { shapes: [...all.value, shape] })
  }

  function replace(shape: Shape, step: string, live = false): void {
    const shapes = all.value.map((each) => (each.id === shape.id ? shape : each))
    if (live) bench.live({ shapes })
    else bench.commit(step, { shapes })
  }

  function change(step: string, part: Partial<Shape>, live = false): void {
    if (chosen.value) replace({ ...chosen.value, ...part }, step, live)
  }

  /** Puts the chosen shape elsewhere at the moment that is shown. */
  function put(part: Partial<Place>, live = false, step = 'Shape moved'): void {
    const on = chosen.value
    if (on) replace(placedAt(on, seconds.value, { ...placeNow(on), ...part }, wakes.value), step, live)
  }

  function turnBy(degrees: number): void {
    if (place.value) put({ turn: folded(place.value.turn + degrees) }, false, 'Shape turned')
  }

  function scaleBy(factor: number): void {
    const now = place.value
    if (now) put({ width: now.width * factor, height: now.height * factor }, false, 'Shape sized')
  }

  /** A mark at the moment that is shown, or none there any more. */
  function toggleMark(): void {
    const on = chosen.value
    if (!on) return
    if (markedHere.value) replace(unmarkedAt(on, seconds.value), 'Mark removed')
    else replace(placedAt(on, seconds.value, placeNow(on), wakes.value, true), 'Mark')
  }

  function tie(follow: string): void {
    if (chosen.value) replace(tiedTo(chosen.value, follow, seconds.value, wakes.value), follow ? 'Tied' : 'Untied')
  }

  function remove(): void {
    const on = chosen.value
    if (!on) return
    bench.commit(`${on.name} removed`, { shapes: all.value.filter((each) => each.id !== on.id) })
  }

  function duplicate(): void {
    const on = chosen.value
    if (!on || full.value) return
    const move = <P extends Place>(each: P): P => ({ ...each, x: each.x + BESIDE, y: each.y + BESIDE })
    const copy = { ...move(on), id: crypto.randomUUID(), name: named(on.form), marks: on.marks.map(move) }
    chosenId.value = copy.id
    bench.commit('Shape copied', { shapes: [...all.value, copy] })
  }

  function chooseNext(by: 1 | -1): void {
    const at = all.value.findIndex((each) => each.id === chosen.value?.id)
    chosenId.value = all.value[(at + by + all.value.length) % all.value.length]?.id ?? ''
  }

  return {
    drawing,
    chosenId,
    chosen,
    all,
    full,
    place,
    placeNow,
    markedHere,
    add,
    change,
    put,
    turnBy,
    scaleBy,
    toggleMark,
    tie,
    remove,
    duplicate,
    chooseNext,
  }
})
