import { ref } from 'vue'

import type { components } from './schema'

type Refusal = components['schemas']['ErrorBody']

/** The sentence that tells whom a heavy request waits for; null while none waits. */
export const waiting = ref<string | null>(null)
/** Whether somebody is signed in in this browser, as far as is known. */
export const signedIn = ref(true)

export const NO_ANSWER: Refusal = {
  message: 'Keen Slate does not answer right now.',
  hint: 'Try again in a moment.',
  position: 0,
  length: 0,
}
export const NOT_SENT: Refusal = {
  message: 'Keen Slate does not answer right now, so nothing was saved.',
  hint: 'What you typed is still on this page. Try again in a moment.',
  position: 0,
  length: 0,
}
export const LOST_CHANGE: Refusal = {
  message: 'Keen Slate does not answer. Your change may have been saved; look, then try again.',
  hint: 'What you typed is still on this page, and trying again never makes it twice.',
  position: 0,
  length: 0,
}

/** A change was sent, and no answer came. */
export class LostChange extends Error {}
/** A change could not even be sent. */
export class NotSent extends Error {}

const TRIES = [300, 900] // milliseconds before a request that was not answered is sent again
const KEY = 'Idempotency-Key'
const TOKEN = 'X-CSRF-Token'
let token: Promise<string> | null = null

/**
 * Send a request so that it arrives once. A change carries the token of its session and a key of its own, under which
 * the server recognises it when it is sent again; who has to wait for a turn is told, and asks again until the request
 * is aborted.
 */
export async function send(request: Request): Promise<Response> {
  const change = request.method !== 'GET'
  if (change) {
    if (!request.headers.has(KEY)) request.headers.set(KEY, newKey())
    request.headers.set(TOKEN, await currentToken())
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

async function arrive(request: Request, change: boolean): Promise<Response> {
  for (const later of [...TRIES, null]) {
    try {
      return await fetch(request.clone())
    } catch (error) {
      if (request.signal.aborted) throw error
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

/** The headers of a change that is sent under *key*. */
export function under(key: string): { headers: Record<string, string> } {
  return { headers: { [KEY]: key } }
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
