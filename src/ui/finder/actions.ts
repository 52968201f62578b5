/** Places to go and things to begin, found by the words a maker would use for them. */
import type { Hit } from '../../core/records/search';

const hit = (kind: Hit['kind'], title: string, href: string, words: string): Hit => ({
  kind,
  id: title,
  title,
  words,
  href,
});

export const ACTIONS: readonly Hit[] = [
  hit('place', 'Range', '/', 'all bars overview morning headroom'),
  hit('place', 'Pour day', '/pour', 'bench scale make batch weigh'),
  hit('place', 'Rack', '/rack', 'cut cure curing turn release'),
  hit('place', 'Cupboard', '/cupboard', 'materials stock shelf supplies'),
  hit('place', 'Paper tray', '/cupboard/papers', 'certificates declarations sds read scan'),
  hit('place', 'Scent desk', '/scent', 'blend perfume essential oils'),
  hit('place', 'Wrap', '/wrap', 'labels print ingredients list'),
  hit('place', 'Watch', '/watch', 'changes tasks to do journal ahead'),
  hit('place', 'Rulebook', '/rulebook', 'limits allergens thresholds editions'),
  hit('place', 'House', '/house', 'settings backups archive installation access passphrase'),
  hit('action', 'Bring bars from a spreadsheet', '/house/import', 'import csv xlsx excel recipes'),
  hit('action', 'Make a backup', '/house#backups', 'restore copy safety'),
  hit('action', 'Take everything along', '/house#archive', 'export zip archive download'),
  hit('action', 'Start a bar', '/#new-bar', 'new recipe formula product'),
  hit('action', 'Plan a pour', '/pour', 'new batch begin; pour and a bar’s name goes there at once'),
  hit('action', 'See what to pour next', '/rack/next', 'plan stock runs out days'),
  hit(
    'action',
    'See how sure we are',
    '/rack/sure',
    'forecast prediction coverage interval accuracy model trust',
  ),
  hit('action', 'Read a paper', '/cupboard/papers', 'certificate allergen declaration pdf photograph upload'),
  hit('action', 'Write a delivery down', '/cupboard/delivery', 'lots came post parcel supplies stock in'),
  hit('action', 'Count the shelf', '/cupboard', 'stock take inventory lots'),
  hit('action', 'Write down what was sold', '/rack/out', 'sales market stall till sample lost'),
  hit('action', 'Make a withdrawal list', '/rack/out', 'recall complaint buyers trace'),
  hit('action', 'Put two bars side by side', '/compare', 'compare difference versions'),
  hit('action', 'See what a change would touch', '/watch', 'swap replace discontinued edition day lot'),
  hit('action', 'Bring the calendar along', '/rack/calendar', 'ics dates phone'),
];
