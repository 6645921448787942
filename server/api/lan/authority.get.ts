export default route('GET /api/lan/authority', ({ event }) => {
  setHeader(event, 'content-type', 'application/x-x509-ca-cert')
  setHeader(event, 'content-disposition', 'attachment; filename="hantverk.crt"')
  return authorityFile()
})
