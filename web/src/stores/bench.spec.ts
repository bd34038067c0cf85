import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type Recipe, type Shot, type Version } from '../api/client'
import { usualRecipe } from '../api/generated/settings'
import { useBench } from './bench'

const shot = { id: 's', shootId: 'a', width: 3000, height: 2000, revision: 1, state: 'ready', depths: [{ hash: 'x' }] }
const version = (lock: number, position: number, recipe: Recipe, steps: string[]): Version => ({
  id: 'v',
  shotId: 's',
  name: 'First',
  recipe,
  lock,
  position,
  history: steps.map((name, at) => ({ name, position: at })),
})

/** A server that keeps one version. */
function server() {
  const recipes = [usualRecipe]
  const steps = ['Main subject']
  let lock = 0
  const now = (position = recipes.length - 1): Version => version(lock, position, recipes[position] as Recipe, steps)
  vi.spyOn(api, 'shot').mockResolvedValue(shot as unknown as Shot)
  vi.spyOn(api, 'versions').mockImplementation(async () => [now()])
  vi.spyOn(api, 'version').mockImplementation(async () => now())
  vi.spyOn(api, 'change').mockImplementation(async (_id, from, step, recipe) => {
    if (from !== lock) throw new Problem(409, 'This version was changed in another tab.')
    lock++
    recipes.push(recipe)
    steps.push(step)
    return now()
  })
  vi.spyOn(api, 'goTo').mockImplementation(async (_id, _lock, position) => {
    lock++
    return now(position)
  })
  vi.spyOn(api, 'photo').mockResolvedValue(new Blob())
  vi.spyOn(api, 'preview').mockImplementation(async () => new Response(new Blob()))
  vi.spyOn(api, 'nearness').mockResolvedValue(new ArrayBuffer(8))
  return { steps, elsewhere: () => lock++ }
}

describe('the Bench', () => {
  beforeEach(() => {
    vi.restoreAllMocks()
    setActivePinia(createPinia())
    const kept = new Map<string, string>()
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    })
    vi.stubGlobal('createImageBitmap', async () => ({ width: 1, height: 1, close: () => undefined }))
    vi.stubGlobal(
      'OffscreenCanvas',
      class {
        getContext = () => null
      },
    )
  })

  async function opened(prepare = () => {}) {
    const remote = server()
    prepare()
    const bench = useBench()
    await bench.open('s')
    await flushPromises()
    return { bench, remote }
  }

  it('opens the first version of a shot', async () => {
    const { bench } = await opened()
    expect(bench.recipe).toEqual(usualRecipe)
    expect([bench.canUndo, bench.canRedo, bench.savingState]).toEqual([false, false, 'saved'])
  })

  it('leaves the next shot alone when a clip that was opened before it comes late', async () => {
    let arrive: (clip: never) => void = () => undefined
    const late = new Promise<never>((resolve) => (arrive = resolve))
    const remote = server()
    const clip = { ...shot, id: 'c', clip: { frames: 3 } } as unknown as Shot
    vi.spyOn(api, 'shot').mockImplementation(async (id) => (id === 'c' ? clip : (shot as unknown as Shot)))
    vi.spyOn(api, 'versions').mockImplementation(async (id) => [
      { ...version(0, 0, usualRecipe, remote.steps), id: `version of ${id}`, shotId: id },
    ])
    vi.spyOn(api, 'clip').mockReturnValue(late)
    const bench = useBench()
    const first = bench.open('c')
    await flushPromises()
    await bench.open('s')
    arrive({ micros: [0] } as never)
    await first
    await flushPromises()
    expect([bench.shot?.id, bench.version?.id]).toEqual(['s', 'version of s'])
    expect(bench.versions.map((each) => each.id)).toEqual(['version of s'])
  })

  it('leaves the next shot alone when a focus or a depth map for the one before comes late', async () => {
    const remote = server()
    vi.spyOn(api, 'shot').mockImplementation(async (id) => ({ ...shot, id }) as unknown as Shot)
    vi.spyOn(api, 'versions').mockImplementation(async (id) => [
      { ...version(0, 0, usualRecipe, remote.steps), id: `version of ${id}`, shotId: id },
    ])
    let focused: (band: Recipe['band']) => void = () => undefined
    let read: (shot: Shot) => void = () => undefined
    vi.spyOn(api, 'focus').mockReturnValue(new Promise((resolve) => (focused = resolve)))
    vi.spyOn(api, 'bringInDepth').mockReturnValue(new Promise((resolve) => (read = resolve)))
    const bench = useBench()
    await bench.open('first')
    const late = [bench.focusOn({ kind: 'subject' }, 'Main subject'), bench.bringInDepth(new File([], 'depth.png'))]
    await bench.open('next')
    focused({ ...usualRecipe.band, near: 0.9, far: 0.8 })
    read({ ...shot, id: 'first' } as unknown as Shot)
    await Promise.all(late)
    expect(bench.shot?.id).toBe('next')
    expect(bench.recipe).toEqual(usualRecipe)
    expect(api.change).not.toHaveBeenCalled()
  })

  it('stores nothing while something is dragged, and one step when it is let go', async () => {
    const { bench, remote } = await opened()
    bench.live({ opacity: 0.9 })
    bench.live({ opacity: 0.7 })
    await flushPromises()
    expect(remote.steps).toHaveLength(1)
    bench.commit('Opacity', { opacity: 0.7 })
    await flushPromises()
    expect(remote.steps).toEqual(['Main subject', 'Opacity'])
    expect(bench.recipe?.opacity).toBe(0.7)
    bench.commit('Opacity', { opacity: 0.7 })
    await flushPromises()
    expect(remote.steps).toHaveLength(2)
  })

  it('gives back what a drag that is called off has moved', async () => {
    const { bench } = await opened()
    bench.live({ opacity: 0.2 })
    bench.release()
    expect(bench.recipe?.opacity).toBe(1)
  })

  it('undoes and redoes', async () => {
    const { bench } = await opened()
    bench.commit('Opacity', { opacity: 0.7 })
    await flushPromises()
    await bench.undo()
    expect([bench.recipe?.opacity, bench.canUndo, bench.canRedo]).toEqual([1, false, true])
    await bench.redo()
    expect(bench.recipe?.opacity).toBe(0.7)
  })

  it('overwrites nothing when another tab was faster', async () => {
    const { bench, remote } = await opened()
    remote.elsewhere()
    bench.commit('Opacity', { opacity: 0.3 })
    await flushPromises()
    expect(bench.savingState).toBe('conflict')
    await bench.loadAgain()
    expect([bench.savingState, bench.recipe?.opacity]).toEqual(['saved', 1])
  })

  it('shows what was left unsent only when it is of this format', async () => {
    const unsent = (version: number) =>
      JSON.stringify([{ step: 'Old', recipe: { ...usualRecipe, version, opacity: 0.5 } }])
    localStorage.setItem('unsent:v', unsent(1))
    const away = () => void vi.spyOn(api, 'change').mockImplementation(() => new Promise(() => undefined))
    const { bench } = await opened(away)
    expect(bench.recipe?.opacity).toBe(1)
    bench.close()
    localStorage.setItem('unsent:v', unsent(usualRecipe.version))
    await bench.open('s')
    await flushPromises()
    expect(bench.recipe?.opacity).toBe(0.5)
  })
})
