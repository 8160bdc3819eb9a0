import { z } from './zod'

/** How the workshop's own network reaches this server; told by the process that started it. */
export const shareFactsSchema = z.strictObject({
  /** Over https, the one that stays the same first. */
  addresses: z.array(z.string()),
  /** Where a phone installs the authority. */
  install: z.string(),
  /** Of the authority: what is compared on both screens. */
  fingerprint: z.string(),
})
export type ShareFacts = z.infer<typeof shareFactsSchema>

const listening = z.strictObject({ host: z.string(), port: z.int().min(0).max(65_535) })

/** What the starting process tells the server: https and plain doors on the network, and what to show at them. */
export const shareOrderSchema = z.strictObject({
  cert: z.string(),
  key: z.string(),
  /** The authority itself, for phones to install. */
  authority: z.string(),
  facts: shareFactsSchema,
  /** This machine's addresses on the network. */
  numbers: z.array(z.string()),
  https: listening,
  plain: listening,
})
export type ShareOrder = z.infer<typeof shareOrderSchema>
