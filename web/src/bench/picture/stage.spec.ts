// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import type { Shot } from '../../api/client'
import { usualRecipe } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import { useAiming } from './aiming'
import { useStageView } from './stageView'

/** A stage of 900 x 560 pixels with a picture of 3000 x 2000, which fits with 12 pixels of air above and below. */
const FITTED = 536 / 2000

function stage() {
  const bench = useBench()
  bench.shot = { id: 's', width: 3000, height: 2000, depths: [] } as unknown as Shot
  bench.stored = usualRecipe
  let view!: ReturnType<typeof useStageView>
  let aiming!: ReturnType<typeof useAiming>
  const mounted = mount(
    defineComponent(() => {
      const root = ref<HTMLDivElement>()
      view = useStageView(root)
      aiming = useAiming(root, view)
      view.refit()
      return () =>
        h('div', {
          ref: root,
          onPointerdown: aiming.down,
          onPointermove: aiming.move,
          onPointerup: aiming.up,
          onWheel: aiming.wheel,
          onKeydown: aiming.key,
        })
    }),
  )
  const root = mounted.get('div')
  ;(root.element as HTMLDivElement).setPointerCapture = () => undefined
  const focusOn = vi.spyOn(bench, 'focusOn').mockResolvedValue()
  return { bench, view, aiming, root, focusOn }
}

const pointer = (x: number, y: number, more = {}) => ({ clientX: x, clientY: y, button: 0, pointerId: 1, ...more })

describe('the stage', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('fits the picture and tells the Bench that all of it is seen', () => {
    const { bench, view } = stage()
    expect(view.viewport.value.scale).toBeCloseTo(FITTED)
    expect(bench.seen).toEqual({ x: 0, y: 0, width: 1, height: 1 })
  })

  it('zooms with the wheel around the pointer', async () => {
    const { view, root } = stage()
    const before = view.shares(500, 300)
    await root.trigger('wheel', { ...pointer(500, 300), deltaY: -400 })
    expect(view.viewport.value.scale).toBeGreaterThan(FITTED)
    expect(view.shares(500, 300).x).toBeCloseTo(before.x)
    expect(view.shares(500, 300).y).toBeCloseTo(before.y)
    expect(view.fitted.value).toBe(false)
  })

  it('shows one pixel of the picture as one of the screen around what is pointed at', () => {
    const { view } = stage()
    const place = view.paneOf({ x: 0.3, y: 0.6 })
    view.fullSize({ x: 0.3, y: 0.6 })
    expect(view.viewport.value.scale).toBe(1)
    expect(view.paneOf({ x: 0.3, y: 0.6 }).x).toBeCloseTo(place.x)
  })

  it('finds places in each of the panes beside each other', () => {
    const { bench, view } = stage()
    bench.compare = 'beside'
    expect(view.panes.value).toHaveLength(2)
    expect(view.originOf(1)).toEqual({ x: 450, y: 0 })
    expect(view.inPane(500, 100)).toEqual({ x: 50, y: 100 })
    expect(view.inPane(400, 100)).toEqual({ x: 400, y: 100 })
  })

  it('focuses on the spot that is clicked and on the area that is dragged open, from any corner', async () => {
    const { view, aiming, root, focusOn } = stage()
    await root.trigger('pointerdown', pointer(450, 280))
    await root.trigger('pointerup', pointer(451, 280))
    expect(focusOn.mock.lastCall?.[0]).toMatchObject({ kind: 'spot', y: expect.closeTo(0.5) })
    await root.trigger('pointerdown', pointer(600, 400))
    await root.trigger('pointermove', pointer(400, 300))
    expect(aiming.patch.value).toEqual({ x: 400, y: 300, width: 200, height: 100 })
    await root.trigger('pointerup', pointer(400, 300))
    const from = view.shares(400, 300)
    const to = view.shares(600, 400)
    expect(focusOn.mock.lastCall?.[0]).toEqual({
      kind: 'patch',
      ...from,
      width: expect.closeTo(to.x - from.x, 9),
      height: expect.closeTo(to.y - from.y, 9),
    })
    expect(aiming.patch.value).toBeUndefined()
  })

  it('moves the picture on other steps and focuses on nothing', async () => {
    const { bench, view, root, focusOn } = stage()
    bench.step = 'lens'
    const { x, y } = view.viewport.value
    await root.trigger('pointerdown', pointer(450, 280))
    await root.trigger('pointermove', pointer(480, 270))
    await root.trigger('pointerup', pointer(480, 270))
    expect(view.viewport.value).toMatchObject({ x: x + 30, y: y - 10 })
    expect(focusOn).not.toHaveBeenCalled()
  })

  it('is aimed at by keys, finely with Shift, never past the picture', async () => {
    const { aiming, root, focusOn } = stage()
    await root.trigger('keydown', { key: 'ArrowLeft' })
    await root.trigger('keydown', { key: 'ArrowDown', shiftKey: true })
    expect(aiming.aim.value).toEqual({ x: expect.closeTo(0.48), y: expect.closeTo(0.504) })
    await root.trigger('keydown', { key: 'Enter' })
    expect(focusOn.mock.lastCall?.[0]).toEqual({ kind: 'spot', x: expect.closeTo(0.48), y: expect.closeTo(0.504) })
    for (let i = 0; i < 40; i++) await root.trigger('keydown', { key: 'ArrowLeft' })
    expect(aiming.aim.value?.x).toBe(0)
  })
})
