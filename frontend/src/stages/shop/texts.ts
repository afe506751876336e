// Words of the door to the shop's own network.
export const SHOP = {
  how: 'Point the camera of a phone at this, or type the address. It asks once for the passphrase that was printed where Ready Corner was started.',
  address: 'Address in the network of the shop',
  code: 'The address as a code for a camera',
  none: 'There is no door to the network of the shop yet. End Ready Corner with Ctrl-C and start it again with:',
  start: './start --shop',
  noneMore:
    'It makes a passphrase, prints it once, and keeps no more of it than a hash. On this machine nothing is ever asked.',
  same: 'The phone and this machine work on the same car: what is read at the one is at the other within two seconds.',
  care: 'What goes over the network of the shop is not encrypted. Use a network whose people you know.',
  devices: 'Let in',
  noDevices: 'No phone is let in yet.',
  letGo: 'Let go',
  letGoMeans: 'A device that is let go has to give the passphrase again. What waits in it is not lost.',
  device: (who: string, kind: string, at: string) =>
    `${[who, kind || 'device'].filter((words) => words).join(', ')}, since ${at}`,
} as const;
export const LET_IN = {
  title: 'The passphrase of the shop',
  how: 'It was printed where Ready Corner was started with --shop. Capitals, spaces and hyphens do not matter. What was typed here waits, and is sent once you are in.',
  passphrase: 'Passphrase',
  who: 'Who measures on this device',
  enter: 'Let me in',
  missing: 'Type the passphrase first. What stood in the field behind stays there.',
} as const;
