import { createSSRApp } from 'vue'
import { renderToString } from '@vue/server-renderer'
import Stranger from './Stranger.vue'

/** The door as it looks before anybody has pressed anything. */
export const draw = (): Promise<string> => renderToString(createSSRApp(Stranger))
