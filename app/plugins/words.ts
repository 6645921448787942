import { createI18n } from 'vue-i18n'
import en from '~/words/en'

/** All strings of the interface stand in words/en.ts; a second language is a second file. */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.use(createI18n({ legacy: false, locale: 'en', messages: { en }, warnHtmlMessage: false }))
})
