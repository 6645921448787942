/** Store. */
export default {
  store: {
    title: 'Store',
    noLot: 'no lot',
    none: 'Nothing in the store yet. Add a product, then a lot of it.',
    needs: 'Open plans need',
    noNeeds: 'No open plan needs anything.',
    short: '{ml} short',
    of: 'of {ml} here',
    addLot: 'Receive a lot',
    product: 'Product',
    code: 'Lot number',
    litres: 'Litres',
    addProduct: 'Add a product',
    name: 'Name on the shelf',
    class: 'Class',
    price: 'Price per litre',
    shortWhy: 'Short: what open plans need less what all lots of that class hold.',
  },
} as const
