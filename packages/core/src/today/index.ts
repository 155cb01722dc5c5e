export {
  type AudienceFacts,
  type ListFacts,
  type MonthFacts,
  type Pressure,
  TODO_KINDS,
  type Todo,
  type TodoKind,
  todayOf,
} from './today'
