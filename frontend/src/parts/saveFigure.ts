/** Save the SVG file at *address* as a PNG of twice its size, named *name*; false where it could not be had. */
export async function savePng(address: string, name: string): Promise<boolean> {
  try {
    const response = await fetch(address)
    if (!response.ok) return false
    const url = URL.createObjectURL(new Blob([await response.text()], { type: 'image/svg+xml' }))
    const picture = new Image()
    picture.src = url
    await picture.decode()
    const canvas = document.createElement('canvas')
    canvas.width = picture.width * 2
    canvas.height = picture.height * 2
    const pen = canvas.getContext('2d')
    if (!pen) return false
    pen.fillStyle = '#ffffff'
    pen.fillRect(0, 0, canvas.width, canvas.height)
    pen.drawImage(picture, 0, 0, canvas.width, canvas.height)
    URL.revokeObjectURL(url)
    const link = document.createElement('a')
    link.href = canvas.toDataURL('image/png')
    link.download = name
    link.click()
    return true
  } catch {
    return false
  }
}
