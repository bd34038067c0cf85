import type { components } from './generated/schema'

import { frameOf } from '../editing/moments'

export type Schemas = components['schemas']

export type Shoot = Schemas['ShootView']
export type Shot = Schemas['ShotView']
export type Version = Schemas['VersionView']
export type Delivery = Schemas['DeliveryView']
export type Recipe = Schemas['Recipe']
export type PickOut = Schemas['PickOut']
/** A touch-up begins with a pick-out, with a mask from a file, or with nothing. */
export type Touchup = Schemas['Touchup']
export type KeptAt = Schemas['KeptAt']
export type Stretch = Schemas['Stretch']
export type Stroke = Schemas['Stroke']
export type Band = Schemas['SharpBand']
export type Disc = Schemas['Disc']
export type Settings = Schemas['SettingsView']
export type Character = Schemas['CharacterView']
export type Things = Schemas['ThingsView']
/** A place where depth is probably wrong; `verdict` is null until somebody has looked. */
export type Fault = Schemas['FaultView']
/** In shares of the picture's width and height. */
export type Region = Schemas['RegionPart']
export type Clip = Schemas['ClipView']
export type Session = Schemas['Session']
export type Allowance = Schemas['AllowanceView']
export type OpenSession = Schemas['OpenSession']
export type InstallationState = Schemas['StateView']
export type NodeState = Schemas['NodeView']
export type ShotEvent = Pick<Shot, 'id' | 'shootId' | 'revision' | 'state' | 'progress' | 'problem'>

/** What went wrong, in words for the person in front of the screen. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    detail: string,
  ) {
    super(detail)
  }

  /** True when trying again later may help: no connection, or no database behind the server. */
  get passing(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504
  }
}

function csrfToken(): string {
  return document.cookie.match(/(?:^|; )XSRF-TOKEN=([^;]*)/)?.[1] ?? ''
}

async function problemOf(response: Response): Promise<Problem> {
  const body = (await response.json().catch(() => null)) as { detail?: string } | null
  return new Problem(response.status, body?.detail ?? `The server answered ${response.status}.`)
}

type Options = { method?: string; json?: unknown; form?: URLSearchParams; signal?: AbortSignal }

async function send(path: string, options: Options = {}): Promise<Response> {
  const headers: Record<string, string> = {}
  let body: BodyInit | undefined
  if (options.json !== undefined) {
    headers['Content-Type'] = 'application/json'
    body = JSON.stringify(options.json)
  } else if (options.form) {
    body = options.form
  }
  const method = options.method ?? 'GET'
  if (method !== 'GET') headers['X-XSRF-TOKEN'] = csrfToken()
  let response: Response
  try {
    response = await fetch(path, { method, headers, body, signal: options.signal ?? null })
  } catch (fault) {
    if (options.signal?.aborted) throw fault
    throw new Problem(0, 'The server cannot be reached.')
  }
  if (!response.ok) throw await problemOf(response)
  return response
}

async function json<T>(path: string, options?: Options): Promise<T> {
  return (await send(path, options)).json() as Promise<T>
}

/** Uploads one file with progress in [0,1]. */
function upload<T>(path: string, file: File, progress: (share: number) => void, asBody = false): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', path)
    request.setRequestHeader('X-XSRF-TOKEN', csrfToken())
    request.upload.onprogress = (event) => progress(event.lengthComputable ? event.loaded / event.total : 0)
    request.onload = () => {
      if (request.status < 300) {
        resolve(JSON.parse(request.responseText) as T)
        return
      }
      let detail =
        request.status === 413 ? 'The file is over the limit of 200 MB.' : `The server answered ${request.status}.`
      try {
        detail = (JSON.parse(request.responseText) as { detail?: string }).detail ?? detail
      } catch {
        // Not a problem document: the plain sentence stays.
      }
      reject(new Problem(request.status, detail))
    }
    request.onerror = () => reject(new Problem(0, 'The connection was lost.'))
    if (asBody) {
      request.setRequestHeader('Content-Type', 'application/octet-stream')
      request.send(file)
      return
    }
    const form = new FormData()
    form.append('file', file)
    request.send(form)
  })
}

