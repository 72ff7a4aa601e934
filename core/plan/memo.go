package plan

import "sync"

// memo remembers what was worked out by everything it depends on, the latest so
// many of it. It is safe for use by several goroutines.
type memo[K comparable, V any] struct {
	mu   sync.Mutex
	have map[K]V
	age  []K
}

// of gives what is remembered for a key, or works it out. An error is not
// remembered.
func (m *memo[K, V]) of(key K, most int, work func() (V, error)) (V, error) {
	m.mu.Lock()
	v, ok := m.have[key]
	m.mu.Unlock()
	if ok {
		return v, nil
	}
	v, err := work()
	if err != nil {
		return v, err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.have == nil {
		m.have = map[K]V{}
	}
	if first, ok := m.have[key]; ok {
		return first, nil // somebody else was quicker: all get the same
	}
	if len(m.age) >= most {
		delete(m.have, m.age[0])
		m.age = m.age[1:]
	}
	m.have[key] = v
	m.age = append(m.age, key)
	return v, nil
}
