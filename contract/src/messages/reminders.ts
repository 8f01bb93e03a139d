/** Languages reminders are shipped in: what they say, and the words for what is due. */
export const reminders = {
  en: {
    template:
      'Dear {{name}}, for your {{bikes}} this is due: {{what}}. {{day}} would suit us. Answer, or ring us up. {{shop}}',
    kinds: {
      change: 'a new chain',
      check: 'a look at the chain',
      wash: 'a wash',
      care: 'chain care',
      event: 'chain care before your event',
      'other-wear': 'a look over',
    },
    home: {
      template:
        'Dear {{name}}, the chain of your {{bikes}} is due about {{day}}. {{what}} Tell us next time that it is done. {{shop}}',
      steps: {
        'immersion-wax': 'Wipe it, wax it hot, hang it, flex it, and put it back on with a click.',
        'drip-wax': 'Wipe it dry, a drop of wax on each roller, turn the cranks, let it dry overnight.',
        'dry-oil':
          'Wipe it, a drop of oil on each roller, turn the cranks, wait five minutes, wipe it dry. No oil on a brake disc.',
        'wet-oil':
          'Wipe it, a drop of oil on each roller, turn the cranks, wait five minutes, wipe it dry. No oil on a brake disc.',
        unknown: 'Wipe it and treat it as we showed you.',
      },
      sheets: 'Your own steps are on the sheet with this mail.',
    },
    mail: {
      subject: '{{shop}}: your {{bikes}}',
      sheets: 'How it stands is on the sheet with this mail.',
      stop: 'You would rather not have these messages? One click, and no more come:',
    },
    stop: {
      title: 'No more messages?',
      ask: '{{shop}} writes to you when something is due on your bike.',
      go: 'Write to me no more',
      done: '{{shop}} writes to you no more. If you change your mind, tell them.',
      unknown: 'This address leads nowhere any more. Tell the workshop that you want no messages.',
    },
  },
  fr: {
    template:
      'Bonjour {{name}}, pour {{bikes}}, à faire : {{what}}. Le {{day}} nous conviendrait. Répondez ou appelez-nous. {{shop}}',
    kinds: {
      change: 'nouvelle chaîne',
      check: 'contrôle de la chaîne',
      wash: 'lavage',
      care: 'entretien de la chaîne',
      event: 'entretien de la chaîne avant votre rendez-vous',
      'other-wear': 'contrôle général',
    },
    home: {
      template:
        'Bonjour {{name}}, la chaîne de {{bikes}} est à entretenir vers le {{day}}. {{what}} Dites-nous la prochaine fois que c’est fait. {{shop}}',
      steps: {
        'immersion-wax': 'Essuyez-la, cirez-la à chaud, suspendez-la, assouplissez-la et remontez-la jusqu’au clic.',
        'drip-wax': 'Essuyez-la, une goutte de cire par rouleau, tournez les manivelles, laissez sécher une nuit.',
        'dry-oil':
          'Essuyez-la, une goutte d’huile par rouleau, tournez les manivelles, attendez cinq minutes, essuyez. Pas d’huile sur un disque de frein.',
        'wet-oil':
          'Essuyez-la, une goutte d’huile par rouleau, tournez les manivelles, attendez cinq minutes, essuyez. Pas d’huile sur un disque de frein.',
        unknown: 'Essuyez-la et entretenez-la comme nous vous l’avons montré.',
      },
      sheets: 'Vos gestes à vous sont sur la fiche jointe.',
    },
    mail: {
      subject: '{{shop}} : {{bikes}}',
      sheets: 'La fiche jointe dit où en est votre vélo.',
      stop: 'Vous préférez ne plus recevoir ces messages ? Un clic suffit :',
    },
    stop: {
      title: 'Ne plus recevoir de messages ?',
      ask: '{{shop}} vous écrit quand un entretien de votre vélo est à faire.',
      go: 'Ne plus m’écrire',
      done: '{{shop}} ne vous écrira plus. Si vous changez d’avis, dites-le à l’atelier.',
      unknown: 'Cette adresse ne mène plus nulle part. Dites à l’atelier que vous ne voulez plus de messages.',
    },
  },
} as const

export type ReminderLanguage = keyof typeof reminders
export const REMINDER_LANGUAGES = Object.keys(reminders) as ReminderLanguage[]