/** A shot, and what tells one picture of it from another. */
type Pictured = Pick<Shot, 'id' | 'picture'>

const of = (picture?: string | null): string => (picture ? `&of=${picture}` : '')

const from = (after: string | null): string => (after === null ? '' : `?after=${after}`)

export type FocusPlace =
  | { kind: 'subject' }
  | { kind: 'face' | 'thing'; number: number }
  | { kind: 'spot'; x: number; y: number }
  | { kind: 'patch'; x: number; y: number; width: number; height: number }

export const api = {
  session: () => json<Session>('/api/session'),
  signIn: (name: string, password: string) =>
    send('/api/session', { method: 'POST', form: new URLSearchParams({ name, password }) }),
  signOut: () => send('/api/session/end', { method: 'POST' }),
  createAccount: (name: string, password: string) =>
    send('/api/accounts', { method: 'POST', json: { name, password } }),

  shoots: (after: string | null) => json<Schemas['PageShootView']>(`/api/shoots${from(after)}`),
  shotsOf: (shoot: string, after: string | null) =>
    json<Schemas['PageShotView']>(`/api/shoots/${shoot}/shots${from(after)}`),
  createShoot: (name: string) => json<Shoot>('/api/shoots', { method: 'POST', json: { name } }),
  renameShoot: (id: string, name: string) => json<Shoot>(`/api/shoots/${id}`, { method: 'PATCH', json: { name } }),
  deleteShoot: (id: string) => send(`/api/shoots/${id}`, { method: 'DELETE' }),
  bringIn: (shoot: string, file: File, progress: (share: number) => void) =>
    upload<Shot>(`/api/shoots/${shoot}/shots`, file, progress),

  bringInClip: (shoot: string, file: File, progress: (share: number) => void) =>
    upload<Shot>(`/api/shoots/${shoot}/clips?name=${encodeURIComponent(file.name)}`, file, progress, true),

  bringInDepthClip: (id: string, file: File) =>
    upload<Shot>(`/api/shots/${id}/depth-clip?name=${encodeURIComponent(file.name)}`, file, () => undefined, true),
  clip: (id: string) => json<Clip>(`/api/shots/${id}/clip`),
  clipDepth: (id: string) => json<Schemas['DepthProgress']>(`/api/shots/${id}/clip-depth`),
  keep: (id: string, recipe: Recipe, touchup: string) =>
    json<Schemas['KeepView']>(`/api/shots/${id}/keep`, { method: 'POST', json: { recipe, touchup } }),
  follow: (id: string, recipe: Recipe, follow: string) =>
    json<Schemas['TrackView']>(`/api/shots/${id}/follow`, { method: 'POST', json: { recipe, follow } }),
  strip: async (id: string) => (await send(`/api/shots/${id}/strip`)).blob(),
  smallFilm: (id: string) => `/api/shots/${id}/small-film`,

  shot: (id: string) => json<Shot>(`/api/shots/${id}`),
  deleteShot: (id: string) => send(`/api/shots/${id}`, { method: 'DELETE' }),
  bringInDepth: (id: string, file: File) => upload<Shot>(`/api/shots/${id}/depth-file`, file, () => undefined),
  estimateDepth: (id: string, engine: string, quality: 'draft' | 'best') =>
    json<Shot>(`/api/shots/${id}/depth-estimate`, { method: 'POST', json: { engine, quality } }),
  cancelEstimate: (id: string) => json<Shot>(`/api/shots/${id}/depth-estimate`, { method: 'DELETE' }),
  characters: () => json<Character[]>('/api/lens/characters'),
  settings: () => json<Settings>('/api/settings'),
  state: (): Promise<InstallationState> => json('/api/state'),
  allowance: (): Promise<Allowance> => json('/api/account/allowance'),
  sessions: (): Promise<OpenSession[]> => json('/api/account/sessions'),
  async endSession(id: string): Promise<void> {
    await send(`/api/account/sessions/${id}`, { method: 'DELETE' })
  },
  async endOtherSessions(): Promise<void> {
    await send('/api/account/sessions', { method: 'DELETE' })
  },
  async changePassword(before: string, password: string): Promise<void> {
    await send('/api/account/password', { method: 'PUT', json: { before, password } })
  },
  async endAccount(password: string): Promise<void> {
    await send('/api/account/end', { method: 'POST', json: { password } })
  },
  everything: '/api/account/everything',
  useDepthEngine: (name: string) => json<Settings>('/api/settings/depth-engine', { method: 'PUT', json: { name } }),
  /** @param picture changes the address whenever there is another one */
  thumbnail: (id: string, picture?: string | null) => `/api/shots/${id}/thumbnail${picture ? `?of=${picture}` : ''}`,
  thumbnailOf: async (id: string, picture?: string | null) => (await send(api.thumbnail(id, picture))).blob(),
  replaceSource: (id: string, file: File, progress: (share: number) => void) =>
    upload<Shot>(`/api/shots/${id}/source`, file, progress),
  recipeFile: (version: string) => `/api/versions/${version}/file`,
  takeRecipeFile: (shot: string, file: File) =>
    upload<Schemas['TakenUp']>(`/api/shots/${shot}/recipe-file`, file, () => undefined),
  /** @param photo longer side of the untouched photo */
  ready: (id: string, longSide: number, photo?: number) =>
    send(`/api/shots/${id}/ready?longSide=${longSide}${photo ? `&photo=${photo}` : ''}`, { method: 'POST' }),
  readyAtFullSize: (id: string, version: string) =>
    send(`/api/shots/${id}/ready/full?version=${version}`, { method: 'POST' }),
  photo: async ({ id, picture }: Pictured, longSide: number) =>
    (await send(`/api/shots/${id}/photo?longSide=${longSide}${of(picture)}`)).blob(),
  photoRegion: ({ id, picture }: Pictured, longSide: number, { x, y, width, height }: Region, frame = 0) =>
    send(
      `/api/shots/${id}/photo?longSide=${longSide}&region=${[x, y, width, height].join(',')}&frame=${frame}${of(picture)}`,
    ),
  things: (id: string, frame = 0) => json<Things>(`/api/shots/${id}/things?frame=${frame}`),
  edgeWidths: async (id: string, frame = 0) =>
    (await send(`/api/shots/${id}/edge-widths?frame=${frame}`)).arrayBuffer(),
  /** How sure the estimate is; undefined where that cannot be told. */
  sure: async (id: string) => {
    const answer = await send(`/api/shots/${id}/sure`)
    return answer.status === 204 ? undefined : answer.arrayBuffer()
  },
  nearness: async (id: string, recipe: Recipe, signal: AbortSignal) =>
    (
      await send(`/api/shots/${id}/nearness?frame=${frameOf(recipe)}`, { method: 'POST', json: recipe, signal })
    ).arrayBuffer(),
  mask: async (id: string, recipe: Recipe, touchup: string, signal: AbortSignal) =>
    (
      await send(`/api/shots/${id}/mask`, { method: 'POST', json: { recipe, touchup, frame: frameOf(recipe) }, signal })
    ).arrayBuffer(),
  faults: (id: string, recipe: Recipe, signal: AbortSignal) =>
    json<Fault[]>(`/api/shots/${id}/faults?frame=${frameOf(recipe)}`, { method: 'POST', json: recipe, signal }),
  inspected: (id: string, { kind, x, y }: Fault, verdict: string) =>
    send(`/api/shots/${id}/inspected`, { method: 'POST', json: { kind, x, y, verdict } }),
  maskFile: async (id: string, recipe: Recipe, touchup: string) =>
    (
      await send(`/api/shots/${id}/mask-file`, { method: 'POST', json: { recipe, touchup, frame: frameOf(recipe) } })
    ).blob(),
  bringInMask: (id: string, file: File) => upload<{ hash: string }>(`/api/shots/${id}/masks`, file, () => undefined),
  ladder: (id: string, recipe: Recipe) =>
    json<Schemas['LadderView']>(`/api/shots/${id}/ladder`, {
      method: 'POST',
      json: { recipe, frame: frameOf(recipe) },
    }),
  focus: (id: string, recipe: Recipe, place: FocusPlace) =>
    json<Band>(`/api/shots/${id}/focus`, {
      method: 'POST',
      json: { x: 0, y: 0, width: 0, height: 0, ...place, recipe, frame: frameOf(recipe) },
    }),
  preview: (
    id: string,
    body: {
      recipe: Recipe
      longSide: number
      frame: number
      region?: Region
      page: string
      number: number
      over?: number
      draft?: boolean
      order?: string[]
    },
    signal?: AbortSignal,
  ) => send(`/api/shots/${id}/preview`, { method: 'POST', json: body, ...(signal && { signal }) }),

  versions: (shot: string) => json<Version[]>(`/api/shots/${shot}/versions`),
  version: (id: string) => json<Version>(`/api/versions/${id}`),
  change: (id: string, lock: number, step: string, recipe: Recipe) =>
    json<Version>(`/api/versions/${id}/recipe`, { method: 'PUT', json: { lock, step, recipe } }),
  goTo: (id: string, lock: number, position: number) =>
    json<Version>(`/api/versions/${id}/position`, { method: 'PUT', json: { lock, position } }),
  duplicate: (id: string, name: string) =>
    json<Version>(`/api/versions/${id}/duplicate`, { method: 'POST', json: { name } }),
  renameVersion: (id: string, name: string) =>
    json<Version>(`/api/versions/${id}`, { method: 'PATCH', json: { name } }),
  bringVersionBack: (id: string) => json<Version>(`/api/versions/${id}/return`, { method: 'POST', json: {} }),
  copyParts: (id: string, parts: string[], shots: string[]) =>
    json<{ changed: number }>(`/api/versions/${id}/copy`, { method: 'POST', json: { parts, shots } }),
  deleteVersion: (id: string) => send(`/api/versions/${id}`, { method: 'DELETE' }),

  deliveries: (after: string | null) => json<Schemas['PageDeliveryView']>(`/api/deliveries${from(after)}`),
  deliver: (
    shot: string,
    body: Schemas['DeliverySettings'] & { versionName: string; recipe: Recipe; frames: Schemas['Frames'] | null },
  ) => json<Delivery>(`/api/shots/${shot}/deliveries`, { method: 'POST', json: body }),
  play: (shot: string, body: { recipe: Recipe; frames: Schemas['Frames']; longSide: number; quality: number }) =>
    json<Delivery>(`/api/shots/${shot}/playing`, { method: 'POST', json: body }),
  delivery: (id: string) => json<Delivery>(`/api/deliveries/${id}`),
  tryDeliveryAgain: (id: string) => send(`/api/deliveries/${id}/again`, { method: 'POST' }),
  cancelDelivery: (id: string) => send(`/api/deliveries/${id}/cancel`, { method: 'POST' }),
  deleteDelivery: (id: string) => send(`/api/deliveries/${id}`, { method: 'DELETE' }),
  deliveryFile: (id: string) => `/api/deliveries/${id}/file`,
  deliveryThumbnail: (id: string) => `/api/deliveries/${id}/thumbnail`,
  deliverMany: (batch: Schemas['NewBatch']) =>
    json<Schemas['BatchView']>('/api/batches', { method: 'POST', json: batch }),
  namesOfMany: (batch: Schemas['NewBatch']) =>
    json<Schemas['BatchNames']>('/api/batches/names', { method: 'POST', json: batch }),
  batch: (id: string) => json<Delivery[]>(`/api/batches/${id}`),
  batchZip: (id: string) => `/api/batches/${id}/zip`,
  presets: () => json<Schemas['PresetView'][]>('/api/delivery-presets'),
  keepPreset: (preset: Schemas['NewPreset']) =>
    json<Schemas['PresetView']>('/api/delivery-presets', { method: 'PUT', json: preset }),
  deletePreset: (id: string) => send(`/api/delivery-presets/${id}`, { method: 'DELETE' }),
}
