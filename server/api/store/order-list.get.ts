import { orderCsv } from '../../services/store/order'

export default route('GET /api/store/order-list', async ({ event, query }) => {
  const text = await orderCsv(query.supplier, await now())
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="order.csv"')
  return text
})
