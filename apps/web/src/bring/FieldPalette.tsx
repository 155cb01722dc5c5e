import { useDraggable } from '@dnd-kit/core'
import { FIELDS, type Field, type Mapping } from '@upper-field/core/table'
import { FIELD } from '../words/sentences'

/** The fields a column can become, to be dragged onto it; those that are taken are quiet. */
export function FieldPalette({ mapping }: { mapping: Mapping }) {
  return (
    <ul aria-label="Fields to drag onto a column" className="flex flex-wrap gap-1 pb-2">
      {FIELDS.map((field) => (
        <li key={field}>
          <Chip field={field} columns={mapping.filter((one) => one === field).length} />
        </li>
      ))}
    </ul>
  )
}

function Chip({ field, columns }: { field: Field; columns: number }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: field })
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`block cursor-grab touch-none select-none rounded-small border px-1.5 text-[12.5px] leading-5 ${
        isDragging ? 'relative z-50 border-moss bg-lichen shadow-lg' : 'border-edge bg-surface'
      } ${columns > 0 ? 'text-soft' : 'text-ink'}`}
    >
      {FIELD[field]}
      {columns > 1 ? ` ×${columns}` : ''}
    </span>
  )
}
