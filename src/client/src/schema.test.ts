import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import Ajv2020 from 'ajv/dist/2020'
import { describe, expect, it } from 'vitest'

const root = join(__dirname, '../../..')
const schema = JSON.parse(readFileSync(join(root, 'docs/formats/circuit.schema.json'), 'utf8'))
const validate = new Ajv2020({ allErrors: true }).compile(schema)
const files = readdirSync(join(root, 'demo/circuits'))

describe('the published circuit schema', () => {
  it.each(files)('fits %s', (file) => {
    const circuit = JSON.parse(readFileSync(join(root, 'demo/circuits', file), 'utf8'))
    expect(validate(circuit), JSON.stringify(validate.errors)).toBe(true)
  })

  it('refuses a device without a kind and a path without a beginning', () => {
    const circuit = JSON.parse(readFileSync(join(root, 'demo/circuits', files[0]!), 'utf8'))
    expect(validate({ ...circuit, devices: [{ tag: 'K1', location: 'panel' }] })).toBe(false)
    expect(validate({ ...circuit, paths: [{ type: 'power', path: 'Q1:1-2' }] })).toBe(false)
  })
})
