/** What was laid, as it is found again when a piece comes back. */
import type { FinishClass } from './finish'

/** By product class; what leaves nothing to be found is not listed. */
export const FOUND_AS: Readonly<Record<string, FinishClass>> = {
  ...{ 'dewaxed-shellac': 'shellac', 'shellac-brushed': 'shellac' },
  ...{ 'lacquer-sanding-sealer': 'nitrocellulose-lacquer', 'vinyl-sealer': 'nitrocellulose-lacquer' },
  ...{ 'nitrocellulose-lacquer': 'nitrocellulose-lacquer', 'urethane-2c': 'catalysed', 'primer-surfacer': 'catalysed' },
  ...{ 'waterborne-polyurethane': 'waterborne', 'opaque-colour': 'waterborne', 'metal-primer': 'oil-paint' },
  ...{ 'oil-polyurethane': 'oil-polyurethane', 'wiping-varnish': 'oil-varnish', 'resin-oil-varnish': 'oil-varnish' },
  ...{ 'varnish-oil': 'oil', 'raw-linseed': 'oil', 'boiled-linseed': 'oil', 'hardwax-oil-2c': 'hardwax-oil' },
  'paste-wax': 'wax',
}
/** Layers that a piece is asked about. */
const MOST_LAYERS = 5
/** From the top down, by the products in the order in which they were laid; neighbours of one class are one layer. */
export function layersLaid(products: readonly string[]): FinishClass[] {
  const found = products.flatMap(p => FOUND_AS[p] ?? [])
  return found
    .filter((f, i) => f !== found[i - 1])
    .reverse()
    .slice(0, MOST_LAYERS)
}
