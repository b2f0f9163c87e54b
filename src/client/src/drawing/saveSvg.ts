const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'stroke-linecap',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'display',
]

/** A drawing as a file of its own: what style sheets say is written into its elements, so that any program shows it alike. */
export function svgFile(svg: SVGSVGElement, title: string): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = [svg as Element, ...svg.querySelectorAll('*')]
  const to = [copy as Element, ...copy.querySelectorAll('*')]
  from.forEach((element, i) => {
    const style = getComputedStyle(element)
    for (const name of kept) {
      const value = style.getPropertyValue(name)
      if (value) to[i]!.setAttribute(name, value)
    }
    for (const name of ['class', 'style', 'role', 'tabindex', 'aria-label', 'data-terminal', 'data-part'])
      to[i]!.removeAttribute(name)
    for (const attribute of [...to[i]!.attributes])
      if (attribute.name.startsWith('data-v-')) to[i]!.removeAttribute(attribute.name)
  })
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  const box = svg.viewBox.baseVal
  copy.setAttribute('width', `${box.width}`)
  copy.setAttribute('height', `${box.height}`)
  const label = document.createElementNS('http://www.w3.org/2000/svg', 'title')
  label.textContent = title
  copy.prepend(label)
  return new XMLSerializer().serializeToString(copy)
}

/** Hands a text to the browser as a download. */
export function download(name: string, type: string, text: string) {
  const url = URL.createObjectURL(new Blob([text], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}
