package look

import "sync"

// A Memo keeps what was worked out of something that does not change, under keys of types that nobody else has. Its zero is empty.
type Memo struct{ known sync.Map }

// Once returns what work makes under a key of a snapshot: it works once, however many ask.
func Once[T any](s *Snapshot, key any, work func() T) T { return once(&s.memo, key, work) }

func once[T any](m *Memo, key any, work func() T) T {
	made, _ := m.known.LoadOrStore(key, sync.OnceValue(work))
	return made.(func() T)()
}
