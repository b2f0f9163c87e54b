import { createRenderer } from 'vue'

/** A view without a page to stand on: what is composed in it lives as in the browser. */
export const { createApp } = createRenderer<object, object>({
  insert: () => undefined,
  remove: () => undefined,
  createElement: () => ({}),
  createText: () => ({}),
  createComment: () => ({}),
  setText: () => undefined,
  setElementText: () => undefined,
  parentNode: () => null,
  nextSibling: () => null,
  patchProp: () => undefined,
})
