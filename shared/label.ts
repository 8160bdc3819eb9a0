/** What a label's code opens. */
export interface CodeAnswer { readonly things: readonly { readonly what: 'pour' | 'bag', readonly id: string, readonly name: string }[] }
