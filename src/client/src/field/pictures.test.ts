import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, expect, it, vi } from 'vitest'

const blob = (text: string) => new Blob([text], { type: 'image/jpeg' })
let fetched: string[]

/** A page that was just opened, on what the browser keeps. */
async function openPage() {
  vi.resetModules()
  return import('./pictures')
}

beforeEach(() => {
  fetched = []
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('fetch', async (address: string) => {
    fetched.push(address)
    return address.endsWith('/gone') ? new Response('', { status: 404 }) : new Response(blob(address))
  })
})

it('a picture that was taken is there after the page was closed, until the service has it', async () => {
  await (await openPage()).keepPicture('p-1', blob('burnt clamp'))
  const later = await openPage()
  expect(await (await later.pictureOf('p-1'))!.text()).toBe('burnt clamp')
  expect((await later.pictureOf('p-1'))!.type).toBe('image/jpeg')
  await later.sentPicture('p-1')
  expect(await later.pictureOf('p-1')).toBeUndefined()
})

it('the pictures of a circuit that was taken along are fetched once, and left with it', async () => {
  const page = await openPage()
  await page.keepPicture('mine', blob('not sent yet'))
  await page.fetchPictures('c-1', ['p-1', 'gone', 'p-2'])
  await page.fetchPictures('c-1', ['p-1', 'p-2', 'mine'])
  expect(fetched).toEqual(['/api/photos/p-1', '/api/photos/gone', '/api/photos/p-2'])
  // Sent by somebody else before: it stays with its circuit.
  await page.sentPicture('p-1')
  expect(await page.pictureOf('p-1')).toBeDefined()
  await page.leavePictures('c-1')
  expect(await page.pictureOf('p-1')).toBeUndefined()
  expect(await page.pictureOf('mine')).toBeDefined()
})
