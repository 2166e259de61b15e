import inks from './inks.json'

/** What a bar says: an answer that is right, right in value, wrong, blank; a chance that was not taken. */
export type Ink = 'right' | 'value' | 'wrong' | 'blank' | 'chance'

const ROLES = inks.roles as Record<string, { colour: string; tint: string }>
const LOOKS: Record<Ink, { colour: string; tint: string; hatch: 'none' | 'up' | 'down' | 'dots' }> = {
  right: { colour: '#24303a', tint: '#4d626f', hatch: 'none' },
  value: { colour: '#7a6420', tint: '#f1ecdc', hatch: 'up' },
  wrong: { colour: ROLES.wrong?.colour ?? '#b3261e', tint: '#fae3de', hatch: 'down' },
  blank: { colour: '#8496a0', tint: '#ffffff', hatch: 'dots' },
  chance: { colour: '#8496a0', tint: '#eef3f5', hatch: 'none' },
}
const TILE = 8

/** The hatch of an ink as a pattern for a canvas, so that it can be told apart in grey. */
export function hatchOf(ink: Ink): CanvasPattern | string {
  const look = LOOKS[ink]
  const tile = document.createElement('canvas')
  tile.width = tile.height = TILE
  const pen = tile.getContext('2d')
  if (!pen || look.hatch === 'none') return look.tint
  pen.fillStyle = look.tint
  pen.fillRect(0, 0, TILE, TILE)
  pen.strokeStyle = pen.fillStyle = look.colour
  pen.lineWidth = 1.6
  if (look.hatch === 'dots') pen.fillRect(3, 3, 2, 2)
  else
    for (const shift of [-TILE, 0, TILE]) {
      pen.beginPath()
      pen.moveTo(shift, look.hatch === 'up' ? TILE : 0)
      pen.lineTo(shift + TILE, look.hatch === 'up' ? 0 : TILE)
      pen.stroke()
    }
  return pen.createPattern(tile, 'repeat') ?? look.tint
}
