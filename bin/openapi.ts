import { writeFileSync } from 'node:fs'
import { openApiText } from '../contract/openapi'

/** Writes the description of the interface where others find it. */
writeFileSync('docs/openapi.json', openApiText())
