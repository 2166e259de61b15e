import { ref } from 'vue'

import type { components } from './schema'

type Refusal = components['schemas']['ErrorBody']

/** The sentence that tells whom a heavy request waits for; null while none waits. */
export const waiting = ref<string | null>(null)
/** Whether somebody is signed in in this browser, as far as is known. */
export const signedIn = ref(true)
/** What was sent under a key of its caller's and is not answered yet, so that it can be kept and sent again. */
export const outgoing = new Map<string, Outgoing>()
export interface Outgoing {
  method: string
  path: string
  body: string
}

export const NO_ANSWER: Refusal = {
  message: 'Keen Slate does not answer right now.',
  hint: 'Try again in a moment.',
  position: 0,
  length: 0,
}
export const NOT_SENT: Refusal = {
  message: 'Keen Slate does not answer right now, so nothing was saved.',
  hint: 'What you typed is kept, and is sent by itself as soon as Keen Slate is back.',
  position: 0,
  length: 0,
}
export const LOST_CHANGE: Refusal = {
  message: 'Keen Slate does not answer. Your change may have been saved; it is sent again by itself.',
  hint: 'What you typed is kept, and is never made twice.',
  position: 0,
  length: 0,
}

/** A change was sent, and no answer came. */
export class LostChange extends Error {}
/** A change could not even be sent. */
export class NotSent extends Error {}

const TRIES = [300, 900] // milliseconds before a request that was not answered is sent again
const SILENT = 60_000 // milliseconds after which it is not taken for granted that Keen Slate is there
const KEY = 'Idempotency-Key'
const TOKEN = 'X-CSRF-Token'
const PARKED = 'X-Parked' // never leaves the page
const ENTER =
  /\/api\/(enter|sign-in|invited|join|forgotten|passkey\/(options|sign-in)|provider\/(options|sign-in|join))$/ // whoever comes in has no token yet
let token: Promise<string> | null = null
let away = false // the last request was not answered
let heardAt = Date.now()

/**
 * Send a request so that it arrives once. A change carries the token of its session and a key of its own, under which
 * the server recognises it when it is sent again; who has to wait for a turn is told, and asks again until the request
 * is aborted.
 */
export async function send(request: Request): Promise<Response> {
  const change = request.method !== 'GET'
  if (change) {
    const key = request.headers.get(KEY)
    if (key) outgoing.set(key, await written(request))
    else request.headers.set(KEY, newKey())
    if (request.headers.has(PARKED)) throw new NotSent()
    // What is not sent has surely not been made: a change goes out only to a server that is there.
    if ((away || Date.now() - heardAt > SILENT) && !(await isThere())) throw new NotSent()
    if (!ENTER.test(request.url)) request.headers.set(TOKEN, await currentToken())
  }
  const response = await inTurn(request, change)
  if (response.status === 403) token = null
  if (response.status === 401) signedIn.value = false
  return response
}

async function inTurn(request: Request, change: boolean): Promise<Response> {
  let told: string | null = null
  try {
    for (;;) {
      const response = await arrive(request, change)
      if (response.status !== 503) return response
      const body = (await response
        .clone()
        .json()
        .catch(() => null)) as { waiting?: boolean; error: Refusal } | null
      if (!body?.waiting) return response
      waiting.value = told = `${body.error.message} ${body.error.hint}`
      await pause(1000 * Number(response.headers.get('Retry-After') ?? 1), request.signal)
    }
  } finally {
    if (told && waiting.value === told) waiting.value = null
  }
}

async function written(request: Request): Promise<Outgoing> {
  const { pathname, search } = new URL(request.url)
  return { method: request.method, path: pathname + search, body: await request.clone().text() }
}

/** Whether the server answers at all. */
export async function isThere(): Promise<boolean> {
  try {
    heard(await reached('/healthz', { cache: 'no-store' }))
  } catch {
    away = true
  }
  return !away
}

/**
 * What the server answers. Throws where nothing comes from it: a proxy that cannot reach it says so by itself, and not
 * in JSON.
 */
async function reached(what: Request | string, how?: RequestInit): Promise<Response> {
  const response = await fetch(what, how)
  const json = response.headers.get('Content-Type')?.includes('json')
  if ([502, 503, 504].includes(response.status) && !json) throw new TypeError('the server was not reached')
  return response
}

function heard(response: Response): Response {
  away = false
  heardAt = Date.now()
  return response
}

async function arrive(request: Request, change: boolean): Promise<Response> {
  for (const later of [...TRIES, null]) {
    try {
      return heard(await reached(request.clone()))
    } catch (error) {
      if (request.signal.aborted) throw error
      away = true
      if (later === null) throw change ? new LostChange() : error
      await pause(later, request.signal)
    }
  }
  throw new LostChange()
}

function pause(milliseconds: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = window.setTimeout(resolve, milliseconds)
    signal.addEventListener('abort', () => {
      window.clearTimeout(timer)
      reject(signal.reason as Error)
    })
  })
}

/** A key for one change, to be sent with it again if its answer does not arrive. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/** The headers of a change that is sent under *key*; a *parked* one is only written down as it would be sent. */
export function under(key: string, parked = false): { headers: Record<string, string> } {
  return { headers: parked ? { [KEY]: key, [PARKED]: '1' } : { [KEY]: key } }
}

async function currentToken(): Promise<string> {
  token ??= fetchToken()
  try {
    return await token
  } catch {
    token = null
    throw new NotSent()
  }
}

async function fetchToken(): Promise<string> {
  const response = await fetch('/api/me')
  if (response.status === 401) signedIn.value = false
  if (!response.ok) throw new Error('not signed in')
  return ((await response.json()) as components['schemas']['MeOut']).csrf_token
}
