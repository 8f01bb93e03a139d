/** Languages reminders are shipped in: what they say, and the words for what is due. */
export const reminders = {
  en: {
    template:
      'Dear {{name}}, for your {{bikes}} this is due: {{what}}. {{day}} would suit us. Answer, or ring us up. {{shop}}',
    kinds: {
      change: 'a new chain',
      check: 'a look at the chain',
      care: 'chain care',
      event: 'chain care before your event',
      'other-wear': 'a look over',
    },
  },
  fr: {
    template:
      'Bonjour {{name}}, pour {{bikes}}, à faire : {{what}}. Le {{day}} nous conviendrait. Répondez ou appelez-nous. {{shop}}',
    kinds: {
      change: 'nouvelle chaîne',
      check: 'contrôle de la chaîne',
      care: 'entretien de la chaîne',
      event: 'entretien de la chaîne avant votre rendez-vous',
      'other-wear': 'contrôle général',
    },
  },
} as const

export type ReminderLanguage = keyof typeof reminders
export const REMINDER_LANGUAGES = Object.keys(reminders) as ReminderLanguage[]
