/** What the page says that lets a phone trust this workshop's server. Menus are named as they are called at writing. */
export type Kind = 'iphone' | 'android' | 'windows' | 'mac' | 'linux'

interface Steps { readonly name: string, readonly steps: readonly string[], readonly remove: string }

const KINDS: Readonly<Record<Kind, Steps>> = {
  iphone: {
    name: 'iPhone or iPad',
    steps: [
      'Open this page in Safari and press “Download” above. Allow it.',
      'Open Settings. Near the top stands “Profile Downloaded”: open it and press Install.',
      'In Settings open General, About, and at the very bottom Certificate Trust Settings. Switch “Nine Ripples” on.',
    ],
    remove: 'Settings, General, VPN & Device Management, Nine Ripples, Remove Profile.',
  },
  android: {
    name: 'Android phone or tablet',
    steps: [
      'Press “Download” above. If the phone says it cannot open the file, that is as it should be: it is in Downloads now.',
      'Open Settings and search for “CA certificate” (it stands under Security, often under “Encryption and credentials”).',
      'The phone warns you. Press “Install anyway”, and choose the file from Downloads.',
      'Use Chrome. Firefox trusts it only after “Use third party CA certificates” is switched on in its own settings.',
    ],
    remove: 'Settings, Security, Encryption and credentials, User credentials or Trusted credentials, User: Nine Ripples, Remove.',
  },
  windows: {
    name: 'Windows',
    steps: [
      'Press “Download” above and open the file.',
      'Press “Install Certificate…”, choose Current User, then “Place all certificates in the following store”.',
      'Choose “Trusted Root Certification Authorities”, and confirm. Start the browser again.',
    ],
    remove: 'Start “certmgr.msc”; Trusted Root Certification Authorities, Certificates: Nine Ripples, Delete.',
  },
  mac: {
    name: 'Mac',
    steps: [
      'Press “Download” above and open the file: Keychain Access takes it in.',
      'Open “Nine Ripples” there, open Trust, and choose Always Trust.',
    ],
    remove: 'Keychain Access, search for Nine Ripples, Delete.',
  },
  linux: {
    name: 'Linux',
    steps: [
      'Press “Download” above.',
      'In Chromium or Chrome: Settings, Privacy and security, Security, Manage certificates, Authorities, Import.',
      'In Firefox: Settings, Privacy & Security, View Certificates, Authorities, Import; tick “identify websites”.',
    ],
    remove: 'in the same place: Nine Ripples, Delete.',
  },
}

export const INSTALL = {
  title: 'Let this phone trust the workshop’s server',
  why: 'Once for each phone. After that what you type is read by nobody on the way, the screen stays awake at the bench, and a pour goes on when the network does not.',
  download: { title: 'Download the certificate', button: 'Download', install: 'Install it' },
  compare: 'Before you install it, look at the server’s own screen (its terminal, or Workshop there). These must be the same:',
  then: { title: 'Open the workshop', button: 'Open the workshop', or: 'or' },
  without: {
    title: 'In a class, or on a phone that is not yours?',
    text: 'Do not install anything. You can pour as a guest from here: what you tell stays on this phone, and nothing of it goes to the server. Without the certificate nobody signs in, the screen may go dark by itself, and a page that is closed does not open again while the network is away.',
    button: 'Pour as a guest',
  },
  left: {
    title: 'Something waits here from before',
    count: 'Entries and changes that this browser could not send while the workshop was open at this address:',
    how: 'When the certificate below is installed, hand them over. They stay here until the workshop’s own page has written them down.',
    button: 'Hand them over',
    said: {
      opened: 'The workshop opens beside this page and asks you. If it warns of the certificate instead, close it and install that first.',
      blocked: 'The browser did not let the workshop open. Allow it to, and press again.',
      done: 'All of it is handed over. You can close this page.',
      some: 'Handed over, but for what the workshop could not read. That stays here.',
    },
  },
  remove: 'To take it off again:',
  kinds: KINDS,
} as const
